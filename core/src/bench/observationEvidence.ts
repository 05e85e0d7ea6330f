/** What one observation is to the engine: a likelihood for every variant, apart from the date. */
import type { FeatureReading, SwapClass } from '../reference/index.ts';
import type { Column, Row } from './compiled.ts';
import type { DatedPart } from './datedEvidence.ts';
import type { Subject, Verdict } from './observation.ts';
import type { BenchSettings } from './settings.ts';

export interface ObservationEvidence {
  readonly subject: Subject;
  readonly part: string;
  readonly swap: SwapClass;
  readonly error: number;
  readonly observed: FeatureReading;
  /** per row: its cell in the two tables; rows of one cell cannot be told apart by this observation */
  readonly cellOf: Int32Array;
  /** per cell; 1 where the likelihood hangs on the date alone */
  readonly likelihood: Float64Array;
  /** per cell: what an undescribed relative of the row would show; it can differ only in what the row records */
  readonly relative: Float64Array;
  /** what a piece of a pattern nobody described would show, of the row's maker, construction and months */
  readonly stranger: UndescribedLikelihood;
  /** what just any piece would show */
  readonly background: number;
  readonly dated?: DatedPart;
  expected(row: Row): FeatureReading[];
  verdict(row: Row): Verdict;
}

/** Per group where rows of a maker and construction are alike in it, else per cell. */
export type UndescribedLikelihood = { readonly perGroup: Float64Array } | { readonly perCell: Float64Array };

/** @param perCell what a stranger shows, @param groupOfCell the group of each cell */
export function undescribedLikelihood(
  perCell: Float64Array,
  groupOfCell: Int32Array,
  groups: number,
): UndescribedLikelihood {
  const perGroup = new Float64Array(groups).fill(NaN);
  for (let c = 0; c < perCell.length; c++) {
    const group = groupOfCell[c] ?? 0;
    const known = perGroup[group] ?? NaN;
    if (Number.isNaN(known)) perGroup[group] = perCell[c] ?? 0;
    else if (known !== perCell[c]) return { perCell };
  }
  return { perGroup };
}

/** Stamps are weighed with the tang they stand in. */
export const TANG = 'tang';

/** How many readings one could mistake the value for. */
export function alternatives(column: Column): number {
  if (column.feature.kind === 'text') return Math.max(20, column.values.length);
  return Math.max(2, column.values.length + (column.feature.kind === 'count' ? 1 : 0));
}

/** R(x|y): the chance to read x when y is there. */
export const readingProbability = (same: boolean, error: number, n: number) =>
  same ? 1 - error : error / (n - 1);

/** Share of each value among a maker's pieces of one construction, mixed with everybody's. */
export function backgroundShare(
  column: Column,
  group: number,
  at: number | undefined,
  settings: BenchSettings,
): number {
  const n = alternatives(column);
  const all = ((at === undefined ? 0 : (column.frequencyOfAll[at] ?? 0)) + 1 / n) / (column.chosenInAll + 1);
  const own = column.frequency[group];
  if (!own) return all;
  const k = settings.backgroundMixing;
  return ((at === undefined ? 0 : (own[at] ?? 0)) + k * all) / ((column.chosenIn[group] ?? 0) + k);
}
