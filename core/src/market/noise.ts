/**
 * How far prices of one kind scatter: a Student t whose scale is a product of factors, one for each way in which a
 * price is known, and a second wide component for gross errors (a lot taken for a piece, a slipped digit).
 */
import { type Comparable, type MarketReference, PRICE_KINDS, VENUE_KINDS } from './comparable.ts';
import { CONSTRUCTIONS } from '../reference/index.ts';
import type { ValueSettings } from './settings.ts';

/** The groups, and how many levels each has. */
export const NOISE_GROUPS = [
  ['price kind', PRICE_KINDS.length],
  ['venue', VENUE_KINDS.length],
  ['construction', CONSTRUCTIONS.length],
  ['condition known', 3],
  ['condition', 5],
  ['scarcity', 4],
  ['premium', 2],
  ['untold', 3],
  ['postage', 2],
] as const;
const GROUPS = NOISE_GROUPS.length;

type Scattered = Pick<
  Comparable,
  'priceKind' | 'venueKind' | 'pattern' | 'variant' | 'conditionIndex' | 'box' | 'papers' | 'sheath'
> & {
  readonly conditionBy?: Comparable['conditionBy'];
  readonly shippingIncluded?: boolean;
  readonly premiumTold: boolean;
};

/** The level of a price in each group. */
export function noiseLevels(of: Scattered, reference: MarketReference): number[] {
  const construction = reference.patterns.get(of.pattern)?.construction;
  const quantity = of.variant === undefined ? undefined : reference.variants.get(of.variant)?.quantity;
  const x = of.conditionIndex;
  return [
    PRICE_KINDS.indexOf(of.priceKind),
    VENUE_KINDS.indexOf(of.venueKind),
    Math.max(0, construction === undefined ? 0 : CONSTRUCTIONS.indexOf(construction)),
    x === undefined ? 2 : of.conditionBy === 'grade' ? 1 : 0,
    x === undefined ? 4 : x < 60 ? 0 : x < 80 ? 1 : x < 92 ? 2 : 3,
    quantity === undefined ? 3 : quantity < 500 ? 0 : quantity < 5000 ? 1 : 2,
    // only where a premium is usual does it matter that none is told
    of.premiumTold || of.venueKind !== 'auction' ? 0 : 1,
    Math.min(2, [of.box, of.papers, of.sheath].filter((item) => item === undefined).length),
    of.shippingIncluded === true ? 1 : 0,
  ];
}

export interface Noise {
  /** scale of the t noise of all prices together */
  readonly scale: number;
  /** degrees of freedom of the t */
  readonly df: number;
  /** share of gross errors */
  readonly gross: number;
  /** correlation of asking prices for one variant: how far they are one opinion repeated */
  readonly common: number;
  /** [group][level]: what the scale is multiplied by */
  readonly factors: readonly (readonly number[])[];
}

export const freshNoise = (settings: ValueSettings): Noise => ({
  scale: settings.noise,
  df: settings.degreesOfFreedom,
  gross: settings.grossShare,
  common: settings.askingCrowd,
  factors: NOISE_GROUPS.map(([name, levels]) =>
    Array.from({ length: levels }, (_, k) =>
      name === 'price kind' && PRICE_KINDS[k] !== 'sold' ? settings.askingNoise : 1,
    ),
  ),
});

/** @param levels of a row, in the order of the groups */
export function scaleAt(noise: Noise, levels: ArrayLike<number>, at = 0): number {
  let s = noise.scale;
  for (let g = 0; g < GROUPS; g++) s *= noise.factors[g]?.[levels[at + g] ?? 0] ?? 1;
  return s;
}

/** P(this price is no gross error), from how far off it lies; `tDensityAt0` is that of the unit t at 0. */
export function soundness(
  r2: number,
  s2: number,
  { df, gross }: Pick<Noise, 'df' | 'gross'>,
  tDensityAt0: number,
  settings: ValueSettings,
): number {
  const sound = ((1 - gross) * tDensityAt0 * Math.pow(1 + r2 / (df * s2), -(df + 1) / 2)) / Math.sqrt(s2);
  const wide = settings.grossSd ** 2 + s2;
  const wrong = (gross * Math.exp(-0.5 * (r2 / wide))) / Math.sqrt(2 * Math.PI * wide);
  return sound / Math.max(sound + wrong, 1e-300);
}

/** Two buyers of two like pieces never agree better than to so much, whatever few prices say. */
const LEAST_SCALE = 0.02;

/**
 * The next scale and factors: every group's ratio of what its prices scatter to what was said of them, held to 1 by
 * `noiseHold` prices, and the whole brought back to where the mean of the logs is the common scale.
 * @param levels flat, one stretch of groups for each row
 * @param share squared residual over the row's own variance times its weight in the t and in being sound
 * @param sound how far a row counts
 * @param left share of a row's variance that the coefficients left to its residual: 1 − xᵀVx/s²
 */
export function nextNoise(
  noise: Noise,
  levels: Uint8Array,
  share: Float64Array,
  sound: Float64Array,
  left: Float64Array,
  settings: ValueSettings,
): Noise {
  const count = sound.length;
  let all = 0;
  let n = 0;
  let free = 0;
  for (let i = 0; i < count; i++) {
    all += share[i] ?? 0;
    n += sound[i] ?? 0;
    // the model's degrees of freedom are off the noise, where they were spent
    free += (sound[i] ?? 0) * (left[i] ?? 1);
  }
  if (n === 0) return noise;
  const hold = settings.varianceHold;
  const prior = (settings.noise / noise.scale) ** 2;
  // held on the log: how quiet a market is is not known to within a multiple
  const common = Math.exp(
    (free * Math.log(Math.max(all / free, 1e-6)) + hold * Math.log(prior)) / (free + hold),
  );
  const factors = noise.factors.map((levelsOf, g) => {
    const sums = new Float64Array(levelsOf.length);
    const counts = new Float64Array(levelsOf.length);
    const frees = new Float64Array(levelsOf.length);
    for (let i = 0; i < count; i++) {
      const k = levels[i * GROUPS + g] ?? 0;
      sums[k] = (sums[k] ?? 0) + (share[i] ?? 0);
      counts[k] = (counts[k] ?? 0) + (sound[i] ?? 0);
      frees[k] = (frees[k] ?? 0) + (sound[i] ?? 0) * (left[i] ?? 1);
    }
    const start = freshNoise(settings).factors[g] ?? [];
    const next = levelsOf.map((factor, k) => {
      const ratio = (sums[k] ?? 0) / Math.max(all / free, 1e-6);
      const held = ((start[k] ?? 1) / factor) ** 2;
      // half the way: groups overlap, and would otherwise push each other to and fro
      const moved = Math.sqrt((ratio + settings.noiseHold * held) / ((frees[k] ?? 0) + settings.noiseHold));
      return factor * Math.sqrt(moved);
    });
    const mean = next.reduce((sum, f, k) => sum + (counts[k] ?? 0) * Math.log(f), 0) / n;
    return next.map((f) => f / Math.exp(mean));
  });
  const before = meanLog(noise.factors, levels, sound);
  const after = meanLog(factors, levels, sound);
  const scale = noise.scale * Math.sqrt(common) * Math.exp(before - after);
  // prices that are all the same say that they are quiet, not that they are known without end
  return { ...noise, scale: Math.max(LEAST_SCALE, scale), factors };
}

function meanLog(factors: Noise['factors'], levels: Uint8Array, sound: Float64Array): number {
  const logs = factors.map((list) => list.map(Math.log));
  let sum = 0;
  let n = 0;
  for (let i = 0; i < sound.length; i++) {
    for (let g = 0; g < GROUPS; g++) sum += (sound[i] ?? 0) * (logs[g]?.[levels[i * GROUPS + g] ?? 0] ?? 0);
    n += sound[i] ?? 0;
  }
  return n > 0 ? sum / n : 0;
}
