import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { money } from '../money/index.ts';
import { estimateWorth, type Estimate } from './estimate.ts';
import { evidenceIn } from './evidence.ts';
import { fitMarket, paidInBase } from './fit.ts';
import { Market } from './market.ts';
import type { Comparable, EstimateSubject, VenueKind, MarketReference } from './comparable.ts';
import { studentCdf, studentQuantile } from './studentT.ts';

const reference: MarketReference = {
  patterns: new Map([
    ['jack', { id: 'jack', maker: 'bh', construction: 'slipjoint' }],
    ['pen', { id: 'pen', maker: 'bh', construction: 'slipjoint' }],
  ]),
  variants: new Map([
    ['a', { id: 'a', pattern: 'jack', kind: 'production' }],
    ['b', { id: 'b', pattern: 'jack', kind: 'service' }],
    ['never-sold', { id: 'never-sold', pattern: 'jack', kind: 'production' }],
  ]),
};
const TODAY = 20_700;
const rateOn = (currency: string) => ({ EUR: 1, GBP: 0.8 })[currency];
const sale = (i: number, price: number, more: Partial<Comparable> = {}): Comparable => ({
  id: `s${String(i).padStart(3, '0')}`,
  day: TODAY - 30 * i,
  price: money(price.toFixed(2), 'EUR'),
  priceKind: 'sold',
  venueKind: 'fair',
  pattern: 'jack',
  variant: 'a',
  conditionIndex: 75,
  box: 'none',
  papers: 'none',
  sheath: 'not-applicable',
  alterations: [],
  buyerPremiumPct: 0,
  shippingIncluded: false,
  ...more,
});
interface Known {
  readonly market: Market;
  readonly sales: readonly Comparable[];
}
const market = (sales: readonly Comparable[]): Known => ({
  market: new Market(fitMarket(sales, reference, rateOn), reference, rateOn),
  sales,
});
const worthOf = ({ market, sales }: Known, of: EstimateSubject, venue: VenueKind = 'fair'): Estimate =>
  estimateWorth(market, evidenceIn(sales, market, of), of, venue, TODAY);
const subject = (variant: string, more: Partial<EstimateSubject> = {}): EstimateSubject => ({
  pattern: 'jack',
  variants: [{ variant, probability: 1 }],
  conditionIndex: 75,
  box: 'none',
  papers: 'none',
  sheath: 'not-applicable',
  alterations: [],
  ...more,
});
const noisy = [100, 110, 92, 105, 98, 120, 88, 101, 97, 107].map((price, i) => sale(i, price));

describe('a market that says the same over and over', () => {
  test.each([1, 2, 7, 20, 60, 400])('%s equal prices are a price, with a range about it', (n) => {
    const told = worthOf(
      market(Array.from({ length: n }, (_, i) => sale(i, 80, { day: TODAY - 30 }))),
      subject('a'),
    );
    expect(told.estimate).toBeGreaterThan(70);
    expect(told.estimate).toBeLessThan(95);
    expect(told.low).toBeLessThan(told.estimate * 0.99);
    expect(told.high).toBeGreaterThan(told.estimate * 1.01);
  });
  test('two prices only, each many times, or one kind of price alone, can be fitted', () => {
    for (const make of [
      (i: number) => sale(i, i % 2 ? 80 : 120, { day: TODAY - 30 }),
      (i: number) => sale(i, 80, { day: TODAY - 30, priceKind: 'asking' as const }),
      (i: number) => sale(i, 80, { day: TODAY - 30, priceKind: 'offer' as const }),
      (i: number) => sale(i, 80, { day: TODAY - 30, box: i % 2 ? 'original' : 'none' }),
      (i: number) => sale(i, i % 3 ? 80 : 8e6, { day: TODAY - 30 }),
    ])
      expect(
        worthOf(market(Array.from({ length: 80 }, (_, i) => make(i))), subject('a')).estimate,
      ).toBeGreaterThan(0);
  });
});

describe('the estimate', () => {
  test('lies among like sales of like condition, its range around it', () => {
    const e = worthOf(market(noisy), subject('a'));
    expect(e.estimate).toBeGreaterThan(90);
    expect(e.estimate).toBeLessThan(112);
    expect(e.low).toBeLessThan(e.estimate);
    expect(e.high).toBeGreaterThan(e.estimate);
  });

  test('the grid gives the estimate: weights add up to one, every adjustment multiplies out', () => {
    const rows = noisy.map((s, i) => ({
      ...s,
      conditionIndex: 60 + 4 * i,
      box: i % 2 ? ('original' as const) : undefined,
    }));
    const e = worthOf(market(rows), subject('a', { conditionIndex: 88 }), 'retail');
    const weights = e.comparables.reduce((sum, row) => sum + row.weight, e.rest.weight);
    expect(weights).toBeCloseTo(1, 9);
    for (const row of e.comparables)
      expect(row.adjusted).toBeCloseTo(
        row.adjustments.reduce((x, a) => x * (1 + a.percent / 100), row.converted),
        9,
      );
    const grid = Math.exp(
      e.comparables.reduce(
        (sum, row) => sum + row.weight * Math.log(row.adjusted),
        e.rest.weight * Math.log(e.rest.adjusted),
      ),
    );
    expect(grid).toBeCloseTo(e.estimate, 4);
    expect(e.methods.find((m) => m.name === 'adjustment-grid')?.estimate).toBeCloseTo(grid, 9);
  });

  test('better condition is never worth less, a premium and a currency are reckoned in', () => {
    const worth = (conditionIndex: number) =>
      worthOf(market(noisy), subject('a', { conditionIndex })).estimate;
    expect(worth(95)).toBeGreaterThan(worth(70));
    const pounds = worthOf(
      market(noisy.map((s) => ({ ...s, price: money((Number(s.price.amount) * 0.8).toFixed(2), 'GBP') }))),
      subject('a'),
    );
    expect(pounds.estimate).toBeCloseTo(worthOf(market(noisy), subject('a')).estimate, 1);
  });

  test('papers are worth what they brought: the more, the more they brought among these sales', () => {
    const rows = (factor: number) =>
      Array.from({ length: 60 }, (_, i) => {
        const papers = i % 2 === 0 ? ('original' as const) : ('none' as const);
        return sale(i, (100 + (i % 7)) * (papers === 'original' ? factor : 1), { papers });
      });
    const gain = (factor: number) => {
      const known = market(rows(factor));
      const at = (papers: 'original' | 'none') => worthOf(known, subject('a', { papers })).estimate;
      return at('original') / at('none');
    };
    expect(gain(1.3)).toBeGreaterThan(1.12);
    expect(gain(1.3)).toBeGreaterThan(gain(1) + 0.08);
  });

  test('houses that differ widely make the range wide: which one it goes to is not known', () => {
    const rows = (spread: number) =>
      Array.from({ length: 240 }, (_, i) => {
        const house = i % 8;
        return sale(i, 100 * Math.exp(spread * (house - 3.5)) * (1 + 0.02 * (i % 5)), {
          day: TODAY - 5 * i,
          venue: `House ${house}`,
          venueKind: 'auction',
        });
      });
    const width = (spread: number) => {
      const e = worthOf(market(rows(spread)), subject('a'), 'auction');
      return Math.log(e.high / e.low);
    };
    // eight houses from e^-0.53 to e^0.53, each alike within itself: what is not known is the house
    expect(width(0.15)).toBeGreaterThan(0.7);
    expect(width(0.15)).toBeLessThan(1.3);
    expect(width(0)).toBeLessThan(0.2);
  });

  test('a price is converted at the rate of the day it was paid', () => {
    const halved = (currency: string, day: number) =>
      currency === 'EUR' ? 1 : currency === 'GBP' ? (day < TODAY - 400 ? 0.4 : 0.8) : undefined;
    const one = (day: number) => paidInBase(sale(99, 40, { day, price: money('40.00', 'GBP') }), halved);
    expect(one(TODAY - 500)).toBeCloseTo(100, 6);
    expect(one(TODAY - 300)).toBeCloseTo(50, 6);
  });

  test('raising every asking price moves nothing', () => {
    const asks = (factor: number) =>
      Array.from({ length: 6 }, (_, i) => sale(40 + i, 150 * factor, { priceKind: 'asking' }));
    const at = (factor: number) => worthOf(market([...noisy, ...asks(factor)]), subject('a')).estimate;
    expect(Math.abs(Math.log(at(2) / at(1)))).toBeLessThan(0.01);
  });

  test('one heated sale is not a market', () => {
    const calm = worthOf(market(noisy), subject('a')).estimate;
    const heated = worthOf(market([...noisy, sale(3, 900, { id: 'hot' })]), subject('a')).estimate;
    expect(heated / calm).toBeLessThan(1.08);
  });

  test('a thin market is said to be thin, and its range is wider', () => {
    const known = worthOf(market(noisy), subject('a'));
    const unknown = worthOf(market(noisy), subject('never-sold'));
    expect(unknown.thin).toBe(true);
    expect(known.thin).toBe(false);
    expect(unknown.high / unknown.low).toBeGreaterThan(known.high / known.low);
    expect(unknown.rest.weight).toBeCloseTo(1, 9);
  });

  test('several possible variants are a mixture, not an average of bounds', () => {
    const rows = [
      ...noisy,
      ...noisy.map((s, i) => sale(60 + i, 3 * Number(s.price.amount), { variant: 'b' })),
    ];
    const m = market(rows);
    const [a, b] = [worthOf(m, subject('a')), worthOf(m, subject('b'))];
    const both = worthOf(m, {
      ...subject('a'),
      variants: [
        { variant: 'a', probability: 0.5 },
        { variant: 'b', probability: 0.5 },
      ],
    });
    expect(both.low).toBeGreaterThan(a.low * 0.99);
    expect(both.low).toBeLessThan(a.estimate);
    expect(both.high).toBeGreaterThan(b.estimate);
    expect(both.comparables.reduce((sum, row) => sum + row.weight, both.rest.weight)).toBeCloseTo(1, 9);
  });

  test('what is missing to one is an unlisted variant', () => {
    const e = worthOf(market(noisy), { ...subject('a'), variants: [{ variant: 'a', probability: 0.7 }] });
    expect(e.byVariant.map((v) => [v.variant, Math.round(v.probability * 10)])).toEqual([
      ['a', 7],
      [null, 3],
    ]);
  });

  test('a sale without a rate is left out, and said so', () => {
    const e = worthOf(market([...noisy, sale(2, 50, { id: 'x', price: money('50', 'SEK') })]), subject('a'));
    expect(e.comparables.find((row) => row.sale.id === 'x')).toMatchObject({
      excluded: 'no-rate',
      weight: 0,
    });
  });

  test('an empty market still answers, widely', () => {
    const e = worthOf(market([]), subject('a'));
    expect(e.estimate).toBeGreaterThan(0);
    expect(e.thin).toBe(true);
  });
});

test('quantiles of t are where its distribution function says', () => {
  expect(studentQuantile(0.9, 5)).toBeCloseTo(1.4759, 3);
  expect(studentQuantile(0.975, 10)).toBeCloseTo(2.2281, 3);
  fc.assert(
    fc.property(
      fc.double({ min: 0.01, max: 0.99, noNaN: true }),
      fc.integer({ min: 2, max: 60 }),
      (share, df) => expect(studentCdf(studentQuantile(share, df), df)).toBeCloseTo(share, 6),
    ),
  );
});
