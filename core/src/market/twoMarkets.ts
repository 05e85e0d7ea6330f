/**
 * Collectible or to use: the same knife has two markets, in which condition counts differently (domain.md, Price). The
 * regression speaks of all buyers together; sales quoted on a collector's scale and on the user's are held against it,
 * and where they lie apart in level or in what condition is worth, each market gets its own figure. Normal regression of
 * the residuals on (1, index − usual), both coefficients shrunk to nothing: `B = (ZᵀWZ + Λ)⁻¹ZᵀWr`.
 */
import type { Comparable } from './comparable.ts';
import { type VariantEstimate, mixtureQuantile } from './estimate.ts';
import type { Market } from './market.ts';
import { t90 } from './interval.ts';

export const MARKETS = ['collectible', 'to-use'] as const;
export type MarketName = (typeof MARKETS)[number];

/** Which market a sale speaks of: the scale it was graded on. Undefined where it says nothing of it. */
export const marketOf = (scale: string | undefined): MarketName | undefined =>
  scale === 'user' ? 'to-use' : scale === 'collector' || scale === 'finish' ? 'collectible' : undefined;

export const TWO_MARKETS_SETTINGS = {
  /** sd of a market's level, and of its slope over the whole of the index, in logs */
  level: 0.2,
  slope: 0.5,
  /** sales from which on a market is spoken of */
  from: 3,
} as const;

export interface InMarket {
  readonly market: MarketName;
  /** base currency */
  readonly estimate: number;
  readonly low: number;
  readonly high: number;
  readonly sales: number;
  /** percent that ten points of the index are worth more (or less) than to buyers on the whole */
  readonly tenPoints: number;
}

/**
 * @param sales of the pattern, up to the day of the estimate
 * @param byVariant of the estimate for all buyers; @param conditionIndex of the piece, undefined where it is not known
 * @returns the markets that enough sales speak of
 */
export function inTwoMarkets(
  market: Market,
  sales: readonly Comparable[],
  byVariant: readonly VariantEstimate[],
  conditionIndex: number | undefined,
  settings: { level: number; slope: number; from: number } = TWO_MARKETS_SETTINGS,
): InMarket[] {
  const usual = market.fitted.plan.usual;
  const z = (index: number | undefined) => (index === undefined ? 0 : index / 100 - usual);
  const rows = sales.flatMap((sale) => {
    const name = marketOf(sale.gradeScale);
    const row = name && sale.priceKind === 'sold' ? market.price(sale) : undefined;
    if (!name || !row) return [];
    return [{ name, z: z(sale.conditionIndex), weight: row.weight, residual: row.residual }];
  });
  const at = z(conditionIndex);
  return MARKETS.flatMap((name): InMarket[] => {
    const own = rows.filter((row) => row.name === name);
    if (own.length < settings.from) return [];
    let [a, b, c] = [settings.level ** -2, 0, settings.slope ** -2];
    let [p, q] = [0, 0];
    for (const { z: x, weight, residual } of own) {
      a += weight;
      b += weight * x;
      c += weight * x * x;
      p += weight * residual;
      q += weight * x * residual;
    }
    const determinant = a * c - b * b;
    const level = (c * p - b * q) / determinant;
    const slope = (a * q - b * p) / determinant;
    const shift = level + slope * at;
    const variance = (c - 2 * b * at + a * at * at) / determinant;
    const moved = byVariant.map((v): VariantEstimate => {
      const { predictive } = v;
      const scale = Math.hypot(predictive.scale, (1.2816 * Math.sqrt(variance)) / t90(predictive.df));
      return { ...v, predictive: { ...predictive, location: predictive.location + shift, scale } };
    });
    const point = (share: number) => Math.exp(mixtureQuantile(moved, share));
    return [
      {
        market: name,
        estimate: point(0.5),
        low: point(0.1),
        high: point(0.9),
        sales: own.length,
        tenPoints: 100 * (Math.exp(slope / 10) - 1),
      },
    ];
  });
}
