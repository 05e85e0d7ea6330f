import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import {
  accountOf,
  paidState,
  refundable,
  settlementOf,
  taxLine,
  taxOfCredit,
  type Credit,
  type SoldFor,
} from './account.ts';

/** By hand: 101.50 and 6.00 postage; fees 10.96; bought for 58.00. */
const sold: SoldFor = {
  currency: 'EUR',
  price: '101.50',
  postage: '6.00',
  fees: '10.96',
  tax: { on: 'margin', pct: 21 },
  paid: '58.00',
  cost: '58.00',
};
const whole: Credit = { refund: '107.50', feesBack: '8.12', pieceBack: true };
const allowance: Credit = { refund: '10.00', feesBack: '0', pieceBack: false };

describe('the account of a sale', () => {
  test('as sold: price and postage, less fees and the tax on the margin, less the cost', () =>
    // 43.50 gained · 21/121 = 7.55; 107.50 − 10.96 − 7.55 = 88.99; − 58.00 = 30.99
    expect(accountOf(sold, [])).toEqual({
      revenue: '107.50',
      fees: '10.96',
      tax: '7.55',
      left: '88.99',
      cost: '58.00',
      result: '30.99',
      returned: false,
    }));
  test('given back whole: no tax, no revenue; what the channel kept is lost, the cost is with the piece again', () =>
    expect(accountOf(sold, [whole])).toEqual({
      revenue: '0.00',
      fees: '2.84',
      tax: '0.00',
      left: '-2.84',
      cost: null,
      result: '-2.84',
      returned: true,
    }));
  test('an allowance lowers the price, the tax with it, and the sale stands', () =>
    // 33.50 gained · 21/121 = 5.81; 97.50 − 10.96 − 5.81 = 80.73; − 58.00 = 22.73
    expect(accountOf(sold, [allowance])).toMatchObject({ tax: '5.81', result: '22.73', returned: false }));
  test('a fee kept of a returned piece is taxed as it stands: there are no goods to set against it', () =>
    // 91.50 back of 101.50: 10.00 of the price kept · 21/121 = 1.74
    expect(accountOf(sold, [{ refund: '91.50', feesBack: '0', pieceBack: true }])).toMatchObject({
      revenue: '16.00',
      tax: '1.74',
    }));
  test('an unknown cost leaves the result open, unless the piece is back', () => {
    expect(accountOf({ ...sold, cost: null }, []).result).toBeNull();
    expect(accountOf({ ...sold, cost: null }, [whole]).result).toBe('-2.84');
  });
  const cents = fc.integer({ min: 0, max: 1_000_000 }).map((n) => (n / 100).toFixed(2));
  test('taxes of credits and of the sale sum to the tax that stands, to the cent, however it was given back', () =>
    fc.assert(
      fc.property(
        cents,
        cents,
        fc.array(fc.record({ refund: cents, feesBack: cents, pieceBack: fc.boolean() }), { maxLength: 5 }),
        fc.constantFrom('none', 'sales', 'margin'),
        (price, paid, credits, on) => {
          const own: SoldFor = { ...sold, price, paid, cost: paid, tax: { on, pct: 21 } };
          const minor = (text: string) => Math.round(Number(text) * 100);
          const changes = credits.map((credit, i) => minor(taxOfCredit(own, credits.slice(0, i), credit)));
          const first = minor(accountOf(own, []).tax);
          expect(first + changes.reduce((a, b) => a + b, 0)).toBe(minor(accountOf(own, credits).tax));
        },
      ),
    ));
});

test('no more may be given back than was paid', () => {
  expect(refundable(sold, [])).toBe('107.50');
  expect(refundable(sold, [allowance])).toBe('97.50');
  expect(refundable(sold, [whole])).toBe('0.00');
});

describe('the tax line', () => {
  test('on the whole of a sale: what is inside the price, and the rest of the sum', () =>
    // 101.50 · 21/121 = 17.62; 107.50 − 17.62
    expect(taxLine('EUR', { on: 'sales', pct: 21 }, '101.50', '107.50')).toEqual({
      scheme: 'sales',
      pct: 21,
      net: '89.88',
      tax: '17.62',
    }));
  test('on the margin it is not shown', () =>
    expect(taxLine('EUR', { on: 'margin', pct: 21 }, '101.50', '107.50')).toMatchObject({
      net: null,
      tax: null,
    }));
});

describe('sold for somebody else', () => {
  const terms = { sharePct: 25, fee: '5.00', least: '20.00', channelFeesBy: 'owner' } as const;
  test('share, fee and what the channel took come off the price', () =>
    expect(settlementOf('EUR', '160.00', '13.10', terms)).toEqual({
      price: '160.00',
      share: '40.00',
      fee: '5.00',
      channelFees: '13.10',
      payout: '101.90',
    }));
  test('nothing that was not agreed comes off', () =>
    expect(
      settlementOf('EUR', '60.00', '9.00', { sharePct: 0, fee: null, least: null, channelFeesBy: 'shop' }),
    ).toEqual({ price: '60.00', share: '0.00', fee: '0.00', channelFees: '0.00', payout: '60.00' }));
  test('the least share holds; the shop bears the channel where that was agreed; nobody pays to sell', () => {
    expect(settlementOf('EUR', '60.00', '9.00', { ...terms, channelFeesBy: 'shop' })).toMatchObject({
      share: '20.00',
      channelFees: '0.00',
      payout: '35.00',
    });
    expect(settlementOf('EUR', '10.00', '0', terms).payout).toBe('0.00');
  });
});

test.each([
  [[], '0.00', '107.50', 'open'],
  [['50.00'], '50.00', '57.50', 'part'],
  [['50.00', '57.50'], '107.50', '0.00', 'paid'],
  [['110.00'], '110.00', '-2.50', 'over'],
] as const)('of 107.50 the payments %j leave it %s, %s, %s', (payments, paid, open, state) =>
  expect(paidState('EUR', '107.50', payments)).toEqual({ paid, open, state }),
);
