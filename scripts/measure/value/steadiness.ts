/**
 * What must not move an estimate: asking prices that come in for something that is sold often, and whether a market was
 * amended for a few new prices or fitted anew with them.
 */
import { money } from '@jutbank/core/money';
import {
  amendMarket,
  estimateWorth,
  evidenceIn,
  fitMarket,
  Market,
  mostAmended,
  type Comparable,
  type FittedMarket,
} from '@jutbank/core/market';
import { TODAY, type World } from './world.ts';

const STRONG = 16;
const STRONG_ASKED = 8;
const ASKS = 15;
/** above everything that is usual for asking prices */
const HOPE = 1.9;

export interface Steadiness {
  /** ln of the shift of each strong variant's estimate that fifteen fresh asking prices made */
  readonly byAsksAtOnce: readonly number[];
  readonly byAsksRefitted: readonly number[];
  /** ln of amended over refitted from the amended solution, for variants that new rows touch and that they do not */
  readonly amended: readonly number[];
}

export function steadinessOf(world: World): Steadiness {
  const some = mostAmended(world.sales.length) || 1;
  const rows = world.sales.slice(0, -some);
  const fresh = world.sales.slice(-some);
  const { reference, rateOn } = world;
  const base = fitMarket(rows, reference, rateOn);
  const worth = (fitted: FittedMarket, sales: readonly Comparable[], variant: string) => {
    const market = new Market(fitted, reference, rateOn);
    const subject = {
      pattern: reference.variants.get(variant)?.pattern ?? '',
      variants: [{ variant, probability: 1 }],
      conditionIndex: 80,
      box: 'none' as const,
      papers: 'none' as const,
      sheath: 'none' as const,
      alterations: [],
    };
    return Math.log(
      estimateWorth(market, evidenceIn(sales, market, subject), subject, 'online', TODAY).estimate,
    );
  };
  const own = new Map<string, number>();
  for (const { variant, priceKind } of rows)
    if (variant !== undefined && priceKind === 'sold') own.set(variant, (own.get(variant) ?? 0) + 1);
  const strong = [...own].filter(([, n]) => n >= STRONG).map(([id]) => id);
  const byAsksAtOnce: number[] = [];
  const byAsksRefitted: number[] = [];
  for (const variant of strong.slice(0, STRONG_ASKED)) {
    const before = worth(base, rows, variant);
    const asks = Array.from({ length: ASKS }, (_, i) => ask(world, variant, Math.exp(before) * HOPE, i));
    const all = [...rows, ...asks];
    const amended = amendMarket(base, asks, [], reference, rateOn);
    byAsksAtOnce.push(worth(amended, all, variant) - before);
    const refitted = fitMarket(all, reference, rateOn, { start: amended });
    byAsksRefitted.push(worth(refitted, all, variant) - before);
  }
  // a small market is never amended
  if (mostAmended(rows.length) === 0) return { byAsksAtOnce, byAsksRefitted, amended: [] };
  const amended = amendMarket(base, fresh, [], reference, rateOn);
  const refitted = fitMarket(world.sales, reference, rateOn, { start: amended });
  const touched = fresh.flatMap((s) => s.variant ?? []);
  const asked = [...new Set([...touched, ...strong, ...[...reference.variants.keys()].slice(0, 30)])];
  return {
    byAsksAtOnce,
    byAsksRefitted,
    amended: asked.map(
      (variant) => worth(amended, world.sales, variant) - worth(refitted, world.sales, variant),
    ),
  };
}

const ask = ({ reference }: World, variant: string, price: number, i: number): Comparable => ({
  id: `ask${variant}-${i}`,
  day: TODAY - i,
  price: money((price * (1 + 0.04 * (i % 5))).toFixed(2), 'EUR'),
  priceKind: 'asking',
  venueKind: 'online',
  pattern: reference.variants.get(variant)?.pattern ?? '',
  variant,
  conditionIndex: 80,
  box: 'none',
  papers: 'none',
  sheath: 'none',
  alterations: [],
  buyerPremiumPct: 0,
  shippingIncluded: false,
});
