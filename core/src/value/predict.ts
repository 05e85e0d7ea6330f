/** Variances and covariances of what the regression says, with the variants put back in. */
import type { FittedMarket } from './fitted.ts';

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
export interface Folded {
  readonly columns: readonly number[];
  readonly values: readonly number[];
  readonly variant: number;
  /** what the variant leaves on its own */
  readonly own: number;
}

export function folded(market: Covered, x: Touched): Folded {
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
export function spreadOut(market: Covered, z: Folded): Float64Array {
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
export function covarianceOf(s: Float64Array, a: Folded, b: Folded): number {
  let sum = a.variant >= 0 && a.variant === b.variant ? a.own : 0;
  b.columns.forEach((k, n) => {
    sum += (s[k] ?? 0) * (b.values[n] ?? 0);
  });
  return sum;
}

/** xᵀVx: how uncertain the fitted log price is. */
export function varianceOf(market: Covered, x: Touched): number {
  const z = folded(market, x);
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
