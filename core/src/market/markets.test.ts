/** The two markets and how prices moved, on a small market whose truth is known. */
import { describe, expect, test } from '@jest/globals';
import { random } from '../random/index.ts';
import { money } from '../money/index.ts';
import { estimateWorth } from './estimate.ts';
import { evidenceIn } from './evidence.ts';
import { fitMarket } from './fit.ts';
import { inTwoMarkets, marketOf } from './twoMarkets.ts';
import { Market } from './market.ts';
import { trendsOfMarket, trendOfPattern } from './trends.ts';
import type { Comparable, MarketReference } from './comparable.ts';

const TODAY = 20_700;
const reference: MarketReference = {
  patterns: new Map(
    ['jack', 'pen', 'plough'].map((id) => [
      id,
      { id, maker: id === 'pen' ? 'tw' : 'bh', construction: 'slipjoint' as const },
    ]),
  ),
  variants: new Map(
    ['jack-1', 'jack-2', 'pen-1', 'plough-1'].map((id) => [
      id,
      { id, pattern: id.split('-')[0] ?? '', kind: 'production' as const },
    ]),
  ),
};
const luck = random(11);
const sale = (i: number, log: number, more: Partial<Comparable> = {}): Comparable => ({
  id: `s${i}`,
  day: TODAY - (i % 720),
  price: money((100 * Math.exp(log + 0.08 * luck.normal())).toFixed(2), 'EUR'),
  priceKind: 'sold',
  venueKind: 'fair',
  pattern: 'jack',
  variant: i % 2 === 0 ? 'jack-1' : 'jack-2',
  conditionIndex: 55 + (i % 45),
  box: 'none',
  papers: 'none',
  sheath: 'not-applicable',
  alterations: [],
  buyerPremiumPct: 0,
  shippingIncluded: false,
  ...more,
});
const marketOfSales = (sales: readonly Comparable[]) =>
  new Market(
    fitMarket(sales, reference, () => 1),
    reference,
    () => 1,
  );
const subject = {
  pattern: 'jack',
  variants: [{ variant: 'jack-1', probability: 1 }],
  conditionIndex: 60,
  box: 'none' as const,
  papers: 'none' as const,
  sheath: 'not-applicable' as const,
  alterations: [],
};

describe('two markets', () => {
  const slope = (i: number, of: number) => of * ((55 + (i % 45)) / 100 - 0.77);
  const sales = Array.from({ length: 240 }, (_, i) =>
    i % 2 === 0
      ? sale(i, slope(i, 2), { gradeScale: 'collector' })
      : sale(i, slope(i, 0.4) - 0.1, { gradeScale: 'user' }),
  );
  const market = marketOfSales(sales);
  const { byVariant, estimate } = estimateWorth(
    market,
    evidenceIn(sales, market, subject),
    subject,
    'fair',
    TODAY,
  );
  const found = (index: number, among = sales) => inTwoMarkets(market, among, byVariant, index);

  test('condition counts more for a collectible than to use', () => {
    const [collectible, toUse] = found(60);
    expect(collectible?.market).toBe('collectible');
    expect(collectible?.tenPoints).toBeGreaterThan(4);
    expect(toUse?.tenPoints).toBeLessThan(-4);
  });
  test('a worn piece brings more to use, a fine one more as a collectible', () => {
    const [wornCollectible, wornToUse] = found(58);
    expect(wornToUse?.estimate).toBeGreaterThan(wornCollectible?.estimate ?? Infinity);
    const [fine, fineToUse] = found(97);
    expect(fine?.estimate).toBeGreaterThan(fineToUse?.estimate ?? Infinity);
  });
  test('the range holds the figure, and is not narrower than that of all buyers', () => {
    for (const m of found(75)) {
      expect(m.low).toBeLessThan(m.estimate);
      expect(m.high).toBeGreaterThan(m.estimate);
      expect(m.high / m.low).toBeGreaterThanOrEqual(
        ((byVariant[0]?.high ?? 1) / (byVariant[0]?.low ?? 1)) * 0.999,
      );
    }
    expect(estimate).toBeGreaterThan(0);
  });
  test('of fewer than three sales nothing is said; asking prices say nothing', () => {
    expect(found(60, sales.slice(0, 4))).toEqual([]);
    expect(
      found(
        60,
        sales.map((s) => ({ ...s, priceKind: 'asking' as const })),
      ),
    ).toEqual([]);
  });
  test('scales and the market they speak of', () => {
    expect(['collector', 'finish', 'user', undefined].map(marketOf)).toEqual([
      'collectible',
      'collectible',
      'to-use',
      undefined,
    ]);
  });
});

describe('how prices moved', () => {
  // the whole market rose by a tenth a year; the jack's own prices by a tenth more
  const year = (i: number) => 1 - (i % 720) / 360;
  const pens = Array.from({ length: 200 }, (_, i) =>
    sale(1000 + i, 0.1 * year(1000 + i), { pattern: 'pen', variant: 'pen-1' }),
  );
  const jacks = Array.from({ length: 120 }, (_, i) => sale(i * 6, 0.2 * year(i * 6)));
  // of the same maker, and standing still
  const ploughs = Array.from({ length: 120 }, (_, i) =>
    sale(5000 + i * 6, 0, { pattern: 'plough', variant: 'plough-1' }),
  );
  const market = marketOfSales([...pens, ...jacks, ...ploughs]);
  const sold = [
    { pattern: 'jack', now: 60, before: 60 },
    { pattern: 'pen', now: 100, before: 100 },
  ];

  test('a rising market is said to rise, with a range around it', () => {
    const [whole, ...makers] = trendsOfMarket(market, sold, TODAY);
    expect(whole?.of).toBe('market');
    expect(whole?.percent).toBeGreaterThan(3);
    expect(whole?.low).toBeLessThan(whole?.percent ?? 0);
    expect(whole?.high).toBeGreaterThan(whole?.percent ?? 0);
    expect(makers.map((m) => m.id).sort()).toEqual(['bh', 'tw']);
  });
  test('a maker or market of which too few were sold is not spoken of', () => {
    expect(trendsOfMarket(market, [{ pattern: 'jack', now: 11, before: 60 }], TODAY)).toEqual([]);
  });
  test('of two patterns of one maker the one that rose is said to have risen more than its maker, the other less', () => {
    const jack = trendOfPattern(market, 'jack', jacks, TODAY);
    const plough = trendOfPattern(market, 'plough', ploughs, TODAY);
    const maker = trendsOfMarket(market, sold, TODAY).find((t) => t.id === 'bh');
    expect(jack?.percent).toBeGreaterThan((maker?.percent ?? Infinity) + 1);
    expect(plough?.percent).toBeLessThan((maker?.percent ?? -Infinity) - 1);
    expect(jack?.sales.reduce((a, b) => a + b, 0)).toBeGreaterThan(100);
  });
  test('without eight sales in each year nothing is said of a pattern', () => {
    expect(trendOfPattern(market, 'jack', jacks.slice(0, 10), TODAY)).toBeUndefined();
  });
});
