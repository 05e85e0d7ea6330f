/** The stock at cost and at worth: valued as a whole, how long it has stood, what to re-price, how prices move. */
import { z } from 'zod';
import type { Money } from '@jutbank/core/money';
import type { Age, RepriceReason } from '@jutbank/core/worth';
import type { Trend } from '@jutbank/core/market';
import { answers, route, ulid } from '../http/index.ts';
import type { Readings } from '../pieces/index.ts';
import type { EstimateRow } from '../market/index.ts';

export interface StockPiece {
  id: string;
  stockNumber: string;
  title: string;
  /** what it was, when made and how surely on that day; null in valuations from before this was kept */
  which: Readings['which'] | null;
  when: Readings['when'];
  /** days since it was acquired, or taken in where that is not known */
  days: number;
  age: Age;
  cost: Money | null;
  /** null: nothing says yet which pattern it is */
  worth: { estimate: Money; low: Money; high: Money; thin: boolean } | null;
  /** percent that the estimate moved since the valuation before; null where there was none */
  moved: number | null;
  ask: Money | null;
  /** whole weeks on the market */
  listedWeeks: number | null;
  reprice: { reasons: RepriceReason[]; ask: Money } | null;
}
export interface StockTotals {
  pieces: number;
  cost: Money;
  /** of the pieces that could be valued */
  worth: Money;
  valued: number;
  /** what those cost: the rest of the cost has no worth beside it yet */
  costOfValued: Money;
  /** pieces without a price in the books */
  withoutCost: number;
}
export interface StockValuation {
  id: string;
  at: string;
  person: string;
  totals: StockTotals;
  ages: ({ age: Age } & StockTotals)[];
  pieces: StockPiece[];
  trends: (Trend & { name: string })[];
  /** makers and patterns of which too few sales are known to say anything */
  untold: number;
  /** valuations made so far, oldest first */
  history: { at: string; cost: Money; worth: Money; pieces: number }[];
}

/** What one worth of a valuation rested on, as it was kept that day. */
export interface StockGrounds {
  at: string;
  person: string;
  worth: StockPiece['worth'];
  rows: EstimateRow[];
  /** what pattern, maker and kind say, and how much of the figure that is */
  rest: { weight: number; adjusted: Money; count: number };
  /** engine and revisions it was reckoned from */
  known: { engine: string; comparables: number; rates: number; reference: number };
}

export const REVALUATION_JOB = 'stock-valuation';

export const stockRoutes = {
  stock: route({
    method: 'get',
    path: '/stock',
    hides: ['costs', 'margins'],
    room: 'sale',
    access: 'read',
    summary: 'The stock as it was valued last',
    answer: answers<{ valuation: StockValuation | null; pieces: number; running: string | null }>(
      'The last valuation, how many pieces there are now, the task that is under way',
    ),
  }),
  grounds: route({
    method: 'get',
    path: '/stock/valuations/:id/pieces/:piece',
    room: 'sale',
    access: 'read',
    summary: 'The sales that a worth of a valuation rested on, as they were kept',
    params: z.object({ id: ulid, piece: ulid }),
    answer: answers<StockGrounds>(
      'Rows with their weights, what was said by the rest, the state of knowledge',
    ),
  }),
  revalue: route({
    method: 'post',
    path: '/stock/valuations',
    room: 'sale',
    access: 'work',
    summary: 'Value every unsold piece again, as a task',
    answer: answers<{ job: string }>('The task'),
    status: 202,
  }),
};
