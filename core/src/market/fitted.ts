/** What was learned of the market, as plain data: it can be stored, and sent from thread to thread. */
import type { ColumnPlan } from './columns.ts';
import type { Noise } from './noise.ts';
import type { Deviations } from './normal.ts';

export interface ExcludedSale {
  readonly id: string;
  readonly pattern: string;
  readonly reason: 'no-rate' | 'unknown-pattern';
}

/** What was learned of the market, as data. */
export interface FittedMarket {
  readonly engine: string;
  readonly plan: ColumnPlan;
  readonly theta: Float64Array;
  /** covariance of the columns, full, row by row */
  readonly covariance: Float64Array;
  readonly effect: Float64Array;
  readonly diagonal: Float64Array;
  readonly cross: Float64Array;
  readonly listStart: Int32Array;
  readonly list: Int32Array;
  readonly noise: Noise;
  readonly sd: Deviations;
  readonly postage: number;
  /** how many prices of its own each variant of the plan has, asking prices and offers left out */
  readonly ownSales: Int32Array;
  /** asking prices by variant, or by pattern where the variant is not told: repeated opinions */
  readonly asked: Readonly<Record<string, AskingCount>>;
  /** by how much the interval is stretched, by own sales: none, 1–3, 4–15, more */
  readonly stretch: readonly number[];
  readonly prices: number;
  /** prices there were when spreads, noise and stretch were last learned from nothing */
  readonly learnedFrom: number;
  readonly excluded: readonly ExcludedSale[];
  /** prices that are more likely an error than a price, the farthest off first */
  readonly suspects: readonly Suspect[];
}

export interface AskingCount {
  readonly count: number;
  /** sales of the same variant, which those who ask have seen too */
  readonly sold: number;
  /** by how much they count less because all together stand far off */
  readonly doubt: number;
}

export interface Suspect {
  readonly id: string;
  /** by how much it is more (above 1) or less than such a piece brings */
  readonly times: number;
}
