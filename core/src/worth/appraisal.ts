/**
 * The figure of an appraisal as a point of an estimate, how far its rows had to be adjusted, and what moved the figure
 * between two states of knowledge.
 */
import { type Basis, BASIS_SETTINGS } from './bases.ts';
import type { Adjustment, VenueKind } from '../market/index.ts';

/** Where in an estimate a basis of value stands: the venue it is of, the point of its range, and what is taken off. */
export interface PointOfValue {
  readonly venueKind: VenueKind;
  /** share of outcomes below it */
  readonly point: number;
  readonly factor: number;
}

/**
 * @param askRatio the ask that pays best ÷ the estimate, on the day of the appraisal
 * @returns the same points `basesOfValue` names
 */
export function pointOf(
  basis: Basis,
  askRatio: number,
  settings: typeof BASIS_SETTINGS | Readonly<Record<keyof typeof BASIS_SETTINGS, number>> = BASIS_SETTINGS,
): PointOfValue {
  switch (basis) {
    case 'market':
      return { venueKind: 'online', point: 0.5, factor: 1 };
    case 'retail-ask':
      return { venueKind: 'retail', point: 0.5, factor: askRatio };
    case 'insurance-replacement':
      return { venueKind: 'retail', point: settings.replacement, factor: 1 };
    case 'quick-sale':
      return { venueKind: 'private', point: settings.quick, factor: 1 - settings.traderMarginPct / 100 };
  }
}

/** A row whose adjustments together are above this says little by itself. */
export const MOST_GROSS_PERCENT = 50;

/** Gross: all adjustments without their signs. Net: what they come to. In percent of what was paid. */
export function adjustmentsOf(adjustments: readonly Adjustment[]): {
  readonly gross: number;
  readonly net: number;
  readonly wide: boolean;
} {
  const gross = adjustments.reduce((sum, a) => sum + Math.abs(a.percent), 0);
  const net = 100 * (adjustments.reduce((product, a) => product * (1 + a.percent / 100), 1) - 1);
  return { gross, net, wide: gross > MOST_GROSS_PERCENT };
}

/** What may differ between two answers to one question; one after the other is put in place of the old, in this order. */
export const CAUSES = ['sales', 'rates', 'reference', 'engine', 'piece'] as const;
export type Cause = (typeof CAUSES)[number];
