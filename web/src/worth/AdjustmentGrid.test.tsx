import { afterEach, describe, expect, test } from '@jest/globals';
import { cleanup, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { EstimateAnswer, EstimateRow } from '@jutbank/contract/market';
import type { OverrideRecord } from '@jutbank/contract/worth';
import { problem, serve, show, take, type Answers } from '../testing/screen.tsx';
import { eur } from '../testing/sheet.ts';
import { AdjustmentGrid } from './AdjustmentGrid.tsx';

afterEach(cleanup);

const row = (n: number, more: Partial<EstimateRow> = {}): EstimateRow => ({
  id: `0${n}`.padStart(26, '0'),
  saleDate: `2026-0${1 + (n % 9)}-10`,
  venue: `House ${n}`,
  priceKind: 'sold',
  variant: 'hj-first',
  paid: eur('100.00'),
  rate: null,
  converted: eur('100.00'),
  adjusted: eur('112.40'),
  weight: 0.05,
  adjustments: [
    { name: 'condition', percent: 12.4 },
    { name: 'time', percent: -3.1 },
  ],
  excluded: null,
  ...more,
});
const estimate = (rows: EstimateRow[], more: Partial<EstimateAnswer> = {}): EstimateAnswer => ({
  estimate: eur('120.00'),
  low: eur('90.00'),
  high: eur('160.00'),
  level: 0.8,
  byVariant: [
    {
      variant: 'hj-first',
      probability: 1,
      estimate: eur('120.00'),
      low: eur('90.00'),
      high: eur('160.00'),
      effectiveComparables: 5,
      predictive: { kind: 'log-student-t', location: 4.8, scale: 0.2, df: 6 },
    },
  ],
  comparables: rows,
  rest: { weight: 0.2, adjusted: eur('118.00'), count: 41 },
  methods: [{ name: 'adjustment-grid', estimate: eur('120.00') }],
  thin: false,
  supported: true,
  notes: [],
  ...more,
});
const override = (more: Partial<OverrideRecord> = {}): OverrideRecord => ({
  id: 'v1',
  comparable: row(1).id,
  line: 'condition',
  percent: -20,
  reason: 'its tip is gone',
  person: 'Ines Vadder',
  at: '2026-11-20T10:00:00Z',
  endedAt: null,
  ...more,
});
const open = (
  of: EstimateAnswer,
  more: { overrides?: OverrideRecord[]; mayCorrect?: boolean; answers?: Answers; corrected?: string } = {},
) => {
  const came = serve(more.answers ?? {});
  show(
    <AdjustmentGrid
      pieceId="p1"
      estimate={of}
      overrides={more.overrides ?? []}
      corrected={more.corrected === undefined ? null : eur(more.corrected)}
      mayCorrect={more.mayCorrect ?? true}
    />,
  );
  return came;
};

describe('the grid', () => {
  test('every adjustment of every sale, what it comes to, and the rest', () => {
    open(estimate([row(1)]));
    const sale = within(screen.getByRole('row', { name: /House 1/ }));
    sale.getByText('+12.4 %');
    sale.getByText('−3.1 %');
    sale.getByText('€112.40');
    sale.getByText('5.0 %');
    within(screen.getByRole('row', { name: /What pattern, maker and kind say/ })).getByText('20.0 %');
    screen.getByText(/weighed together they give €120.00/);
  });
  test('with several things it may be, the middle of them stands beside the grid’s figure', () => {
    const one = estimate([row(1)]);
    open({ ...one, estimate: eur('123.45'), byVariant: [...one.byVariant, ...one.byVariant] });
    screen.getByText(/the middle of what it may be is €123.45/);
  });
  test('the rate that was used is told with its day', () => {
    open(
      estimate([
        row(1, { paid: { amount: '1100', currency: 'SEK' }, rate: { rate: '11.431', date: '2026-01-09' } }),
      ]),
    );
    expect(screen.getByTitle(/11.431 of 9 Jan 2026/).textContent).toContain('1,100');
  });
  test('what is left out says why', () => {
    open(estimate([row(1, { excluded: 'no-rate', converted: null, adjusted: null })]));
    screen.getByText('left out: no exchange rate for that day');
  });
  test('the heaviest are shown, the rest on demand', async () => {
    open(estimate(Array.from({ length: 30 }, (_, i) => row(i, { weight: 0.03 - i / 1e4 }))));
    const sales = () => screen.getAllByRole('row', { name: /House/ });
    const few = sales().length;
    await userEvent.click(screen.getByRole('button', { name: 'Show all 30' }));
    expect(sales().length).toBe(30);
    expect(few).toBeLessThan(30);
    await userEvent.click(screen.getByRole('button', { name: 'Show fewer' }));
    expect(sales().length).toBe(few);
  });
});

describe('a challenge', () => {
  const challenge = async () =>
    userEvent.click(screen.getByRole('button', { name: /Challenge the sale of/ }));
  test('opens under its row, says what the engine says, and is sent with its reason', async () => {
    const came = open(estimate([row(1)]), {
      answers: { 'POST /pieces/p1/overrides': () => ({ status: 201, body: {} }) },
    });
    await challenge();
    screen.getByText('says +12.4 %');
    await userEvent.type(screen.getByLabelText('Should be'), '−20,5');
    await userEvent.type(screen.getByLabelText('Your reason'), 'its tip is gone');
    await userEvent.click(screen.getByRole('button', { name: 'Correct it' }));
    await waitFor(() => expect(screen.queryByLabelText('Your reason')).toBeNull());
    expect(came[0]?.body).toEqual({
      comparable: row(1).id,
      line: 'condition',
      percent: -20.5,
      reason: 'its tip is gone',
    });
  });
  test('a word for a number is told before it is sent; a reason that lacks, by the server', async () => {
    const came = open(estimate([row(1)]), {
      answers: {
        'POST /pieces/p1/overrides': () =>
          problem(422, 'Please check', [{ pointer: '/reason', message: 'say why; the reason is kept' }]),
      },
    });
    await challenge();
    await userEvent.type(screen.getByLabelText('Should be'), 'a lot');
    await screen.findByText('“a lot” is not a number');
    expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Correct it' }).disabled).toBe(true);
    expect(came).toHaveLength(0);
    await userEvent.clear(screen.getByLabelText('Should be'));
    await userEvent.type(screen.getByLabelText('Should be'), '5');
    await userEvent.click(screen.getByRole('button', { name: 'Correct it' }));
    await screen.findByText('say why; the reason is kept');
    expect(screen.getByLabelText<HTMLInputElement>('Should be').value).toBe('5');
  });
  test('a figure that could not be read holds nothing up once the whole sale is challenged', async () => {
    const came = open(estimate([row(1)]), {
      answers: { 'POST /pieces/p1/overrides': () => ({ status: 201, body: {} }) },
    });
    await challenge();
    await userEvent.type(screen.getByLabelText('Should be'), 'a lot');
    await take('Line', 'The sale itself');
    await userEvent.type(screen.getByLabelText('Your reason'), 'another form');
    await userEvent.click(screen.getByRole('button', { name: 'Correct it' }));
    await waitFor(() => expect(came).toHaveLength(1));
    expect(came[0]?.body).toMatchObject({ percent: null, reason: 'another form' });
  });
  test('what was corrected shows beside the engine’s line, and is taken back', async () => {
    const came = open(estimate([row(1)]), {
      overrides: [override()],
      corrected: '96.00',
      answers: { 'DELETE /pieces/p1/overrides/v1': () => ({ body: {} }) },
    });
    within(screen.getByRole('row', { name: /House 1/ })).getByText('−20.0 %');
    screen.getByText('€96.00');
    screen.getByText('its tip is gone');
    await userEvent.click(screen.getByRole('button', { name: 'Take back' }));
    await waitFor(() => expect(came).toHaveLength(1));
  });
  test('one that ended stays to be read and counts no more', () => {
    open(estimate([row(1)]), { overrides: [override({ endedAt: '2026-11-21T10:00:00Z' })] });
    screen.getByText(/taken back 21 Nov 2026/);
    expect(screen.queryByRole('button', { name: 'Take back' })).toBeNull();
    expect(within(screen.getByRole('row', { name: /House 1/ })).queryByText('−20.0 %')).toBeNull();
  });
  test('is not offered to who may not correct', () => {
    open(estimate([row(1)]), { mayCorrect: false });
    expect(screen.queryByRole('button', { name: /Challenge/ })).toBeNull();
  });
});
