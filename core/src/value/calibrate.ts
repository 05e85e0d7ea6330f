/**
 * Does the interval hold what it says? Left-out sales are predicted from all others, exactly for the weights that
 * stand; where the interval held fewer or more of them than it says, it is stretched, slice by slice.
 */
import { Matrix, solve } from 'ml-matrix';
import type { FittedMarket } from './fitted.ts';
import type { Rows } from './normal.ts';
import { covarianceOf, folded, spreadOut } from './predict.ts';
import { halfWidth } from './interval.ts';
import type { ValueSettings } from './settings.ts';

/** Slices by own sales: none, 1–3, 4–15, more. */
export const sliceOf = (own: number): number => (own <= 0 ? 0 : own <= 3 ? 1 : own <= 15 ? 2 : 3);
const SLICES = 4;
/** Left-out cases of one slice: more say hardly anything new. */
const CASES = 300;
/** A variant with more prices than this is never left out as a whole. */
const BLOCK = 16;

/**
 * @param scales of every row's noise
 * @param sold rows that may be asked for: asking prices and offers are not what is predicted
 */
export function stretchOf(
  market: FittedMarket,
  rows: Rows,
  y: Float64Array,
  weight: Float64Array,
  scales: Float64Array,
  sold: readonly boolean[],
  settings: ValueSettings,
): number[] {
  const byVariant = new Map<number, number[]>();
  for (let i = 0; i < rows.count; i++) {
    const v = rows.variant[i] ?? -1;
    if (v < 0) continue;
    const list = byVariant.get(v);
    if (list) list.push(i);
    else byVariant.set(v, [i]);
  }
  const offs: number[][] = Array.from({ length: SLICES }, () => []);
  const touched = (i: number) => {
    const [from, to] = [rows.start[i] ?? 0, rows.start[i + 1] ?? 0];
    return {
      columns: rows.column.subarray(from, to),
      values: rows.value.subarray(from, to),
      variant: rows.variant[i] ?? -1,
    };
  };
  const fittedAt = (i: number): number => {
    const { columns, values, variant } = touched(i);
    let sum = variant < 0 ? 0 : (market.effect[variant] ?? 0);
    columns.forEach((j, n) => {
      sum += (values[n] ?? 0) * (market.theta[j] ?? 0);
    });
    return sum;
  };
  /** Predicts the first row of a block from everything outside the block; how far off it was, in half-widths. */
  const offOf = (block: readonly number[]): number | undefined => {
    const z = block.map((i) => folded(market, touched(i)));
    const g = z.map((a) => {
      const s = spreadOut(market, a);
      return z.map((b) => covarianceOf(s, a, b));
    });
    // r₋ = (I − GW)⁻¹ r and G₋ = (I − GW)⁻¹ G, for the rows that are left out
    const left = g.map((row, a) => row.map((x, b) => (a === b ? 1 : 0) - x * (weight[block[b] ?? 0] ?? 0)));
    const r = block.map((i) => (y[i] ?? 0) - fittedAt(i));
    const right = r.map((x, a) => [x, g[a]?.[0] ?? 0]);
    const out = solve(new Matrix(left), new Matrix(right));
    const [off, variance] = [out.get(0, 0), out.get(0, 1)];
    const half = halfWidth(
      scales[block[0] ?? 0] ?? 0,
      Math.max(0, variance) + market.sd.venue ** 2,
      settings.degreesOfFreedom,
    );
    return Number.isFinite(off) && half > 0 ? Math.abs(off) / half : undefined;
  };
  const variants = [...byVariant].filter(([, list]) => list.some((i) => sold[i]));
  // evenly through the list, so that every part of the market is asked
  const every = <T>(list: readonly T[], most: number): T[] =>
    list.filter(
      (_, k) => Math.floor((k * most) / list.length) !== Math.floor(((k - 1) * most) / list.length),
    );
  for (const [, list] of every(
    variants.filter(([, list]) => list.length <= BLOCK),
    CASES,
  )) {
    const target = list.find((i) => sold[i]) ?? list[0] ?? 0;
    const off = offOf([target, ...list.filter((i) => i !== target)]);
    if (off !== undefined) offs[0]?.push(off);
  }
  for (let slice = 1; slice < SLICES; slice++) {
    const rowsOfSlice = variants.flatMap(([, list]) => {
      const own = list.filter((i) => sold[i]);
      return sliceOf(own.length - 1) === slice ? own : [];
    });
    for (const i of every(rowsOfSlice, CASES)) {
      const off = offOf([i]);
      if (off !== undefined) offs[slice]?.push(off);
    }
  }
  return offs.map((list) => {
    if (list.length === 0) return 1;
    const sorted = [...list].sort((a, b) => a - b);
    const wanted = sorted[Math.min(sorted.length - 1, Math.floor(settings.share * sorted.length))] ?? 1;
    const trust = list.length / (list.length + settings.stretchHold);
    return Math.exp(trust * Math.log(Math.max(0.3, Math.min(3, wanted))));
  });
}
