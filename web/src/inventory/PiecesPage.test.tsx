import { afterEach, describe, expect, test } from '@jest/globals';
import { cleanup, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useLocation } from 'react-router';
import type { InventoryRow, KeptView } from '@jutbank/contract/inventory';
import { eur, sheetOf } from '../testing/sheet.ts';
import { referenceAnswers } from '../testing/reference.ts';
import { problem, serve, show, take, type Answers, type Request } from '../testing/screen.tsx';
import PiecesPage from './PiecesPage.tsx';

afterEach(cleanup);

const row = (n: number, more: Partial<InventoryRow> = {}): InventoryRow => ({
  id: `01ARZ3NDEKTSV4RRFFQ69G5F${String(n).padStart(2, '0')}`,
  stockNumber: `HQ-00${String(n).padStart(2, '0')}`,
  title: `Harbour jack ${n}`,
  construction: 'slipjoint',
  stage: 'listing',
  picture: null,
  attributed: 'Harbour jack, first form',
  variant: null,
  pattern: null,
  tier: 'probable',
  made: '1934 – 1936',
  grade: 'near-mint',
  worth: eur('160.00'),
  cost: null,
  ask: eur('180.00'),
  source: 'Tollgate Rooms',
  lot: null,
  place: 'Drawer 3',
  days: 41,
  warnings: [],
  ...more,
});

function Address() {
  return <output aria-label="Address">{useLocation().search}</output>;
}
function open(rows: InventoryRow[], at = '/pieces', views: KeptView[] = [], more: Answers = {}): Request[] {
  const came = serve({
    ...more,
    ...referenceAnswers,
    'GET /inventory': () => ({ body: { items: rows, nextCursor: null, total: rows.length } }),
    'GET /inventory/choices': () => ({
      body: { places: ['Drawer 3', 'Safe'], sources: ['Tollgate Rooms'], lots: [] },
    }),
    'GET /inventory/views': () => ({ body: { items: views } }),
    'PUT /inventory/views': ({ body }) => ({ body }),
    'POST /inventory/place': ({ body }) => ({
      body: { moved: (body as { pieces: string[] }).pieces.length },
    }),
  });
  show(
    <>
      <PiecesPage />
      <Address />
    </>,
    { at },
  );
  return came;
}
const lists = (came: readonly Request[]) => came.filter((r) => r.path.split('?')[0] === '/inventory');
const asked = (came: readonly Request[]) =>
  Object.fromEntries(new URLSearchParams(lists(came).at(-1)?.path.split('?')[1] ?? ''));

describe('all pieces', () => {
  test('each row says every warning, where it stands and lies, what it is worth and what is asked', async () => {
    open([row(1, { warnings: ['An offer waits for an answer', 'Its identity is in doubt'] })]);
    const one = await screen.findByRole('row', { name: /HQ-0001/ });
    for (const words of [
      'An offer waits for an answer',
      'Its identity is in doubt',
      'Ready to list',
      'Drawer 3',
      '€160',
      '€180.00',
      'near mint',
    ])
      within(one).getByText(words);
    expect(within(one).getByRole('link', { name: 'Harbour jack 1' }).getAttribute('href')).toMatch(
      /\/listing$/,
    );
  });
  test('what is asked stands in the address, and what an address asks is asked', async () => {
    const came = open([row(1)], '/pieces?stage=listed&sort=dearest&nonsense=1&days=soon');
    await screen.findByText('Harbour jack 1');
    expect(asked(came)).toMatchObject({ stage: 'listed', sort: 'dearest' });
    expect(asked(came)).not.toHaveProperty('days');
    await take('Where it lies', 'Safe');
    await waitFor(() => expect(screen.getByLabelText('Address').textContent).toContain('place=Safe'));
    await waitFor(() => expect(asked(came)).toMatchObject({ stage: 'listed', place: 'Safe' }));
  });
  test('words are asked for once typing has paused; what is no amount is told and not asked', async () => {
    const came = open([row(1)]);
    await screen.findByText('Harbour jack 1');
    const before = lists(came).length;
    await userEvent.type(screen.getByRole('searchbox', { name: 'Words' }), 'jack');
    await waitFor(() => expect(asked(came)).toMatchObject({ q: 'jack' }));
    expect(lists(came).length).toBe(before + 1);
    await userEvent.click(screen.getByRole('button', { name: 'More questions' }));
    await userEvent.type(screen.getByRole('textbox', { name: 'Asked at least' }), 'dear');
    screen.getByText('“dear” is not an amount');
  });
  test('nothing fits, and an empty shop, are told apart', async () => {
    open([], '/pieces?q=zzz');
    await screen.findByText('No piece fits what was asked.');
    cleanup();
    open([]);
    await screen.findByText('There is no piece yet');
  });
});

describe('many at once', () => {
  test('the space bar chooses; they are moved together, or their labels printed', async () => {
    const came = open([row(1), row(2), row(3)]);
    (await screen.findByRole('row', { name: /HQ-0001/ })).focus();
    await userEvent.keyboard(' {ArrowDown}');
    await waitFor(() => expect(document.activeElement?.textContent).toContain('HQ-0002'));
    await userEvent.keyboard(' ');
    await waitFor(() => expect(document.querySelector('.chosen b')?.textContent).toBe('2 chosen'));
    const labels = screen.getByRole('link', { name: 'Labels' });
    expect(labels.getAttribute('href')).toContain(`${row(1).id},${row(2).id}`);
    await userEvent.type(screen.getByLabelText('They lie from now on'), 'Safe');
    await userEvent.click(screen.getByRole('button', { name: 'Move them' }));
    await waitFor(() =>
      expect(came.find((r) => r.path === '/inventory/place')?.body).toEqual({
        pieces: [row(1).id, row(2).id],
        place: 'Safe',
      }),
    );
    await waitFor(() => expect(screen.queryByRole('button', { name: 'Move them' })).toBeNull());
  });
});

describe('what is chosen', () => {
  const sheets: Answers = {
    [`GET /pieces/${row(1).id}`]: () => ({
      body: sheetOf({
        id: row(1).id,
        ask: eur('180.00'),
        pricing: { ...sheetOf().pricing, ask: eur('180.00') },
        readings: {
          ...sheetOf().readings,
          worth: {
            estimate: eur('160.00'),
            low: eur('120.00'),
            high: eur('210.00'),
            thin: false,
            comparables: 9,
          },
        },
      }),
    }),
    [`GET /pieces/${row(2).id}`]: () => ({
      body: sheetOf({ id: row(2).id, stockNumber: 'HQ-0002', version: 3 }),
    }),
    [`POST /pieces/${row(1).id}/listing/publish`]: () => ({ body: sheetOf() }),
    [`POST /pieces/${row(2).id}/listing/publish`]: () =>
      problem(422, 'Please check', [{ pointer: '/listing', message: 'It has no picture.' }]),
  };
  const chooseBoth = async () => {
    await userEvent.click(await screen.findByLabelText('Choose HQ-0001'));
    await userEvent.click(screen.getByLabelText('Choose HQ-0002'));
  };
  test('is put up; what may not go up says why, leads to where it is mended, and stays chosen', async () => {
    const came = open([row(1), row(2)], '/pieces', [], sheets);
    await chooseBoth();
    await userEvent.click(screen.getByRole('button', { name: 'Put them up' }));
    await screen.findByText('One was put up.');
    screen.getByText(/It has no picture/);
    expect(screen.getByRole('link', { name: 'HQ-0002 Harbour jack' }).getAttribute('href')).toBe(
      `/pieces/${row(2).id}/listing`,
    );
    expect(document.querySelector('.chosen b')?.textContent).toBe('1 chosen');
    // each against the version it was seen in
    expect(came.find((r) => r.path.endsWith(`${row(2).id}/listing/publish`))?.headers['if-match']).toBe(
      '"v3"',
    );
  });
  test('is valued together; what has no worth is counted, not guessed', async () => {
    open([row(1), row(2)], '/pieces', [], sheets);
    await chooseBoth();
    await userEvent.click(screen.getByRole('button', { name: 'Value them' }));
    await screen.findByText('Worth €160.00');
    screen.getByText(/together, asked €180.00. One has no worth yet/);
  });
  test('has a key for each act, which types nothing and is typed in no field', async () => {
    open([row(1), row(2)], '/pieces', [], sheets);
    await chooseBoth();
    await userEvent.keyboard('m');
    expect(document.activeElement).toBe(screen.getByLabelText('They lie from now on'));
    await userEvent.keyboard('vex');
    expect(screen.getByLabelText<HTMLInputElement>('They lie from now on').value).toBe('vex');
    await userEvent.click(document.body);
    await userEvent.keyboard('v');
    await screen.findByText('Worth €160.00');
    await userEvent.keyboard('x');
    expect(document.querySelector('.chosen')).toBeNull();
  });
  test('is exported by itself', async () => {
    open([row(1), row(2)]);
    await chooseBoth();
    expect(screen.getByRole('link', { name: 'Export them' }).getAttribute('href')).toBe(
      `/api/v1/inventory.csv?pieces=${row(1).id},${row(2).id}`,
    );
  });
});

describe('views', () => {
  test('what is asked is kept under a name, shown again, and forgotten', async () => {
    const came = open([row(1)], '/pieces?stage=listed', [{ name: 'In the safe', asks: 'place=Safe' }]);
    await screen.findByText('Harbour jack 1');
    await userEvent.click(await screen.findByRole('button', { name: 'Keep this view' }));
    await userEvent.click(screen.getByRole('button', { name: 'Keep' }));
    screen.getByText('What is this view called?');
    await userEvent.type(screen.getByRole('textbox', { name: 'Called' }), 'Listed');
    await userEvent.click(screen.getByRole('button', { name: 'Keep' }));
    await waitFor(() =>
      expect(came.find((r) => r.method === 'PUT')?.body).toEqual({
        items: [
          { name: 'In the safe', asks: 'place=Safe' },
          { name: 'Listed', asks: 'stage=listed' },
        ],
      }),
    );
    await screen.findByRole('button', { name: 'Forget this view' });
    await userEvent.click(screen.getByRole('button', { name: 'In the safe' }));
    await waitFor(() => expect(asked(came)).toMatchObject({ place: 'Safe' }));
  });
});
