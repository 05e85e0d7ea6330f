/** The stock at cost and at worth: valued as a whole, how long it has stood, what to re-price, how prices move. */
import { moneyShape, answers, route, ulid } from '../http/index.ts';
import { AGES, REPRICE_REASONS } from '@jutbank/core/worth';
import { readings } from '../pieces/index.ts';
import { trendShape, estimateRow } from '../market/index.ts';
import { z } from 'zod';

export const stockPiece = z
  .object({
    id: z.string(),
    stockNumber: z.string(),
    title: z.string(),
    /** what it was, when made and how surely on that day; null in valuations from before this was kept */
    which: readings.shape.which.nullable(),
    when: readings.shape.when,
    /** days since it was acquired, or taken in where that is not known */
    days: z.number(),
    age: z.enum(AGES),
    cost: moneyShape.nullable(),
    /** null: nothing says yet which pattern it is */
    worth: z
      .object({
        estimate: moneyShape,
        low: moneyShape,
        high: moneyShape,
        thin: z.boolean(),
      })
      .nullable(),
    /** percent that the estimate moved since the valuation before; null where there was none */
    moved: z.number().nullable(),
    ask: moneyShape.nullable(),
    /** whole weeks on the market */
    listedWeeks: z.number().nullable(),
    reprice: z
      .object({
        reasons: z.array(z.enum(REPRICE_REASONS)),
        ask: moneyShape,
      })
      .nullable(),
  })
  .meta({ id: 'StockPiece' });
export type StockPiece = z.infer<typeof stockPiece>;
export const stockTotals = z
  .object({
    pieces: z.number(),
    cost: moneyShape,
    /** of the pieces that could be valued */
    worth: moneyShape,
    valued: z.number(),
    /** what those cost: the rest of the cost has no worth beside it yet */
    costOfValued: moneyShape,
    /** pieces without a price in the books */
    withoutCost: z.number(),
  })
  .meta({ id: 'StockTotals' });
export type StockTotals = z.infer<typeof stockTotals>;
export const stockValuation = z
  .object({
    id: z.string(),
    at: z.string(),
    person: z.string(),
    totals: stockTotals,
    ages: z.array(
      z.intersection(
        z.object({
          age: z.enum(AGES),
        }),
        stockTotals,
      ),
    ),
    pieces: z.array(stockPiece),
    trends: z.array(
      z.intersection(
        trendShape,
        z.object({
          name: z.string(),
        }),
      ),
    ),
    /** makers and patterns of which too few sales are known to say anything */
    untold: z.number(),
    /** valuations made so far, oldest first */
    history: z.array(
      z.object({
        at: z.string(),
        cost: moneyShape,
        worth: moneyShape,
        pieces: z.number(),
      }),
    ),
  })
  .meta({ id: 'StockValuation' });
export type StockValuation = z.infer<typeof stockValuation>;

/** What one worth of a valuation rested on, as it was kept that day. */
export const stockGrounds = z
  .object({
    at: z.string(),
    person: z.string(),
    worth: stockPiece.shape.worth,
    rows: z.array(estimateRow),
    /** what pattern, maker and kind say, and how much of the figure that is */
    rest: z.object({
      weight: z.number(),
      adjusted: moneyShape,
      count: z.number(),
    }),
    /** engine and revisions it was reckoned from */
    known: z.object({
      engine: z.string(),
      comparables: z.number(),
      rates: z.number(),
      reference: z.number(),
    }),
  })
  .meta({ id: 'StockGrounds' });
export type StockGrounds = z.infer<typeof stockGrounds>;

export const REVALUATION_JOB = 'stock-valuation';

export const stockRoutes = {
  stock: route({
    method: 'get',
    path: '/stock',
    hides: ['costs', 'margins'],
    room: 'worth',
    access: 'read',
    summary: 'The stock as it was valued last',
    answer: answers(
      z.object({
        valuation: stockValuation.nullable(),
        pieces: z.number(),
        running: z.string().nullable(),
      }),
      'The last valuation, how many pieces there are now, the task that is under way',
    ),
  }),
  stockGrounds: route({
    method: 'get',
    path: '/stock/valuations/:id/pieces/:piece',
    room: 'worth',
    access: 'read',
    summary: 'The sales that a worth of a valuation rested on, as they were kept',
    params: z.object({ id: ulid, piece: ulid }),
    answer: answers(
      stockGrounds,
      'Rows with their weights, what was said by the rest, the state of knowledge',
    ),
  }),
  revalue: route({
    method: 'post',
    path: '/stock/valuations',
    room: 'worth',
    access: 'work',
    summary: 'Value every unsold piece again, as a task',
    answer: answers(
      z.object({
        job: z.string(),
      }),
      'The task',
    ),
    status: 202,
  }),
};
