import { afterEach, describe, expect, test } from '@jest/globals';
import { cleanup, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { IntakeBody } from '@jutbank/contract/pieces';
import IntakeStage from './IntakeStage.tsx';
import { problem, type Answers } from '../testing/screen.tsx';
import { sheetOf } from '../testing/sheet.ts';
import { openStage } from '../testing/stage.tsx';

afterEach(cleanup);

const path = `/pieces/${sheetOf().id}`;
const name = () => screen.getByLabelText<HTMLInputElement>(/^Working name/);
const open = (put: Answers[string], more: Answers = {}) =>
  openStage(<IntakeStage />, sheetOf(), { [`PUT ${path}/intake`]: put, ...more });
const puts = (came: readonly { method: string }[]) => came.filter((r) => r.method === 'PUT');

describe('saved as one goes', () => {
  test('with the version seen, once one pauses, and it is said', async () => {
    const came = open(({ body }) => ({ body: sheetOf({ version: 8, intake: body as IntakeBody }) }));
    // pasted, so that a slow machine is not taken for a pause
    await userEvent.click(name());
    await userEvent.paste(' with a ring');
    await screen.findByText('Saved');
    await waitFor(() => expect(puts(came)).toHaveLength(1));
    expect(came.find((r) => r.method === 'PUT')).toMatchObject({
      headers: { 'if-match': '"v7"' },
      body: { title: 'Harbour jack with a ring' },
    });
  });
  test('and taken back, step by step', async () => {
    open(({ body }) => ({ body: sheetOf({ version: 8, intake: body as IntakeBody }) }));
    await userEvent.type(name(), 'x');
    expect(name().value).toBe('Harbour jackx');
    await userEvent.click(screen.getByRole('button', { name: 'Undo' }));
    expect(name().value).toBe('Harbour jack');
    expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Undo' }).disabled).toBe(true);
  });
  test('what is refused is told at its field and stays typed', async () => {
    open(() => problem(422, 'Please check', [{ pointer: '/title', message: 'Give it a working name' }]));
    await userEvent.clear(name());
    await screen.findByText('Give it a working name');
    await screen.findByText('Not saved');
    expect(name().value).toBe('');
  });
});

describe('two people on one piece', () => {
  const meet = async () => {
    let theirs = 9;
    const came = open(
      (request) =>
        request.headers['if-match'] === '"v9"'
          ? { body: sheetOf({ version: 10, intake: request.body as IntakeBody }) }
          : problem(412, 'Changed meanwhile'),
      { [`GET ${path}`]: () => ({ body: sheetOf({ version: theirs++ }) }) },
    );
    await userEvent.click(name());
    await userEvent.paste(' of mine');
    await screen.findByText('Somebody changed this piece meanwhile.');
    return came;
  };
  test('are told, and nothing of either is lost', async () => {
    await meet();
    expect(name().value).toBe('Harbour jack of mine');
    screen.getByText('Not saved');
    screen.getByRole('button', { name: 'Take theirs' });
  });
  test('keeping mine saves it upon theirs', async () => {
    const came = await meet();
    await userEvent.click(screen.getByRole('button', { name: 'Keep mine for this stage' }));
    await screen.findByText('Saved');
    expect(puts(came).at(-1)).toMatchObject({
      headers: { 'if-match': '"v9"' },
      body: { title: 'Harbour jack of mine' },
    });
    expect(screen.queryByText('Somebody changed this piece meanwhile.')).toBeNull();
  });
});
