import { describe, expect, test } from '@jest/globals';
import { decimal, readMoney, readNumber } from './typed.ts';

describe('a number as it is typed', () => {
  test('a decimal comma is a point, a printed minus is one', () => {
    expect(readNumber('2,5')).toBe(2.5);
    expect(readNumber('−12.5')).toBe(-12.5);
    expect(readNumber('0')).toBe(0);
    expect(decimal(' 0,30 ')).toBe('0.30');
  });
  test('nothing is nothing, and words are no number', () => {
    expect(readNumber('  ')).toBeNull();
    expect(readNumber('much')).toBeUndefined();
    expect(readNumber('8 %')).toBeUndefined();
  });
});

describe('an amount as it is typed', () => {
  test('in the shop’s currency, or in the one beside it', () => {
    expect(readMoney('58', 'EUR')).toEqual({ money: { amount: '58.00', currency: 'EUR' } });
    expect(readMoney('58,50 gbp', 'EUR')).toEqual({ money: { amount: '58.50', currency: 'GBP' } });
  });
  test('what cannot be read is told, and nothing is nothing', () => {
    expect(readMoney('', 'EUR')).toBeUndefined();
    expect(readMoney('about 58', 'EUR')).toHaveProperty('wrong');
    expect(readMoney('58.123', 'EUR')).toHaveProperty('wrong');
  });
});
