import { expect, test } from '@jest/globals';
import { columnMapping, estimateQuestion, marketRoutes } from './market.ts';

const mapping = {
  columns: { Datum: 'sale_date', Hammer: 'price' },
  dateOrder: 'dmy',
  decimalComma: true,
  fixed: { currency: 'EUR' },
};

test('a mapping kept before names were part of it has none', () => {
  expect(columnMapping.parse(mapping).names).toEqual({ maker: {}, pattern: {}, variant: {} });
});
test('a name means an id or none of ours, nothing else', () => {
  const names = (id: string) =>
    columnMapping.safeParse({ ...mapping, names: { pattern: { jack: id }, variant: {} } });
  expect(names('harbour-jack').success).toBe(true);
  expect(names('').success).toBe(true);
  expect(names('Harbour jack').success).toBe(false);
});
test('a column that is none of ours cannot be meant', () => {
  expect(columnMapping.safeParse({ ...mapping, columns: { Datum: 'day' } }).success).toBe(false);
});
test('probabilities that add up to more than one are refused', () => {
  const question = (a: number, b: number) =>
    estimateQuestion.safeParse({
      subject: {
        pattern: 'jack',
        variants: [
          { variant: 'first', probability: a },
          { variant: 'second', probability: b },
        ],
      },
      asOf: '2026-11-25',
      currency: 'EUR',
      venueKind: 'retail',
    }).success;
  expect(question(0.7, 0.3)).toBe(true);
  expect(question(0.7, 0.1)).toBe(true);
  expect(question(0.7, 0.4)).toBe(false);
});
test('a rate is a positive decimal number, at most twenty thousand a request', () => {
  const rates = (rate: string, n = 1) =>
    marketRoutes.addRates.body.safeParse({
      base: 'EUR',
      rates: Array.from({ length: n }, () => ({ date: '2026-11-25', currency: 'SEK', rate })),
    }).success;
  expect(rates('11.4310')).toBe(true);
  expect(rates('0')).toBe(false);
  expect(rates('11,4')).toBe(false);
  expect(rates('1e3')).toBe(false);
  expect(rates('11.4310', 20_001)).toBe(false);
});
