import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { netOf } from '../worth/index.ts';
import {
  addMoney,
  convert,
  formatMoney,
  fromMinor,
  minorDigits,
  money,
  parseAmount,
  subtractMoney,
  toMinor,
} from './money.ts';

test('currencies keep their own minor unit', () => {
  expect([minorDigits('EUR'), minorDigits('JPY'), minorDigits('KWD')]).toEqual([2, 0, 3]);
  expect(money('1.005', 'EUR').amount).toBe('1.01');
  expect(money('-1.005', 'EUR').amount).toBe('-1.01');
  expect(parseAmount('12.345', 'EUR', '/price').ok).toBe(false);
  expect(parseAmount('12.345', 'KWD', '/price').ok).toBe(true);
});

test('minor units go there and back', () => {
  fc.assert(
    fc.property(
      fc.bigInt({ min: -(10n ** 14n), max: 10n ** 14n }),
      fc.constantFrom('EUR', 'JPY', 'KWD'),
      (minor, currency) => {
        expect(toMinor(fromMinor(minor, currency), currency)).toBe(minor);
      },
    ),
  );
});

test('sums are exact and need one currency', () => {
  expect(addMoney(money('0.10', 'EUR'), money('0.20', 'EUR')).amount).toBe('0.30');
  expect(subtractMoney(money('1', 'EUR'), money('1.01', 'EUR')).amount).toBe('-0.01');
  expect(() => addMoney(money('1', 'EUR'), money('1', 'GBP'))).toThrow('EUR');
});

test('conversion goes through the base and is rounded once', () => {
  const rate = (currency: string) => ({ EUR: '1', GBP: '0.86', SEK: '11.1' })[currency];
  expect(convert(money('100', 'GBP'), 'SEK', rate)).toEqual({ amount: '1290.70', currency: 'SEK' });
  expect(convert(money('100', 'GBP'), 'USD', rate)).toBeUndefined();
});

test('money is set for people', () => expect(formatMoney(money('1744.7', 'EUR'))).toBe('€1,744.70'));

describe('net of a channel', () => {
  // by hand: 8 % of 185 = 14.80; payment 2.5 % of 195 = 4.875 → 4.88, + 0.30; tax 20 % of (14.80 + 1 + 5.18) = 4.196 → 4.20
  test('worked by hand', () => {
    const net = netOf(
      'EUR',
      {
        commissionPct: 8,
        fixedFee: '1.00',
        paymentPct: 2.5,
        paymentFixed: '0.30',
        taxOnFeesPct: 20,
        postageCharged: '10',
        postageCost: '7.40',
        packing: '1.10',
        insurancePct: 1,
      },
      '185.00',
    );
    expect(net).toEqual({
      gross: '195.00',
      commission: '14.80',
      fixedFee: '1.00',
      paymentFee: '5.18',
      taxOnFees: '4.20',
      postageCost: '7.40',
      packing: '1.10',
      insurance: '1.85',
      net: '159.47',
    });
  });

  test('a commission keeps between its least and its most', () => {
    expect(netOf('EUR', { commissionPct: 10, commissionMin: '5' }, '20').commission).toBe('5.00');
    expect(netOf('EUR', { commissionPct: 10, commissionMax: '50' }, '900').commission).toBe('50.00');
  });

  test('the lines add up to the cent', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 10_000_000 }),
        fc.integer({ min: 0, max: 300 }),
        fc.integer({ min: 0, max: 300 }),
        (cents, commission, payment) => {
          const n = netOf(
            'EUR',
            {
              commissionPct: commission / 10,
              paymentPct: payment / 10,
              taxOnFeesPct: 20,
              postageCost: '4.95',
            },
            (cents / 100).toFixed(2),
          );
          const sum = [
            n.commission,
            n.fixedFee,
            n.paymentFee,
            n.taxOnFees,
            n.postageCost,
            n.packing,
            n.insurance,
            n.net,
          ].reduce((total, x) => total + toMinor(x, 'EUR'), 0n);
          expect(sum).toBe(toMinor(n.gross, 'EUR'));
        },
      ),
    );
  });
});
