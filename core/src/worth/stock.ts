/** The stock as a dealer looks at it: how long money is bound in it, and which asks no longer fit. */
import { weeklyChance, type AskPoint, type Hazard } from './patience.ts';

/** Bounds of the ages, in days since it was acquired; the last is open. */
export const AGE_BOUNDS = [90, 180, 365] as const;
export const AGES = ['up to 3 months', '3 to 6 months', '6 to 12 months', 'more than a year'] as const;
export type Age = (typeof AGES)[number];
export const ageOf = (days: number): Age =>
  AGES[AGE_BOUNDS.findIndex((bound) => days <= bound)] ?? 'more than a year';

export interface Priced {
  /** base currency */
  readonly ask: number | undefined;
  readonly estimate: number;
  readonly low: number;
  readonly high: number;
  /** the ask that pays best today */
  readonly best: AskPoint;
  /** the estimate when it was looked at last, where it was */
  readonly before: number | undefined;
  /** weeks on the market; undefined where it is not listed */
  readonly weeks: number | undefined;
  readonly floor: number | undefined;
}

export const REPRICE_REASONS = ['above', 'below', 'stood-long', 'moved', 'no-ask'] as const;
export type RepriceReason = (typeof REPRICE_REASONS)[number];
export interface Reprice {
  readonly reasons: readonly RepriceReason[];
  /** what to ask instead; never below the floor */
  readonly ask: number;
}

export const REPRICE_SETTINGS = {
  /** it should have sold by now with this chance */
  shouldHaveSold: 0.8,
  /** a change of the estimate since the last look that counts, as a share */
  moved: 0.1,
  /** an ask so near the best one is left alone */
  near: 0.05,
} as const;

/** Undefined where the ask may stay as it is. */
export function repriceAdvice(
  piece: Priced,
  hazard: Hazard,
  settings = REPRICE_SETTINGS,
): Reprice | undefined {
  // the ask that pays best may lie beyond what such pieces bring: what is advised does not
  const ask = Math.max(Math.min(Math.max(piece.best.price, piece.low), piece.high), piece.floor ?? 0);
  if (piece.ask === undefined) return { reasons: ['no-ask'], ask };
  const reasons: RepriceReason[] = [];
  if (piece.ask > piece.high) reasons.push('above');
  if (piece.ask < piece.low) reasons.push('below');
  const chance = weeklyChance(hazard, piece.ask / piece.estimate);
  if (piece.weeks !== undefined && 1 - (1 - chance) ** piece.weeks > settings.shouldHaveSold)
    reasons.push('stood-long');
  if (
    piece.before !== undefined &&
    Math.abs(Math.log(piece.estimate / piece.before)) > Math.log(1 + settings.moved)
  )
    reasons.push('moved');
  // what lies outside the range does not fit, however near the best ask is
  const outside = piece.ask > piece.high || piece.ask < piece.low;
  const near = Math.abs(piece.ask / ask - 1) <= settings.near;
  return reasons.length === 0 || (near && !outside) ? undefined : { reasons, ask };
}
