/**
 * The normal equations (XᵀWX + Λ)θ = XᵀWy + Λm, with one coefficient of every price – its variant – eliminated first:
 * variants meet no other variant, so their block is diagonal and the rest is small whatever the number of variants.
 */
import type { Column, ColumnPlan, Sparse, RandomWalk } from './columns.ts';
import { factorise, substitute } from './symmetric.ts';

/** Prices in columns, one after the other, as flat lists. */
export interface Rows {
  readonly count: number;
  /** where a row's columns begin; one longer than `count` */
  readonly start: Int32Array;
  /** ascending within a row */
  readonly column: Int32Array;
  readonly value: Float64Array;
  /** for each column of a row its place in its variant's list of columns */
  readonly place: Int32Array;
  readonly variant: Int32Array;
  /** where a variant's list of columns begins; one longer than the number of variants */
  readonly listStart: Int32Array;
  /** ascending within a variant */
  readonly list: Int32Array;
}

export function rowsOf(described: readonly Sparse[], variants: number): Rows {
  const total = described.reduce((sum, row) => sum + row.columns.length, 0);
  const start = new Int32Array(described.length + 1);
  const column = new Int32Array(total);
  const value = new Float64Array(total);
  const place = new Int32Array(total);
  const variant = new Int32Array(described.length);
  const touched = Array.from({ length: variants }, () => new Set<number>());
  let at = 0;
  described.forEach((row, i) => {
    start[i] = at;
    variant[i] = row.variant;
    const of = touched[row.variant];
    // ascending, so that the equations are filled in their lower half only
    for (const k of row.columns
      .map((_, k) => k)
      .sort((a, b) => (row.columns[a] ?? 0) - (row.columns[b] ?? 0))) {
      column[at] = row.columns[k] ?? 0;
      value[at] = row.values[k] ?? 0;
      of?.add(column[at] ?? 0);
      at++;
    }
  });
  start[described.length] = at;
  const lists = touched.map((of) => Int32Array.from(of).sort());
  const listStart = new Int32Array(variants + 1);
  lists.forEach((of, v) => {
    listStart[v + 1] = (listStart[v] ?? 0) + of.length;
  });
  const list = new Int32Array(listStart[variants] ?? 0);
  lists.forEach((of, v) => list.set(of, listStart[v] ?? 0));
  const places = lists.map((of) => new Map(Array.from(of, (c, here) => [c, here])));
  for (let i = 0; i < described.length; i++) {
    const of = places[variant[i] ?? -1];
    if (of) for (let n = start[i] ?? 0; n < (start[i + 1] ?? 0); n++) place[n] = of.get(column[n] ?? 0) ?? 0;
  }
  return { count: described.length, start, column, value, place, variant, listStart, list };
}

/** A demand that holds the curve: a price that was never paid. */
export interface PseudoObservation {
  readonly columns: readonly number[];
  readonly values: readonly number[];
  readonly target: number;
  readonly weight: number;
}

/** Deviations in force: learned ones of spreads and walks, and of variants. */
export interface Deviations {
  readonly maker: number;
  readonly pattern: number;
  readonly venue: number;
  readonly material: number;
  readonly variant: number;
  readonly tideStep: number;
  readonly makerTideStep: number;
  readonly askTideStep: number;
}

export const stepSd = (kind: RandomWalk['kind'], sd: Deviations): number =>
  kind === 'tide' ? sd.tideStep : kind === 'ask tide' ? sd.askTideStep : sd.makerTideStep;

export const priorSd = (column: Column, sd: Deviations): number =>
  column.spread === undefined ? column.prior.sd : sd[column.spread];

export interface Solution {
  readonly theta: Float64Array;
  /** of each variant: how far it lies from what all else says */
  readonly effect: Float64Array;
  /** sum of a variant's weights and its prior precision */
  readonly diagonal: Float64Array;
  /** weights of a variant's prices by column, parallel to the rows' `list` */
  readonly cross: Float64Array;
  /** Cholesky factor of the rest, row by row, lower */
  readonly factor: Float64Array;
}

/** @param y what each row says, @param weight its precision */
export function solve(
  rows: Rows,
  y: Float64Array,
  weight: Float64Array,
  plan: ColumnPlan,
  sd: Deviations,
  demands: readonly PseudoObservation[],
): Solution {
  const p = plan.columns.length;
  const variants = plan.variants.length;
  const a = new Float64Array(p * p);
  const b = new Float64Array(p);
  priors(a, b, plan, sd);
  for (const demand of demands)
    demand.columns.forEach((j, n) => {
      const x = demand.weight * (demand.values[n] ?? 0);
      b[j] = (b[j] ?? 0) + x * demand.target;
      demand.columns.forEach((k, m) => {
        if (k <= j) a[j * p + k] = (a[j * p + k] ?? 0) + x * (demand.values[m] ?? 0);
      });
    });
  const diagonal = new Float64Array(variants).fill(1 / sd.variant ** 2);
  const right = new Float64Array(variants);
  const cross = new Float64Array(rows.list.length);
  const { start, column, value, place, variant, listStart, list } = rows;
  for (let i = 0; i < rows.count; i++) {
    const w = weight[i] ?? 0;
    if (w === 0) continue;
    const [from, to] = [start[i] ?? 0, start[i + 1] ?? 0];
    const wy = w * (y[i] ?? 0);
    for (let n = from; n < to; n++) {
      const j = column[n] ?? 0;
      const x = w * (value[n] ?? 0);
      b[j] = (b[j] ?? 0) + (value[n] ?? 0) * wy;
      for (let m = from, row = j * p; m <= n; m++) {
        const at = row + (column[m] ?? 0);
        a[at] = (a[at] ?? 0) + x * (value[m] ?? 0);
      }
    }
    const v = variant[i] ?? 0;
    if (v < 0) continue;
    diagonal[v] = (diagonal[v] ?? 0) + w;
    right[v] = (right[v] ?? 0) + wy;
    const base = listStart[v] ?? 0;
    for (let n = from; n < to; n++)
      cross[base + (place[n] ?? 0)] = (cross[base + (place[n] ?? 0)] ?? 0) + w * (value[n] ?? 0);
  }
  for (let v = 0; v < variants; v++) {
    const [from, to] = [listStart[v] ?? 0, listStart[v + 1] ?? 0];
    const d = diagonal[v] ?? 0;
    const r = (right[v] ?? 0) / d;
    for (let n = from; n < to; n++) {
      const j = list[n] ?? 0;
      const c = cross[n] ?? 0;
      b[j] = (b[j] ?? 0) - c * r;
      const cd = c / d;
      for (let m = from, row = j * p; m <= n; m++) {
        const at = row + (list[m] ?? 0);
        a[at] = (a[at] ?? 0) - cd * (cross[m] ?? 0);
      }
    }
  }
  factorise(a, p);
  const theta = substitute(a, p, b);
  const effect = new Float64Array(variants);
  for (let v = 0; v < variants; v++) {
    let sum = right[v] ?? 0;
    for (let n = listStart[v] ?? 0; n < (listStart[v + 1] ?? 0); n++)
      sum -= (cross[n] ?? 0) * (theta[list[n] ?? 0] ?? 0);
    effect[v] = sum / (diagonal[v] ?? 0);
  }
  return { theta, effect, diagonal, cross, factor: a };
}

/** Λ and Λm: each column's own prior, and the steps of what walks. */
function priors(a: Float64Array, b: Float64Array, plan: ColumnPlan, sd: Deviations): void {
  const p = plan.columns.length;
  const add = (j: number, k: number, x: number) => {
    a[j * p + k] = (a[j * p + k] ?? 0) + x;
  };
  const walking = new Set<number>();
  for (const { start, count, kind } of plan.walks) {
    const precision = 1 / stepSd(kind, sd) ** 2;
    for (let k = 0; k < count; k++) {
      const j = start + k;
      if (k > 0) {
        walking.add(j);
        add(j, j, precision);
        add(j - 1, j - 1, precision);
        add(j, j - 1, -precision);
      }
    }
  }
  plan.columns.forEach((column, j) => {
    if (walking.has(j)) return;
    const precision = 1 / priorSd(column, sd) ** 2;
    add(j, j, precision);
    b[j] = (b[j] ?? 0) + precision * column.prior.mean;
  });
}
