import { afterEach, beforeEach, describe, expect, test } from '@jest/globals';
import { cleanup, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { Route, Routes } from 'react-router';
import type { Role } from '@jutbank/contract/shop';
import { referenceAnswers } from '../testing/reference.ts';
import { problem, serve, show, take, type Answers } from '../testing/screen.tsx';
import PatternPage from './PatternPage.tsx';
import WritePage from './writing/WritePage.tsx';

beforeEach(() => sessionStorage.clear());
afterEach(cleanup);

const open = (at: string, more: Answers = {}, role: Role = 'owner') => {
  const came = serve({ ...referenceAnswers, ...more });
  show(
    <Routes>
      <Route path="/reference/patterns/:id" element={<PatternPage />} />
      <Route path="/reference/write/:section/:id?" element={<WritePage />} />
      <Route path="*" element={<p>elsewhere</p>} />
    </Routes>,
    { at, role },
  );
  return came;
};
const save = () => userEvent.click(screen.getByRole('button', { name: 'Save' }));
const puts = (came: readonly { method: string }[]) => came.filter((r) => r.method === 'PUT');

describe('a pattern', () => {
  test('shows its forms, each leading to its own page; two of them can be laid side by side', async () => {
    open('/reference/patterns/harbour-jack');
    await screen.findByRole('heading', { name: 'Harbour jack' });
    expect(screen.getAllByRole('link', { name: 'Service issue' })[0]?.getAttribute('href')).toBe(
      '/reference/variants/hj-second',
    );
    await userEvent.click(screen.getByRole('checkbox', { name: 'Compare Trade, first form' }));
    await userEvent.click(screen.getByRole('checkbox', { name: 'Compare Service issue' }));
    expect(screen.getByRole<HTMLInputElement>('checkbox', { name: 'Compare Service issue' }).checked).toBe(
      true,
    );
  });
  test('is written on by those who may, and only read by a clerk', async () => {
    open('/reference/patterns/harbour-jack', {}, 'clerk');
    await screen.findByRole('heading', { name: 'Harbour jack' });
    const written = () =>
      screen.getAllByRole('link').filter((a) => a.getAttribute('href')?.startsWith('/reference/write'));
    expect(written()).toEqual([]);
    cleanup();
    open('/reference/patterns/harbour-jack');
    await screen.findByRole('heading', { name: 'Harbour jack' });
    expect(written()).not.toEqual([]);
  });
  test('that is not there is said, with a way to try again', async () => {
    open('/reference/patterns/nothing', {
      'GET /reference/patterns/nothing': () => problem(404, 'There is no such pattern.'),
    });
    await screen.findByText('There is no such pattern.');
    screen.getByRole('button', { name: 'Try again' });
  });
});

describe('writing the reference', () => {
  test('a source is kept under an id made from its title, its figures as figures', async () => {
    const came = open('/reference/write/sources', {
      'PUT /reference/items/sources/foremans-notebook': () => ({
        body: { section: 'sources', item: {}, version: 1, packs: [], warnings: [] },
      }),
    });
    await userEvent.type(await screen.findByLabelText('Title'), 'Foreman’s notebook');
    await take('Kind', 'Factory record');
    await userEvent.type(screen.getByLabelText('Reliability'), '0,9');
    await save();
    await waitFor(() => expect(puts(came)).toHaveLength(1));
    expect(puts(came)[0]).toMatchObject({
      body: { title: 'Foreman’s notebook', kind: 'factory-record', reliability: 0.9 },
    });
  });
  test('what is wrong is told beneath its field, and what was typed is there when one comes back', async () => {
    open('/reference/write/sources', {
      'PUT /reference/items/sources/unnamed': () =>
        problem(422, 'Please check', [{ pointer: '/title', message: 'What is it called?' }]),
    });
    await userEvent.type(await screen.findByLabelText('Note'), 'seen at Skerry Bay');
    await save();
    await waitFor(() =>
      expect(
        within(screen.getByRole('region', { name: 'Fields of the source' })).getByText('What is it called?'),
      ).toBeDefined(),
    );
    cleanup();
    open('/reference/write/sources');
    expect((await screen.findByLabelText<HTMLTextAreaElement>('Note')).value).toBe('seen at Skerry Bay');
  });
  test('a date that cannot be understood is told while it is typed', async () => {
    open('/reference/write/windows');
    await userEvent.type(await screen.findByLabelText('Used'), '1956 to 1940');
    expect(screen.getByLabelText('Used').getAttribute('aria-invalid')).toBe('true');
  });
  test('is saved from within a field, without a hand on the mouse', async () => {
    const came = open('/reference/write/makers', {
      'PUT /reference/items/makers/eel-works': () => ({
        body: { section: 'makers', item: {}, version: 1, packs: [], warnings: [] },
      }),
    });
    await userEvent.type(await screen.findByLabelText('Name'), 'Eel Works{Control>}{Enter}{/Control}');
    await waitFor(() => expect(puts(came)).toHaveLength(1));
  });
});
