import { describe, expect, test } from '@jest/globals';
import { money } from '../money/index.ts';
import { fitMarket, Market, type Comparable, type MarketReference } from '../market/index.ts';
import { pairsBehind } from './pairs.ts';

const reference: MarketReference = {
  patterns: new Map([['jack', { id: 'jack', maker: 'bh', construction: 'slipjoint' }]]),
  variants: new Map([
    ['a', { id: 'a', pattern: 'jack', kind: 'production' }],
    ['b', { id: 'b', pattern: 'jack', kind: 'service' }],
  ]),
};
const rateOn = (currency: string) => ({ EUR: 1, GBP: 0.8 })[currency];
const TODAY = 20_700;
const sale = (id: string, price: string, more: Partial<Comparable> = {}): Comparable => ({
  id,
  day: TODAY - 40,
  price: money(price, 'EUR'),
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
const pairsOf = (sales: readonly Comparable[]) =>
  pairsBehind(new Market(fitMarket(sales, reference, rateOn), reference, rateOn), sales);

describe('paired sales', () => {
  test('two that differ in the box alone say what the box brought, whatever the currency', () => {
    const [box] = pairsOf([
      sale('with', '110.00', { box: 'original' }),
      sale('without', '80.00', { day: TODAY - 70, price: money('80.00', 'GBP') }),
    ]);
    expect(box).toMatchObject({ line: 'box', said: 'box against none' });
    expect(box?.pairs).toHaveLength(1);
    expect(box?.pairs[0]).toMatchObject({ daysApart: 30, more: { id: 'with' }, less: { id: 'without' } });
    expect(box?.pairs[0]?.percent).toBeCloseTo(10, 6);
  });
  test('what differs in two things, another form, or years apart is no pair', () => {
    expect(
      pairsOf([
        sale('one', '110.00', { box: 'original' }),
        sale('papers', '80.00', { papers: 'original' }),
        sale('form', '80.00', { variant: 'b' }),
        sale('old', '80.00', { day: TODAY - 1000 }),
        sale('box not told', '80.00', { box: undefined }),
        sale('premium not told', '80.00', { buyerPremiumPct: undefined }),
      ]),
    ).toEqual([]);
  });
  test('condition is told by ten points, an alteration against none, asked against sold', () => {
    const lines = pairsOf([
      sale('fine', '121.00', { conditionIndex: 95 }),
      sale('plain', '100.00'),
      sale('polished', '90.00', { alterations: ['polished'] }),
      sale('asked', '130.00', { priceKind: 'asking' }),
    ]);
    const middle = (said: string) => lines.find((line) => line.said === said)?.middle;
    expect(middle('ten points of condition')).toBeCloseTo(10, 6);
    expect(middle('polished against not')).toBeCloseTo(-10, 6);
    expect(middle('asked against sold')).toBeCloseTo(30, 6);
  });
  test('the middle of many pairs is near what the engine says of the same line', () => {
    const sales = Array.from({ length: 60 }, (_, i) =>
      sale(`s${i}`, (100 * (i % 2 ? 1.2 : 1) * (1 + ((i * 7) % 5) / 100)).toFixed(2), {
        day: TODAY - 10 * i,
        box: i % 2 ? 'original' : 'none',
      }),
    );
    const [box] = pairsOf(sales);
    expect(box?.middle).toBeGreaterThan(16);
    expect(box?.middle).toBeLessThan(24);
    expect(Math.abs((box?.engine ?? 0) - (box?.middle ?? 0))).toBeLessThan(4);
  });
});
