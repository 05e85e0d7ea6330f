/**
 * How well a house has done: ranges it stated against what pieces then sold for, probabilities it stated against what was
 * settled later, what it turned down against what came after. Shares come with the range a share of so few may lie in.
 */
import { betaPoints } from '../reference/index.ts';
import type { ValueSettings } from '../market/index.ts';

/** A share with its 80 % range: Jeffreys' interval, the Beta(k + ½, n − k + ½) between its 10 and 90 % points. */
export interface Share {
  readonly of: number;
  readonly held: number;
  readonly share: number;
  readonly low: number;
  readonly high: number;
}
export function shareOf(held: number, of: number): Share {
  const [low = 0, high = 1] = betaPoints(held + 0.5, of - held + 0.5, [0.1, 0.9]);
  return { held, of, share: of === 0 ? 0 : held / of, low, high };
}

/** One piece that was appraised and then sold; amounts in one currency. */
export interface SoldAfter {
  readonly low: number;
  readonly figure: number;
  readonly high: number;
  readonly concluded: number;
  readonly price: number;
}
export interface RangesHeld extends Share {
  /** the middle of price ÷ figure and of price ÷ concluded value: above 1 where too little was said */
  readonly ofFigure: number;
  readonly ofConcluded: number;
}

const middle = (values: readonly number[]): number => {
  const sorted = [...values].sort((a, b) => a - b);
  const at = (sorted.length - 1) / 2;
  return ((sorted[Math.floor(at)] ?? 1) + (sorted[Math.ceil(at)] ?? 1)) / 2;
};

/** @param cases at least one */
export function rangesHeld(cases: readonly SoldAfter[]): RangesHeld {
  return {
    ...shareOf(cases.filter((c) => c.price >= c.low && c.price <= c.high).length, cases.length),
    ofFigure: middle(cases.map((c) => c.price / c.figure)),
    ofConcluded: middle(cases.map((c) => c.price / c.concluded)),
  };
}

/** How ranges held that were themselves stated so many times as wide as the market alone says. */
export interface StatedRange extends Pick<SoldAfter, 'low' | 'figure' | 'high' | 'price'> {
  readonly stretch: number;
}
export interface HouseCalibration {
  readonly of: number;
  readonly held: number;
  /** what the market's own ranges are to be multiplied by */
  readonly stretch: number;
}
/** From so many sold pieces on a house's own record is heard. */
export const HEARD_FROM = 30;
const [NARROWEST, WIDEST] = [0.6, 1.8] as const;

/**
 * The record of a house on top of what left-out sales of the market say: how many half-ranges off the sold ones were, at
 * the share that a range is to hold, held to 1 by `houseHold` cases. Undefined for too few.
 */
export function houseCalibration(
  cases: readonly StatedRange[],
  { share, houseHold }: Pick<ValueSettings, 'share' | 'houseHold'>,
): HouseCalibration | undefined {
  const of = cases.length;
  if (of < HEARD_FROM) return undefined;
  const times = cases
    .map(({ low, figure, high, price, stretch }) => {
      const half = price >= figure ? high / figure : figure / low;
      return (stretch * Math.abs(Math.log(price / figure))) / Math.log(half);
    })
    .sort((a, b) => a - b);
  // between the ranks about the share, as its own expectation lies
  const at = Math.min(of - 1, Math.max(0, share * (of + 1) - 1));
  const [below = 1, above = below] = [times[Math.floor(at)], times[Math.ceil(at)]];
  const wanted = below + (above - below) * (at - Math.floor(at));
  const trust = of / (of + houseHold);
  return {
    of,
    held: cases.filter((c) => c.price >= c.low && c.price <= c.high).length,
    stretch: Math.exp(trust * Math.log(Math.min(WIDEST, Math.max(NARROWEST, wanted)))),
  };
}

/** A probability that was stated of something, and whether it was so. */
export interface Settled {
  readonly probability: number;
  readonly was: boolean;
}
export const BANDS = [0.2, 0.5, 0.8, 0.95] as const;
export interface Band extends Share {
  readonly from: number;
  readonly to: number;
  /** mean of what was stated in it */
  readonly stated: number;
}
/** Stated probabilities in bands, each with how often it was so. Empty bands are left out. */
export function calibrationOf(settled: readonly Settled[]): Band[] {
  const bounds = [0, ...BANDS, 1];
  return bounds.slice(0, -1).flatMap((from, i): Band[] => {
    const to = bounds[i + 1] ?? 1;
    const inside = settled.filter((s) => s.probability >= from && (s.probability < to || to === 1));
    if (inside.length === 0) return [];
    return [
      {
        from,
        to,
        stated: inside.reduce((sum, s) => sum + s.probability, 0) / inside.length,
        ...shareOf(inside.filter((s) => s.was).length, inside.length),
      },
    ];
  });
}
