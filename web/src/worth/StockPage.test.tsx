import { afterEach, describe, expect, test } from '@jest/globals';
import { cleanup, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { StockGrounds, StockPiece, StockTotals, StockValuation } from '@jutbank/contract/worth';
import { problem, serve, show } from '../testing/screen.tsx';
import StockPage from './StockPage.tsx';

afterEach(cleanup);

const eur = (amount: string) => ({ amount, currency: 'EUR' });
const totals = (pieces: number, cost: string, worth: string): StockTotals => ({
  pieces,
  cost: eur(cost),
  worth: eur(worth),
  valued: pieces,
  costOfValued: eur(cost),
  withoutCost: 0,
});
const piece = (title: string, more: Partial<StockPiece> = {}): StockPiece => ({
  id: `id-${title}`,
  stockNumber: 'HQ-0001',
  title,
  which: {
    tier: 'probable',
    label: 'Petrel, 2nd form',
    probability: 0.9,
    decided: false,
    variant: null,
    pattern: null,
  },
  when: { core: '1938/1952', outer: '1936/1955', conflict: false },
  days: 40,
  age: 'up to 3 months',
  cost: eur('80.00'),
  worth: { estimate: eur('150.00'), low: eur('110.00'), high: eur('200.00'), thin: false },
  moved: null,
  ask: eur('160.00'),
  listedWeeks: null,
  reprice: null,
  ...more,
});
const valuation = (more: Partial<StockValuation> = {}): StockValuation => ({
  id: 'v1',
  at: '2026-11-25T09:00:00Z',
  person: 'Ines Vadder',
  totals: totals(2, '160.00', '300.00'),
  ages: [{ age: 'up to 3 months', ...totals(2, '160.00', '300.00') }],
  pieces: [piece('Harbour jack'), piece('Ferry pen knife')],
  trends: [],
  untold: 4,
  history: [{ at: '2026-11-25T09:00:00Z', cost: eur('160.00'), worth: eur('300.00'), pieces: 2 }],
  ...more,
});
const stock = (of: StockValuation | null, pieces = 2, running: string | null = null) => ({
  body: { valuation: of, pieces, running },
});

describe('the stock', () => {
  test('empty: says what will stand here, and offers nothing to value', async () => {
    serve({ 'GET /stock': () => stock(null, 0) });
    show(<StockPage />);
    await screen.findByText(/There is nothing in stock/);
    expect(screen.queryByRole('button', { name: 'Value it now' })).toBeNull();
  });
  test('cost and worth, and that everything fits', async () => {
    serve({ 'GET /stock': () => stock(valuation()) });
    show(<StockPage />);
    await screen.findByText('as valued on 25 Nov 2026 by Ines Vadder');
    expect(screen.getAllByText('€160').length).toBeGreaterThan(0);
    screen.getAllByText('Petrel, 2nd form · 1938 – 1952');
    screen.getByText('Every ask fits what its piece would bring.');
    screen.getByText('How it moves shows from the second valuation on.');
    screen.getByText(/Too few sales are known of any maker/);
    screen.getByText(/Of 4 further makers and patterns/);
  });
  test('what was not found out has its cost beside the worth of the others', async () => {
    const open = { ...totals(2, '160.00', '150.00'), valued: 1, costOfValued: eur('80.00') };
    const unknown = piece('Nobody knows', { worth: null });
    serve({
      'GET /stock': () => stock(valuation({ totals: open, pieces: [piece('Harbour jack'), unknown] })),
    });
    show(<StockPage />);
    await screen.findByText('1 piece, which cost €80; 1 is not found out yet');
    within(screen.getByRole('row', { name: /Nobody knows/ })).getByText('not valued');
  });
  test('each reason to re-price in words, with the better ask', async () => {
    const dear = piece('Whittler', {
      listedWeeks: 31,
      moved: -14.2,
      reprice: { reasons: ['stood-long', 'moved'], ask: eur('140.00') },
    });
    serve({ 'GET /stock': () => stock(valuation({ pieces: [dear] })) });
    show(<StockPage />);
    const row = await screen.findByRole('row', { name: /stands for 31 weeks/ });
    within(row).getByText(/its estimate moved −14 % since the last look/);
    within(row).getByText('€140');
    expect(within(row).getByRole('link', { name: 'Whittler' }).getAttribute('href')).toBe(
      '/pieces/id-Whittler/worth',
    );
  });
  test('a worth opens to the sales it rested on when it was valued', async () => {
    serve({
      'GET /stock': () => stock(valuation({ pieces: [piece('Harbour jack')] })),
      'GET /stock/valuations/v1/pieces/id-Harbour%20jack': () => ({
        body: {
          at: '2026-11-25T09:00:00Z',
          person: 'Ines Vadder',
          worth: piece('Harbour jack').worth,
          rows: [
            {
              id: 's1',
              saleDate: '2026-05-02',
              venue: 'Tollgate Rooms',
              priceKind: 'sold',
              variant: 'first',
              paid: eur('140.00'),
              rate: null,
              converted: eur('140.00'),
              adjusted: eur('152.60'),
              weight: 0.62,
              adjustments: [
                { name: 'condition', percent: 9 },
                { name: 'tide', percent: 0.1 },
              ],
              excluded: null,
            },
          ],
          rest: { weight: 0.38, adjusted: eur('146.00'), count: 2 },
          known: { engine: 'value-3', comparables: 7, rates: 3, reference: 1 },
        } satisfies StockGrounds,
      }),
    });
    show(<StockPage />);
    await userEvent.click((await screen.findAllByRole('button', { name: '€150' }))[0] as HTMLElement);
    const opened = within(await screen.findByRole('dialog', { name: /Harbour jack/ }));
    const row = within(await opened.findByRole('row', { name: /Tollgate Rooms/ }));
    row.getByText('condition +9 %');
    row.getByText('62.0 %');
    opened.getByText(/and 2 more sales of it/);
  });
  test('eight are shown, the rest on demand', async () => {
    const many = Array.from({ length: 11 }, (_, i) =>
      piece(`Piece ${i}`, { reprice: { reasons: ['above'], ask: eur('100.00') } }),
    );
    serve({ 'GET /stock': () => stock(valuation({ pieces: many })) });
    show(<StockPage />);
    const table = () => screen.getByRole('region', { name: 'Pieces to re-price' });
    await waitFor(() => expect(within(table()).getAllByRole('link')).toHaveLength(8));
    await userEvent.click(screen.getByRole('button', { name: 'Show all 11' }));
    expect(within(table()).getAllByRole('link')).toHaveLength(11);
  });
  test('trends with their range; the course from the second valuation on', async () => {
    const trends = [
      {
        of: 'market' as const,
        id: null,
        name: 'The market',
        percent: 2.34,
        low: -1.2,
        high: 6.1,
        sales: [254, 165] as const,
      },
      {
        of: 'pattern' as const,
        id: 'petrel',
        name: 'Petrel',
        percent: -6.8,
        low: -16,
        high: 1,
        sales: [32, 13] as const,
      },
    ];
    const history = [
      { at: '2026-10-25T09:00:00Z', cost: eur('100.00'), worth: eur('200.00'), pieces: 1 },
      { at: '2026-11-25T09:00:00Z', cost: eur('160.00'), worth: eur('300.00'), pieces: 2 },
    ];
    serve({ 'GET /stock': () => stock(valuation({ trends, history })) });
    show(<StockPage />);
    await screen.findByText('+2.3 %');
    screen.getByText('−6.8 %');
    screen.getByRole('img', { name: /From €200 on 25 Oct 2026 to €300 on 25 Nov 2026/ });
  });
});

describe('valuing it', () => {
  test('is a task that is followed to its end', async () => {
    let asked = 0;
    const came = serve({
      'GET /stock': () => stock(asked > 1 ? valuation() : null),
      'POST /stock/valuations': () => ({ status: 202, body: { job: 'j1' } }),
      'GET /jobs/j1': () => {
        asked++;
        return { body: { id: 'j1', state: asked > 1 ? 'done' : 'running', progress: 0.4, result: null } };
      },
    });
    show(<StockPage />);
    await userEvent.click(await screen.findByRole('button', { name: 'Value it now' }));
    await screen.findByText('40 %');
    await screen.findByText('as valued on 25 Nov 2026 by Ines Vadder');
    expect(came.filter((r) => r.path === '/jobs/j1').length).toBeGreaterThan(1);
  });
  test('somebody else’s task is followed too, and can be cancelled', async () => {
    let cancelled = false;
    const came = serve({
      'GET /stock': () => stock(null, 3, cancelled ? null : 'j2'),
      'GET /jobs/j2': () => ({
        body: { id: 'j2', state: cancelled ? 'cancelled' : 'running', progress: 0.1, result: null },
      }),
      'DELETE /jobs/j2': () => {
        cancelled = true;
        return { body: {} };
      },
    });
    show(<StockPage />);
    await userEvent.click(await screen.findByRole('button', { name: 'Cancel' }));
    await screen.findByText('Cancelled: nothing was changed.');
    expect(came.some((r) => r.method === 'DELETE')).toBe(true);
  });
  test('somebody who may only read is not offered it', async () => {
    serve({ 'GET /stock': () => stock(valuation()) });
    show(<StockPage />, { role: 'reader' });
    await screen.findByText('How long it has stood');
    expect(screen.queryByRole('button', { name: 'Value it now' })).toBeNull();
  });
  test('where the server fails, it is said and can be tried again', async () => {
    let broken = true;
    serve({ 'GET /stock': () => (broken ? problem(500, 'Something went wrong here') : stock(valuation())) });
    show(<StockPage />);
    await screen.findByText(/Something went wrong here/);
    broken = false;
    await userEvent.click(screen.getByRole('button', { name: /again/i }));
    await screen.findByText('How long it has stood');
  });
});
