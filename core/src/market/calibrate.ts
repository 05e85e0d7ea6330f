/**
 * Does the interval hold what it says? Left-out sales are predicted from all others, exactly for the weights that
 * stand; where the interval held fewer or more of them than it says, it is stretched, slice by slice.
 */
import { Matrix, solve } from 'ml-matrix';
import type { FittedMarket } from './fitted.ts';
import type { Rows } from './normal.ts';
import { covarianceOf, reducedTo, timesCovariance, varianceOf } from './predict.ts';
import { halfWidth } from './interval.ts';
import { soundness } from './noise.ts';
import { studentDensityAt0 } from './studentT.ts';
import type { ValueSettings } from './settings.ts';

/** Slices by own sales: none, 1–3, 4–15, more. */
export const sliceOf = (own: number): number => (own <= 0 ? 0 : own <= 3 ? 1 : own <= 15 ? 2 : 3);
const SLICES = 4;
/** Left-out cases of one slice: more say hardly anything new. */
const CASES = 800;
/** No more of a variant are left out at once than this, and no more asked of one variant in one slice. */
const BLOCK = 16;
const OF_ONE = 40;

/**
 * @param scales of every row's noise
 * @param sold rows that may be asked for: asking prices and offers are not what is predicted
 * @param venueOf the coefficient of each row's own venue, −1 for none
 */
export function calibrationFactors(
  market: FittedMarket,
  rows: Rows,
  y: Float64Array,
  weight: Float64Array,
  scales: Float64Array,
  sold: readonly boolean[],
  venueOf: readonly number[],
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
  const offs: Off[][] = Array.from({ length: SLICES }, () => []);
  const at0 = studentDensityAt0(market.noise.df);
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
  /** What all else says of the first row of a block: how far off the row is, and how uncertain that was. */
  const without = (block: readonly number[]): { beside: number; variance: number } => {
    const [first = 0] = block;
    if (block.length === 1) {
      const g = varianceOf(market, touched(first));
      const kept = 1 - g * (weight[first] ?? 0);
      return { beside: ((y[first] ?? 0) - fittedAt(first)) / kept, variance: g / kept };
    }
    const z = block.map((i) => reducedTo(market, touched(i)));
    const g = z.map((a) => {
      const s = timesCovariance(market, a);
      return z.map((b) => covarianceOf(s, a, b));
    });
    // r₋ = (I − GW)⁻¹ r and G₋ = (I − GW)⁻¹ G, for the rows that are left out
    const left = g.map((row, a) => row.map((x, b) => (a === b ? 1 : 0) - x * (weight[block[b] ?? 0] ?? 0)));
    const right = block.map((i, a) => [(y[i] ?? 0) - fittedAt(i), g[a]?.[0] ?? 0]);
    const out = solve(new Matrix(left), new Matrix(right));
    return { beside: out.get(0, 0), variance: out.get(0, 1) };
  };
  /** Predicts the first row of a block from everything outside the block; how far off it was, in half-widths. */
  const offOf = (block: readonly number[]): Off | undefined => {
    const all = without(block);
    const scale = scales[block[0] ?? 0] ?? 0;
    // asked as an estimate is: for some venue of the kind, whatever is known of the one it was
    const named = venueOf[block[0] ?? 0] ?? -1;
    const p = market.plan.columns.length;
    const known = named < 0 ? 0 : (market.covariance[named * p + named] ?? 0);
    const beside = all.beside + (named < 0 ? 0 : (market.theta[named] ?? 0));
    const open = Math.max(0, all.variance - known) + market.sd.venue ** 2;
    const half = halfWidth(scale, open, market.noise.df);
    if (!Number.isFinite(beside) || !(half > 0)) return undefined;
    // gross errors are not what is predicted: a price counts as far as it is one
    return {
      times: Math.abs(beside) / half,
      sound: soundness(beside ** 2, scale ** 2 + open, market.noise, at0, settings),
    };
  };
  const variants = [...byVariant].filter(([, list]) => list.some((i) => sold[i]));
  // evenly through the list, so that every part of the market is asked
  const every = <T>(list: readonly T[], most: number): T[] =>
    list.length <= most
      ? [...list]
      : list.filter(
          (_, k) => Math.floor((k * most) / list.length) !== Math.floor(((k - 1) * most) / list.length),
        );
  // a variant's sales are left out but for so many; what is asked for it stays, as it would for a piece never sold
  const leavingOut = (slice: number, keep: number, most: number): void => {
    const fit = variants.flatMap(([, list]) => {
      const own = list.filter((i) => sold[i]);
      return own.length > keep && own.length - keep <= BLOCK ? [own] : [];
    });
    for (const own of every(fit, most)) {
      // the target by turns, so that not always the oldest is asked for
      const from = own.length > 1 ? (own[0] ?? 0) % own.length : 0;
      const turned = [...own.slice(from), ...own.slice(0, from)];
      const off = offOf(turned.slice(0, own.length - keep));
      if (off) offs[slice]?.push(off);
    }
  };
  leavingOut(0, 0, 300);
  leavingOut(1, 2, 150);
  for (let slice = 1; slice < SLICES; slice++) {
    const rowsOfSlice = variants.flatMap(([, list]) => {
      const own = list.filter((i) => sold[i]);
      return sliceOf(own.length - 1) === slice ? every(own, OF_ONE) : [];
    });
    for (const i of every(rowsOfSlice, CASES)) {
      const off = offOf([i]);
      if (off) offs[slice]?.push(off);
    }
  }
  return offs.map((list) => {
    const counted = list.reduce((sum, off) => sum + off.sound, 0);
    if (counted === 0) return 1;
    const wanted = weightedQuantile(list, settings.share * counted);
    const trust = counted / (counted + settings.stretchHold);
    return Math.exp(trust * Math.log(Math.max(0.3, Math.min(3, wanted))));
  });
}

interface Off {
  /** half-widths */
  readonly times: number;
  readonly sound: number;
}
function weightedQuantile(list: readonly Off[], below: number): number {
  let sum = 0;
  let last = 1;
  for (const { times, sound } of [...list].sort((a, b) => a.times - b.times)) {
    last = times;
    if ((sum += sound) >= below) break;
  }
  return last;
}
