/** The half-width of the 80 % interval: noise with its heavy tails, and what the fit leaves open. */
import { studentQuantile } from './studentT.ts';

/** Normal quantile of 90 %. */
const Z90 = 1.2815515655446004;
const quantiles = new Map<number, number>();
export function t90(df: number): number {
  let t = quantiles.get(df);
  if (t === undefined) quantiles.set(df, (t = studentQuantile(0.9, df)));
  return t;
}

/** half² = (t.₉,ν·s)² + 1.2816²·variance, on the log scale. */
export const halfWidth = (scale: number, variance: number, df: number): number =>
  Math.sqrt((t90(df) * scale) ** 2 + Z90 ** 2 * variance);
