/** What moves an estimate, and what must not: on a market of a thousand prices whose truth is known. */
import { describe, expect, test } from '@jest/globals';
import { random } from '../random/index.ts';
import { money } from '../money/index.ts';
import { amendMarket, mostAmended } from './amend.ts';
import { estimateWorth } from './estimate.ts';
import { evidenceIn } from './evidence.ts';
import { fitMarket } from './fit.ts';
import { Market } from './market.ts';
import type { Comparable, MarketReference } from './comparable.ts';
import type { FittedMarket } from './fitted.ts';

const TODAY = 20_700;
const FORMS = 24;
const id = (v: number) => `p${v % 6}-v${v}`;
const reference: MarketReference = {
  patterns: new Map(
    Array.from({ length: 6 }, (_, p) => [
      `p${p}`,
      { id: `p${p}`, maker: `m${p % 3}`, construction: 'slipjoint' as const },
    ]),
  ),
  variants: new Map(
    Array.from({ length: FORMS }, (_, v) => [
      id(v),
      { id: id(v), pattern: `p${v % 6}`, kind: 'production' as const },
    ]),
  ),
};
const luck = random(77);
const worthOf = Array.from({ length: FORMS }, () => 4.5 + 0.4 * luck.normal());
let made = 0;
const price = (v: number, log: number, more: Partial<Comparable> = {}): Comparable => ({
  id: `s${made++}`,
  day: TODAY - luck.whole(0, 1500),
  price: money(Math.exp(log + 0.18 * luck.normal()).toFixed(2), 'EUR'),
  priceKind: 'sold',
  venueKind: luck.pick(['fair', 'online', 'auction'] as const),
  pattern: `p${v % 6}`,
  variant: id(v),
  conditionIndex: luck.whole(60, 95),
  box: 'none',
  papers: 'none',
  sheath: 'not-applicable',
  alterations: [],
  buyerPremiumPct: 0,
  shippingIncluded: false,
  ...more,
});
const asking = (v: number, log: number) => price(v, log, { priceKind: 'asking', venueKind: 'online' });
/** the first forms are sold often, the last ones hardly ever */
const FIRST = Array.from({ length: 1000 }, () => {
  const v = Math.floor(FORMS * luck.next() ** 2.2);
  return luck.yes(0.2) ? asking(v, (worthOf[v] ?? 0) + 0.35) : price(v, worthOf[v] ?? 0);
});
const rateOn = () => 1;
const base = fitMarket(FIRST, reference, rateOn);
const worth = (fitted: FittedMarket, sales: readonly Comparable[], v: number) => {
  const market = new Market(fitted, reference, rateOn);
  const subject = {
    pattern: `p${v % 6}`,
    variants: [{ variant: id(v), probability: 1 }],
    conditionIndex: 80,
    box: 'none' as const,
    papers: 'none' as const,
    sheath: 'not-applicable' as const,
    alterations: [],
  };
  return estimateWorth(market, evidenceIn(sales, market, subject), subject, 'fair', TODAY).estimate;
};
const percent = (a: number, b: number) => 100 * Math.abs(a / b - 1);

describe('asking prices that come in', () => {
  test.each([1.5, 2, 4])(
    'fifteen at %s times what it brings move a form that is sold often by less than two in a hundred',
    (times) => {
      const before = worth(base, FIRST, 0);
      const asks = Array.from({ length: 15 }, () => asking(0, Math.log(before * times)));
      const all = [...FIRST, ...asks];
      const amended = amendMarket(base, asks, [], reference, rateOn);
      expect(percent(worth(amended, all, 0), before)).toBeLessThan(2);
      expect(
        percent(worth(fitMarket(all, reference, rateOn, { start: amended }), all, 0), before),
      ).toBeLessThan(2);
    },
  );
  test('say something of a form that was never sold', () => {
    const never = FORMS - 1;
    const without = FIRST.filter((s) => s.variant !== id(never));
    const fitted = fitMarket(without, reference, rateOn);
    const before = worth(fitted, without, never);
    const asks = Array.from({ length: 4 }, () => asking(never, Math.log(before * 1.42 * 1.5)));
    const after = worth(fitMarket([...without, ...asks], reference, rateOn), [...without, ...asks], never);
    expect(after / before).toBeGreaterThan(1.05);
  });
});

describe('new sales', () => {
  test('amended and fitted anew, the answers agree to a hundredth', () => {
    const some = mostAmended(FIRST.length);
    expect(some).toBeGreaterThan(3);
    const fresh = Array.from({ length: some }, (_, i) =>
      price(i * 3, worthOf[i * 3] ?? 0, { day: TODAY - i }),
    );
    const all = [...FIRST, ...fresh];
    const amended = amendMarket(base, fresh, [], reference, rateOn);
    const anew = fitMarket(all, reference, rateOn, { start: amended });
    for (let v = 0; v < FORMS; v++)
      expect(percent(worth(amended, all, v), worth(anew, all, v))).toBeLessThan(1);
  });
  test('of most of what is known prevail, wherever the fit begins', () => {
    const v = 12;
    const old = FIRST.filter((s) => s.variant === id(v) && s.priceKind === 'sold').length;
    const fresh = Array.from({ length: Math.ceil(1.6 * old) }, () => price(v, (worthOf[v] ?? 0) + 1.2));
    const all = [...FIRST, ...fresh];
    const before = worth(base, FIRST, v);
    expect(worth(fitMarket(all, reference, rateOn), all, v) / before).toBeGreaterThan(2);
    expect(worth(fitMarket(all, reference, rateOn, { start: base }), all, v) / before).toBeGreaterThan(2);
  });
});
