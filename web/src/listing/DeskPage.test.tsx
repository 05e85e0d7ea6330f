import { afterEach, describe, expect, test } from '@jest/globals';
import { cleanup, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { DeskRow, ListingDraft } from '@jutbank/contract/listing';
import { serve, show, problem, type Answers } from '../testing/screen.tsx';
import { eur, sheetOf } from '../testing/sheet.ts';
import DeskPage from './DeskPage.tsx';

afterEach(cleanup);

const [FIRST, SECOND] = ['01ARZ3NDEKTSV4RRFFQ69G5FA1', '01ARZ3NDEKTSV4RRFFQ69G5FA2'] as const;
const sheetFor = (id: string) =>
  sheetOf({
    id,
    stockNumber: id === FIRST ? 'HQ-0001' : 'HQ-0002',
    title: id === FIRST ? 'Harbour jack' : 'Petrel',
    version: 3,
  });
const row = (id: string, more: Partial<DeskRow> = {}): DeskRow => ({
  id,
  version: 3,
  stockNumber: sheetFor(id).stockNumber,
  title: sheetFor(id).title,
  picture: null,
  ask: null,
  missing: [{ stage: 'worth', text: 'Set a price.' }],
  ...more,
});
const draft: ListingDraft = {
  written: { title: 'Harbour jack, 1936', body: 'This is it.' },
  problems: [],
  second: null,
  postage: null,
  cautions: [],
  cautionsAtCounter: [],
  shots: [{ id: 'closed', ask: 'Closed', done: false }],
  unseen: ['Scales: crack'],
  blocks: [],
};
const open = (answers: Answers = {}, items = [row(FIRST), row(SECOND)]) => {
  const came = serve({
    'GET /listing-desk': () => ({ body: { items, ready: 0, waiting: items.length } }),
    ...Object.fromEntries(
      [FIRST, SECOND].flatMap((id) => [
        [`GET /pieces/${id}`, () => ({ body: sheetFor(id) })],
        [`GET /pieces/${id}/listing/draft`, () => ({ body: draft })],
        [
          `PUT /pieces/${id}/pricing`,
          () => ({
            body: { ...sheetFor(id), version: 4, pricing: { ask: eur('120.00'), floor: null, note: '' } },
          }),
        ],
        [`POST /pieces/${id}/listing/publish`, () => ({ body: { ...sheetFor(id), version: 5 } })],
      ]),
    ),
    ...answers,
  });
  show(<DeskPage />, { at: '/listing-desk' });
  return came;
};

describe('the listing desk', () => {
  test('a price, one key, and the next piece is in hand with the price field under one’s fingers', async () => {
    const came = open();
    const field = await screen.findByLabelText('Price');
    await waitFor(() => expect(document.activeElement).toBe(field));
    await userEvent.keyboard('120{Control>}{Enter}{/Control}');
    await screen.findByRole('link', { name: 'Petrel' });
    await waitFor(() => expect(document.activeElement).toBe(screen.getByLabelText('Price')));
    const writes = came.filter((r) => r.method !== 'GET');
    expect(writes.map((r) => [r.method, r.path, r.headers['if-match']])).toEqual([
      ['PUT', `/pieces/${FIRST}/pricing`, '"v3"'],
      ['POST', `/pieces/${FIRST}/listing/publish`, '"v4"'],
    ]);
    screen.getByText(/1 put up/);
  });
  test('keys walk the queue while the price field has the focus', async () => {
    open();
    await screen.findByLabelText('Price');
    await userEvent.keyboard('{Control>}{ArrowDown}{/Control}');
    await screen.findByRole('link', { name: 'Petrel' });
    await userEvent.keyboard('{Control>}{ArrowUp}{/Control}');
    await screen.findByRole('link', { name: 'Harbour jack' });
  });
  test('what is refused is told, and the piece stays in hand', async () => {
    open({
      [`POST /pieces/${FIRST}/listing/publish`]: () =>
        problem(422, 'Please check', [{ pointer: '/listing', message: 'Finish the inspection.' }]),
    });
    await userEvent.type(await screen.findByLabelText('Price'), '120');
    await userEvent.keyboard('{Control>}{Enter}{/Control}');
    await screen.findByText('Finish the inspection.');
    screen.getByRole('link', { name: 'Harbour jack' });
  });
  test('a price that cannot be read puts nothing up', async () => {
    const came = open();
    await userEvent.type(await screen.findByLabelText('Price'), 'a lot');
    await userEvent.keyboard('{Control>}{Enter}{/Control}');
    expect(came.some((r) => r.method !== 'GET')).toBe(false);
  });
  test('the next picture is asked for, and what none shows is told', async () => {
    open();
    await screen.findByText('0 of 1; next: closed');
    screen.getByText(/No picture shows: Scales: crack/);
  });
  test('an empty desk says how pieces come to it', async () => {
    open({}, []);
    await screen.findByText(/Nothing waits to be listed/);
  });
});
