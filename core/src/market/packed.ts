/** A fitted market as plain JSON, for whoever reckons without the server. */
import type { FittedMarket } from './fitted.ts';

/** The covariance is symmetric: its lower half, row by row. Single precision is enough for a range. */
export function lowerHalf(covariance: Float64Array, columns: number): Float32Array {
  const lower = new Float32Array((columns * (columns + 1)) / 2);
  for (let j = 0, at = 0; j < columns; j++)
    for (let k = 0; k <= j; k++) lower[at++] = covariance[j * columns + k] ?? 0;
  return lower;
}
export function fromLowerHalf(lower: ArrayLike<number>, columns: number): Float64Array {
  const covariance = new Float64Array(columns * columns);
  for (let j = 0, at = 0; j < columns; j++)
    for (let k = 0; k <= j; k++) covariance[k * columns + j] = covariance[j * columns + k] = lower[at++] ?? 0;
  return covariance;
}

type Arrays = 'theta' | 'effect' | 'diagonal' | 'cross' | 'listStart' | 'list' | 'ownSales';
export type PackedMarket = Omit<FittedMarket, Arrays | 'covariance'> &
  Readonly<Record<Arrays | 'lower', readonly number[]>>;

/** Digits that single precision holds. */
const DIGITS = 8;

export const packMarket = ({ covariance, ...rest }: FittedMarket): PackedMarket => ({
  ...rest,
  theta: [...rest.theta],
  effect: [...rest.effect],
  diagonal: [...rest.diagonal],
  cross: [...rest.cross],
  listStart: [...rest.listStart],
  list: [...rest.list],
  ownSales: [...rest.ownSales],
  lower: Array.from(lowerHalf(covariance, rest.plan.columns.length), (x) => Number(x.toPrecision(DIGITS))),
});

export const unpackMarket = ({ lower, ...rest }: PackedMarket): FittedMarket => ({
  ...rest,
  theta: Float64Array.from(rest.theta),
  effect: Float64Array.from(rest.effect),
  diagonal: Float64Array.from(rest.diagonal),
  cross: Float64Array.from(rest.cross),
  listStart: Int32Array.from(rest.listStart),
  list: Int32Array.from(rest.list),
  ownSales: Int32Array.from(rest.ownSales),
  covariance: fromLowerHalf(lower, rest.plan.columns.length),
});
