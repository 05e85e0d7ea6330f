import { describe, expect, test } from '@jest/globals';
import { readAmount } from './typed.ts';

const read = (typed: string, currency = 'EUR') => {
  const amount = readAmount(typed, currency);
  return amount.ok ? `${amount.value.amount} ${amount.value.currency}` : amount.error.message;
};

describe('amounts as people write them', () => {
  test.each([
    ['58', 'EUR', '58.00 EUR'],
    ['58,50', 'EUR', '58.50 EUR'],
    ['58.5', 'GBP', '58.50 GBP'],
    ['£58', 'EUR', '58.00 GBP'],
    ['58 £', 'EUR', '58.00 GBP'],
    ['€ 12.90', 'GBP', '12.90 EUR'],
    ['$80', 'CAD', '80.00 CAD'],
    ['$80', 'EUR', '80.00 USD'],
    ['58 gbp', 'EUR', '58.00 GBP'],
    ['GBP 58', 'EUR', '58.00 GBP'],
    ['1,234.56', 'EUR', '1234.56 EUR'],
    ['1.234,56', 'EUR', '1234.56 EUR'],
    ['1 234,56', 'EUR', '1234.56 EUR'],
    ["1'234.50", 'CHF', '1234.50 CHF'],
    ['1,234', 'GBP', '1234.00 GBP'],
    ['1.234.567', 'EUR', '1234567.00 EUR'],
    ['12,345,678.90', 'USD', '12345678.90 USD'],
  ])('%s in a shop that reckons in %s is %s', (typed, currency, amount) => {
    expect(read(typed, currency)).toBe(amount);
  });
  test.each(['1.234', '1,234'])('%s could be two amounts where a comma is no mark for thousands', (typed) => {
    expect(read(typed)).toMatch(/could be two amounts/);
  });
  test.each(['', 'about 58', '£58 GBP', '1,23.45', '1.2.3', '-5', '5 8.', '58 ZZZ', '58 pounds'])(
    '%s is none',
    (typed) => {
      expect(readAmount(typed, 'EUR').ok).toBe(false);
    },
  );
});
