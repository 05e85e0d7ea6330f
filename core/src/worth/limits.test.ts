import { describe, expect, test } from '@jest/globals';
import { Decimal } from 'decimal.js';
import fc from 'fast-check';
import { breakEven, costOf, leftOf, mostToPay, reaches, type Buying, type Target } from './limits.ts';
import { netOf, type Channel } from './net.ts';
import { TAX_BASES, taxIn, type SaleTax } from '../money/index.ts';

const percent = (max: number) => fc.integer({ min: 0, max: max * 4 }).map((x) => x / 4);
const cents = (max: number) => fc.integer({ min: 0, max }).map((c) => (c / 100).toFixed(2));
const channel: fc.Arbitrary<Channel> = fc.record(
  {
    commissionPct: percent(30),
    commissionOn: fc.constantFrom('price' as const, 'price-and-postage' as const),
    commissionMin: cents(600),
    commissionMax: cents(4000),
    fixedFee: cents(200),
    paymentPct: percent(6),
    paymentFixed: cents(60),
    taxOnFeesPct: percent(25),
    postageCharged: cents(1500),
    postageCost: cents(1500),
    packing: cents(300),
    insurancePct: percent(3),
  },
  { requiredKeys: [] },
);
const target: fc.Arbitrary<Target | undefined> = fc.oneof(
  fc.constant(undefined),
  percent(40).map((marginPct) => ({ marginPct })),
  percent(80).map((markUpPct) => ({ markUpPct })),
  cents(5000).map((profit) => ({ profit })),
);

describe('the lowest price that is enough', () => {
  test('by hand: 8 % and 2.5 % + 0.30 of payment, cost 100', () => {
    const fees: Channel = { commissionPct: 8, paymentPct: 2.5, paymentFixed: '0.30' };
    // 112.07: 8.97 commission, 2.80 + 0.30 payment → 100.00; 112.06: 8.96, 2.80 + 0.30 → 100.00; 112.05 → 99.99
    expect(breakEven('EUR', fees, '100.00')).toEqual({ ask: '112.06', net: '100.00' });
    expect(netOf('EUR', fees, '112.05').net).toBe('99.99');
  });
  test('margin is a share of what is left, mark-up one of the cost', () => {
    expect(breakEven('EUR', {}, '60.00', { marginPct: 40 })).toEqual({ ask: '100.00', net: '100.00' });
    expect(breakEven('EUR', {}, '60.00', { markUpPct: 40 })).toEqual({ ask: '84.00', net: '84.00' });
    expect(breakEven('EUR', {}, '60.00', { profit: '7.50' })).toEqual({ ask: '67.50', net: '67.50' });
  });
  test('where the fees take all, there is none', () => {
    expect(breakEven('EUR', { commissionPct: 90, paymentPct: 10 }, '1.00')).toBeUndefined();
  });
  test('is what trying every price finds', () => {
    fc.assert(
      fc.property(channel, cents(4000), target, (fees, cost, wanted) => {
        const found = breakEven('EUR', fees, cost, wanted);
        const enough = (p: number) =>
          reaches(new Decimal(netOf('EUR', fees, (p / 100).toFixed(2)).net), new Decimal(cost), wanted);
        const ask = Math.round(Number(found?.ask) * 100);
        expect(enough(ask)).toBe(true);
        for (let p = Math.max(0, ask - 400); p < ask; p++) expect(enough(p)).toBe(false);
      }),
      { numRuns: 60 },
    );
  });
});

describe('the most to pay', () => {
  const buying: fc.Arbitrary<Buying> = fc.record(
    {
      premiumPct: percent(30),
      premiumMin: cents(800),
      taxOnPremiumPct: percent(25),
      taxOnHammerPct: percent(25),
      otherCosts: cents(2000),
      increment: fc.constantFrom('0.01', '1.00', '5.00', '0.50'),
    },
    { requiredKeys: [] },
  );
  test('by hand: net 200, a fifth of it wanted, 25 % premium with 20 % tax on it, 10 for travel, in fives', () => {
    // 160 may be spent; 115 + 28.75 + 5.75 + 10 = 159.50, 120 would be 166
    const answer = mostToPay(
      'EUR',
      { premiumPct: 25, taxOnPremiumPct: 20, otherCosts: '10.00', increment: '5.00' },
      {},
      '200.00',
      { marginPct: 20 },
    );
    expect(answer).toMatchObject({ net: '200.00', bid: '115.00', cost: '159.50' });
    expect(answer.steps.at(-1)).toEqual({ name: 'most to bid', amount: '115.00' });
  });
  test('nothing where even the lowest step is too much', () => {
    expect(mostToPay('EUR', { otherCosts: '9.00' }, {}, '5.00')).toMatchObject({ bid: null, cost: null });
  });
  test('leaves the target, and one step more would not', () => {
    fc.assert(
      fc.property(buying, channel, cents(30_000), target, (how, fees, price, wanted) => {
        const { bid, net } = mostToPay('EUR', how, fees, price, wanted);
        const step = new Decimal(how.increment ?? '0.01');
        const leaves = (b: Decimal) => reaches(new Decimal(net), costOf('EUR', how, b).cost, wanted);
        if (bid === null) expect(leaves(step)).toBe(false);
        else {
          expect(leaves(new Decimal(bid))).toBe(true);
          expect(leaves(new Decimal(bid).plus(step))).toBe(false);
          expect(new Decimal(bid).div(step).isInteger()).toBe(true);
        }
      }),
      { numRuns: 200 },
    );
  });
});

describe('tax inside the price', () => {
  const none = { channel: {}, paid: '60.00' };
  test('by hand: 21 % of 121 is 21, of the margin 121 − 60 it is 10.59', () => {
    expect(leftOf('EUR', none.channel, '121.00', { on: 'sales', pct: 21 }, none.paid)).toEqual({
      net: '121.00',
      tax: '21.00',
      left: '100.00',
    });
    // 61 · 21/121 = 10.5867…
    expect(leftOf('EUR', none.channel, '121.00', { on: 'margin', pct: 21 }, none.paid).left).toBe('110.41');
    // a loss is not taxed
    expect(leftOf('EUR', none.channel, '50.00', { on: 'margin', pct: 21 }, none.paid).tax).toBe('0.00');
  });
  test('by hand: 100 wanted of a taxed sale is an ask of 121; on the margin of 60 it is 108.40', () => {
    expect(breakEven('EUR', {}, '100.00', null, { tax: { on: 'sales', pct: 21 }, paid: '60.00' })).toEqual({
      ask: '121.00',
      net: '100.00',
    });
    // 60 + (100 − 60)·1.21 = 108.40
    expect(breakEven('EUR', {}, '100.00', null, { tax: { on: 'margin', pct: 21 }, paid: '60.00' })?.ask).toBe(
      '108.40',
    );
  });
  test('by hand: most to pay for what brings 121, untaxed 121, on sales 100, on the margin still 121', () => {
    const most = (on: SaleTax['on']) => mostToPay('EUR', {}, {}, '121.00', null, { on, pct: 21 }).bid;
    expect([most('none'), most('sales'), most('margin')]).toEqual(['121.00', '100.00', '121.00']);
    // a third of what is left: bid = ⅔·(121 − tax), tax = (121 − bid)·21/121 → bid = 66.667 / 0.8843 = 75.389
    const steps = mostToPay('EUR', {}, {}, '121.00', { marginPct: 100 / 3 }, { on: 'margin', pct: 21 });
    expect(steps.bid).toBe('75.38');
    expect(steps.steps.find((s) => s.name === 'tax on the margin')?.amount).toBe('-7.92');
  });
  const tax: fc.Arbitrary<SaleTax> = fc.record({ on: fc.constantFrom(...TAX_BASES), pct: percent(30) });
  test('the lowest price with tax is what trying every price finds', () => {
    fc.assert(
      fc.property(channel, cents(3000), cents(3000), target, tax, (fees, cost, paid, wanted, due) => {
        const enough = (p: number) =>
          reaches(
            new Decimal(leftOf('EUR', fees, (p / 100).toFixed(2), due, paid).left),
            new Decimal(cost),
            wanted,
          );
        const found = breakEven('EUR', fees, cost, wanted, { tax: due, paid });
        const asked = found ? Math.round(Number(found.ask) * 100) : 12_000;
        for (let p = Math.max(0, asked - 300); p < asked; p++) if (enough(p)) return false;
        return found === undefined || enough(asked);
      }),
      { numRuns: 60 },
    );
  });
  test('the highest bid with tax is what trying the next one finds', () => {
    fc.assert(
      fc.property(channel, cents(20_000), tax, target, (fees, price, due, wanted) => {
        const { bid, net } = mostToPay('EUR', {}, fees, price, wanted, due);
        const enough = (b: Decimal) =>
          reaches(new Decimal(net).minus(taxIn('EUR', due, new Decimal(price), b)), b, wanted);
        const at = new Decimal(bid ?? '0');
        return (bid === null || enough(at)) && !enough(at.plus('0.01'));
      }),
    );
  });
});
