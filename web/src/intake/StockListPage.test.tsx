import { afterEach, describe, expect, test } from '@jest/globals';
import { cleanup, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { StockListAnswer, StockListPieces, StockLook } from '@jutbank/contract/intake';
import { referenceAnswers } from '../testing/reference.ts';
import { problem, serve, show, take, type Answers, type Request } from '../testing/screen.tsx';
import StockListPage from './StockListPage.tsx';

afterEach(cleanup);
const LIST = '01ARZ3NDEKTSV4RRFFQ69G5FAV';
const looked: StockLook = {
  encoding: 'utf-8',
  separator: ';',
  header: ['Nr', 'Name', 'Bauart', 'Griff'],
  sample: [['A-1', 'Jack', 'Jagdnicker', 'Horn']],
  rows: 3,
  mapping: {
    columns: { Nr: 'stock_number', Name: 'title', Bauart: 'construction' },
    dateOrder: 'dmy',
    decimalComma: true,
    currencyInPrice: false,
    fixed: { construction: 'slipjoint', currency: 'EUR' },
    names: { maker: {}, pattern: {}, variant: {} },
    words: {},
  },
  remembered: false,
  names: [],
  words: [{ column: 'construction', said: 'Jagdnicker', rows: 2, key: 'jagdnicker', guess: null }],
  notation: { dateOrder: 'dmy', decimalComma: true, currencyInPrice: false },
};
const answer = (more: Partial<StockListAnswer> = {}): StockListAnswer => ({
  id: null,
  rows: 3,
  added: 1,
  alreadyKnown: 0,
  rejected: 2,
  errors: [
    {
      line: 3,
      column: 'construction',
      columnNumber: 3,
      value: 'Jagdnicker',
      message: 'nobody has said what this word means',
    },
  ],
  warnings: [],
  first: [
    {
      line: 2,
      stockNumber: null,
      title: 'Jack',
      construction: 'slipjoint',
      pattern: null,
      acquired: '2024-03',
      price: { amount: '80.00', currency: 'EUR' },
      ask: null,
      place: 'Drawer 4',
      pictures: 2,
      shopNote: 'Griff: Horn',
    },
  ],
  ...more,
});
const list: StockListPieces = {
  id: LIST,
  name: 'stock.csv',
  person: 'Ines Vadder',
  at: '2026-12-02T10:00:00Z',
  pieces: 2,
  bare: 2,
  list: [
    { id: '01ARZ3NDEKTSV4RRFFQ69G5FA1', stockNumber: 'A-1', title: 'Jack', pictures: ['left'], has: 0 },
    { id: '01ARZ3NDEKTSV4RRFFQ69G5FA2', stockNumber: 'A-2', title: 'Pruner', pictures: [], has: 0 },
  ],
};
const server = (more: Answers = {}) =>
  serve({
    ...referenceAnswers,
    'GET /stock-lists': () => ({ body: { items: [] } }),
    'POST /stock-lists/look': () => ({ body: looked }),
    'POST /stock-lists': () => ({ body: answer() }),
    [`GET /stock-lists/${LIST}`]: () => ({ body: list }),
    ...more,
  });
const choose = async () =>
  userEvent.upload(await screen.findByLabelText('Choose your list'), new File(['Nr'], 'stock.csv'));
const sent = (came: readonly Request[]) =>
  came.filter((r) => r.method === 'POST' && /^\/stock-lists(\?|$)/.test(r.path));
const mappingOf = (request: Request | undefined) =>
  JSON.parse(String((request?.body as FormData).get('mapping'))) as StockLook['mapping'];

describe('moving in with a list', () => {
  test('is tried at once; what would come in stands as it would, what would not at its line', async () => {
    const came = server();
    show(<StockListPage />);
    await choose();
    expect((await screen.findByText(/would stay out/)).textContent).toBe(
      '1 would come in, 2 would stay out.',
    );
    screen.getByText('Line 3, how it is built “Jagdnicker”: nobody has said what this word means');
    const row = within(screen.getByRole('region', { name: 'The first pieces' })).getAllByRole('row')[1];
    expect(row?.textContent).toBe('the nextJack Slipjoint folderMar 2024€80.00Drawer 42Griff: Horn');
    expect(sent(came).map((r) => r.path)).toEqual(['/stock-lists?check=1']);
  });

  test('a word gets its meaning, what was tried before counts no more, and then the pieces come in', async () => {
    const came = server({
      'POST /stock-lists': ({ path }) => ({
        body: path.includes('check')
          ? answer({ added: 3, rejected: 0, errors: [] })
          : answer({ id: LIST, added: 3, rejected: 0 }),
      }),
    });
    show(<StockListPage />);
    await choose();
    await screen.findByRole('button', { name: 'Take in 3 pieces' });
    await take('What “Jagdnicker” means', 'Fixed blade');
    expect(screen.getByRole('button', { name: 'Take them in' })).toHaveProperty('disabled', true);
    await userEvent.click(screen.getByRole('button', { name: 'Try it' }));
    await userEvent.click(await screen.findByRole('button', { name: 'Take in 3 pieces' }));
    await screen.findByText(/3 pieces are in stock now/);
    expect(sent(came).map((r) => r.path)).toEqual([
      '/stock-lists?check=1',
      '/stock-lists?check=1',
      '/stock-lists',
    ]);
    expect(mappingOf(sent(came).at(-1)).words).toEqual({ construction: { jagdnicker: 'fixed' } });
    await screen.findByRole('region', { name: 'Pictures of the list' });
  });

  test('a file that is no list is told with what to do', async () => {
    server({
      'POST /stock-lists/look': () =>
        problem(422, 'Some of the input is not right', [{ pointer: '/file', message: 'this is a workbook' }]),
    });
    show(<StockListPage />);
    await choose();
    expect((await screen.findByRole('alert')).textContent).toBe('this is a workbook');
  });
});

describe('a list that came in', () => {
  const past = { ...list, list: undefined };
  const lists: Answers = { 'GET /stock-lists': () => ({ body: { items: [past] } }) };
  test('its pictures find their pieces; one that fails is told and stays, nobody’s is left out', async () => {
    const came = server({
      ...lists,
      [`POST /pieces/${list.list[0]?.id}/pictures`]: () => ({ status: 201, body: {} }),
      [`POST /pieces/${list.list[1]?.id}/pictures`]: () =>
        problem(415, 'This is not a picture Jutbank can read.'),
    });
    show(<StockListPage />);
    await userEvent.click(await screen.findByRole('button', { name: 'Add pictures' }));
    await userEvent.upload(
      await screen.findByLabelText('Choose all pictures'),
      ['LEFT.jpg', 'a2.png', 'IMG_0001.jpg'].map((name) => new File(['x'], name, { type: 'image/png' })),
    );
    expect((await screen.findByText(/find their piece/)).textContent).toBe(
      '2 of 3 pictures find their piece.',
    );
    screen.getByText('Nobody’s, and left out: IMG_0001.jpg');
    await userEvent.click(screen.getByRole('button', { name: 'Add 2 pictures' }));
    await screen.findByText('a2.png: This is not a picture Jutbank can read.');
    screen.getByRole('button', { name: 'Add 1 picture' });
    expect(came.filter((r) => r.path.endsWith('/pictures')).map((r) => r.path)).toEqual(
      list.list.map((p) => `/pieces/${p.id}/pictures`),
    );
  });
  test('is taken back after it was asked, and by whoever may', async () => {
    const came = server({
      ...lists,
      [`DELETE /stock-lists/${LIST}`]: () => ({ body: { takenBack: 1, kept: 1 } }),
    });
    show(<StockListPage />);
    await userEvent.click(await screen.findByRole('button', { name: 'Take back' }));
    expect(came.some((r) => r.method === 'DELETE')).toBe(false);
    await userEvent.click(screen.getByRole('button', { name: 'Take them back' }));
    await screen.findByText('1 taken back; 1 stay, somebody has worked on them.');
    cleanup();
    show(<StockListPage />, { role: 'clerk' });
    await screen.findByRole('button', { name: 'Add pictures' });
    expect(screen.queryByRole('button', { name: 'Take back' })).toBeNull();
    cleanup();
    show(<StockListPage />, { role: 'reader' });
    await waitFor(() => screen.getByText('Your account reads, it does not take in pieces'));
  });
});
