import { describe, expect, test } from '@jest/globals';
import { random } from '../random/index.ts';
import { money } from '../money/index.ts';
import { amendMarket } from './amend.ts';
import { estimateWorth } from './estimate.ts';
import { evidenceIn } from './evidence.ts';
import { fitMarket } from './fit.ts';
import { Market } from './market.ts';
import type { Comparable, MarketReference } from './comparable.ts';

const TODAY = 20_700;
const reference: MarketReference = {
  patterns: new Map(
    ['jack', 'pen', 'plough'].map((id) => [
      id,
      { id, maker: id === 'plough' ? 'tw' : 'bh', construction: 'slipjoint' },
    ]),
  ),
  variants: new Map(
    ['jack-1', 'jack-2', 'pen-1', 'plough-1'].map((id) => [
      id,
      { id, pattern: id.split('-')[0] ?? '', kind: 'production' as const },
    ]),
  ),
};
const rateOn = () => 1;
const luck = random(3);
const sale = (i: number, variant: string, more: Partial<Comparable> = {}): Comparable => ({
  id: `s${i}`,
  day: TODAY - (i % 900),
  price: money((100 * Math.exp(0.2 * luck.normal())).toFixed(2), 'EUR'),
  priceKind: 'sold',
  venueKind: 'fair',
  pattern: variant.split('-')[0] ?? '',
  variant,
  conditionIndex: 60 + (i % 40),
  box: 'none',
  papers: 'none',
  sheath: 'not-applicable',
  alterations: [],
  buyerPremiumPct: 0,
  shippingIncluded: false,
  ...more,
});
const first = Array.from({ length: 90 }, (_, i) =>
  sale(i, i % 3 === 0 ? 'jack-1' : i % 3 === 1 ? 'jack-2' : 'pen-1'),
);
const base = fitMarket(first, reference, rateOn);
// what was learned about spreads and noise stands: an amendment changes nothing of it
const refit = (sales: readonly Comparable[]) => ({
  ...fitMarket(sales, reference, rateOn, { fixed: { sd: base.sd, noise: base.noise } }),
  stretch: base.stretch,
});
const worth = (fitted: typeof base, sales: readonly Comparable[], variant: string) =>
  estimateWorth(
    new Market(fitted, reference, rateOn),
    evidenceIn(sales, new Market(fitted, reference, rateOn), subject(variant)),
    subject(variant),
    'fair',
    TODAY,
  );
const subject = (variant: string) => ({
  pattern: variant.split('-')[0] ?? '',
  variants: [{ variant, probability: 1 }],
  conditionIndex: 80,
  box: 'none' as const,
  papers: 'none' as const,
  sheath: 'not-applicable' as const,
  alterations: [],
});

describe('a market that is brought up to date', () => {
  const more = [
    sale(200, 'jack-1', { price: money('135.00', 'EUR') }),
    sale(201, 'jack-1', { price: money('140.00', 'EUR') }),
    sale(202, 'pen-1', { price: money('55.00', 'EUR'), venueKind: 'online' }),
  ];

  test('says what a new fit of everything says', () => {
    const all = [...first, ...more];
    const amended = amendMarket(base, more, [], reference, rateOn);
    for (const variant of ['jack-1', 'jack-2', 'pen-1']) {
      const [quick, whole] = [worth(amended, all, variant), worth(refit(all), all, variant)];
      expect(Math.log(quick.estimate / whole.estimate)).toBeCloseTo(0, 1.6);
      expect(Math.log(quick.high / quick.low) / Math.log(whole.high / whole.low)).toBeCloseTo(1, 1);
    }
    expect(worth(amended, all, 'jack-1').estimate).toBeGreaterThan(
      1.01 * worth(base, first, 'jack-1').estimate,
    );
  });

  test('has its grid add up to the estimate, new rows included', () => {
    const all = [...first, ...more];
    const e = worth(amendMarket(base, more, [], reference, rateOn), all, 'jack-1');
    const grid = e.comparables.reduce(
      (sum, row) => sum + row.weight * Math.log(row.adjusted),
      e.rest.weight * Math.log(e.rest.adjusted),
    );
    expect(e.comparables.some((row) => row.sale.id === 's200')).toBe(true);
    expect(Math.exp(grid)).toBeCloseTo(e.estimate, 6);
  });

  test('forgets what is taken out again', () => {
    const there = amendMarket(base, more, [], reference, rateOn);
    const back = amendMarket(there, [], more, reference, rateOn);
    expect(back.prices).toBe(base.prices);
    for (const variant of ['jack-1', 'pen-1'])
      expect(worth(back, first, variant).estimate / worth(base, first, variant).estimate).toBeCloseTo(1, 2);
  });

  test('takes in a maker, a pattern and a variant that were never sold before', () => {
    const strange = [300, 301, 302, 303].map((i) => sale(i, 'plough-1', { price: money('900.00', 'EUR') }));
    const all = [...first, ...strange];
    const quick = worth(amendMarket(base, strange, [], reference, rateOn), all, 'plough-1');
    const whole = worth(refit(all), all, 'plough-1');
    expect(quick.estimate).toBeGreaterThan(450);
    expect(Math.log(quick.estimate / whole.estimate)).toBeCloseTo(0, 1);
    expect(quick.comparables).toHaveLength(4);
  });

  test('leaves out what has no rate, and says so', () => {
    const rates = (currency: string) => (currency === 'EUR' ? 1 : undefined);
    const amended = amendMarket(
      base,
      [sale(400, 'jack-1', { price: money('50', 'SEK') })],
      [],
      reference,
      rates,
    );
    expect(amended.excluded).toEqual([{ id: 's400', pattern: 'jack', reason: 'no-rate' }]);
    expect(amended.theta).toEqual(base.theta);
  });
});
