/** Variances and covariances of what the regression says, with the variants put back in. */
import type { FittedMarket } from './fitted.ts';
import type { Rows } from './normal.ts';

type Covered = Pick<FittedMarket, 'covariance' | 'diagonal' | 'cross' | 'listStart' | 'list'> & {
  readonly plan: { readonly columns: readonly unknown[] };
};
export interface Touched {
  readonly columns: ArrayLike<number>;
  readonly values: ArrayLike<number>;
  /** −1: none that was ever sold */
  readonly variant: number;
}

/** What a price touches, its variant folded into the columns: z = x − c/d, of which zᵀSz + 1/d is the variance. */
export interface ReducedRow {
  readonly columns: readonly number[];
  readonly values: readonly number[];
  readonly variant: number;
  /** what the variant leaves on its own */
  readonly own: number;
}

export function reducedTo(market: Covered, x: Touched): ReducedRow {
  const z = new Map<number, number>();
  for (let n = 0; n < x.columns.length; n++) {
    const j = x.columns[n] ?? 0;
    z.set(j, (z.get(j) ?? 0) + (x.values[n] ?? 0));
  }
  let own = 0;
  if (x.variant >= 0) {
    const d = market.diagonal[x.variant] ?? 1;
    own = 1 / d;
    const to = market.listStart[x.variant + 1] ?? 0;
    for (let n = market.listStart[x.variant] ?? 0; n < to; n++) {
      const j = market.list[n] ?? 0;
      z.set(j, (z.get(j) ?? 0) - (market.cross[n] ?? 0) / d);
    }
  }
  return { columns: [...z.keys()], values: [...z.values()], variant: x.variant, own };
}

/** zᵀS for all columns. */
export function timesCovariance(market: Covered, z: ReducedRow): Float64Array {
  const p = market.plan.columns.length;
  const out = new Float64Array(p);
  z.columns.forEach((j, n) => {
    const x = z.values[n] ?? 0;
    const row = j * p;
    for (let k = 0; k < p; k++) out[k] = (out[k] ?? 0) + x * (market.covariance[row + k] ?? 0);
  });
  return out;
}

/** Covariance of what is said of two prices; `s` is the first, spread out. */
export function covarianceOf(s: Float64Array, a: ReducedRow, b: ReducedRow): number {
  let sum = a.variant >= 0 && a.variant === b.variant ? a.own : 0;
  b.columns.forEach((k, n) => {
    sum += (s[k] ?? 0) * (b.values[n] ?? 0);
  });
  return sum;
}

/** xᵀVx: how uncertain the fitted log price is. */
export function varianceOf(market: Covered, x: Touched): number {
  const z = reducedTo(market, x);
  const p = market.plan.columns.length;
  let sum = z.own;
  z.columns.forEach((j, n) => {
    const row = j * p;
    let part = 0;
    z.columns.forEach((k, m) => {
      part += (market.covariance[row + k] ?? 0) * (z.values[m] ?? 0);
    });
    sum += part * (z.values[n] ?? 0);
  });
  return Math.max(0, sum);
}

/** xᵀVx of every price at once: what a variant folds in is worked out once for all its prices. */
export function variancesOf(market: Covered, rows: Rows): Float64Array {
  const p = market.plan.columns.length;
  const { covariance: s, diagonal, cross, listStart, list } = market;
  // S·c over the columns that a variant's prices touch, and cᵀSc
  const folded = new Float64Array(list.length);
  const square = new Float64Array(diagonal.length);
  for (let v = 0; v < diagonal.length; v++) {
    const [from, to] = [listStart[v] ?? 0, listStart[v + 1] ?? 0];
    for (let n = from; n < to; n++) {
      const row = (list[n] ?? 0) * p;
      let sum = 0;
      for (let m = from; m < to; m++) sum += (s[row + (list[m] ?? 0)] ?? 0) * (cross[m] ?? 0);
      folded[n] = sum;
      square[v] = (square[v] ?? 0) + sum * (cross[n] ?? 0);
    }
  }
  const out = new Float64Array(rows.count);
  for (let i = 0; i < rows.count; i++) {
    const v = rows.variant[i] ?? -1;
    const base = v < 0 ? 0 : (listStart[v] ?? 0);
    let plain = 0;
    let mixed = 0;
    for (let n = rows.start[i] ?? 0, to = rows.start[i + 1] ?? 0; n < to; n++) {
      const row = (rows.column[n] ?? 0) * p;
      const x = rows.value[n] ?? 0;
      let sum = 0;
      for (let m = rows.start[i] ?? 0; m < n; m++)
        sum += (s[row + (rows.column[m] ?? 0)] ?? 0) * (rows.value[m] ?? 0);
      plain += x * (2 * sum + (s[row + (rows.column[n] ?? 0)] ?? 0) * x);
      if (v >= 0) mixed += x * (folded[base + (rows.place[n] ?? 0)] ?? 0);
    }
    const d = v < 0 ? 1 : (diagonal[v] ?? 1);
    out[i] = Math.max(0, v < 0 ? plain : plain - (2 * mixed) / d + (square[v] ?? 0) / d ** 2 + 1 / d);
  }
  return out;
}
