import { expect, test } from '@jest/globals';
import { changedCell } from './nearSame.ts';

const sale = {
  sale_date: '2026-10-30',
  price: '182.5',
  currency: 'EUR',
  price_kind: 'sold',
  venue: 'Tollgate Rooms',
  venue_kind: 'auction',
  pattern: 'harbour-jack',
  variant: 'hj-first',
  condition_index: '78',
};

test('one cell that differs, is missing or new is told', () => {
  expect(changedCell(sale, { ...sale, venue: 'Tollgate' })).toBe('venue');
  expect(changedCell(sale, { ...sale, price: '128.5' })).toBe('price');
  expect(changedCell(sale, { ...sale, note: 'lot 12' })).toBe('note');
  const { variant: _, ...untold } = sale;
  expect(changedCell(untold, sale)).toBe('variant');
});
test('the same, and what differs in two cells, are not near', () => {
  expect(changedCell(sale, { ...sale })).toBeUndefined();
  expect(changedCell(sale, { ...sale, price: '128.5', variant: 'hj-second' })).toBeUndefined();
});
test('where little is told, another price on the same day is another sale', () => {
  const { venue: _, variant: __, condition_index: ___, ...bare } = sale;
  expect(changedCell(bare, { ...bare, price: '90' })).toBeUndefined();
  expect(changedCell(bare, { ...bare, price_kind: 'asking' })).toBe('price_kind');
});
test('how a word stood in the list does not matter', () => {
  expect(changedCell({ ...sale, 'grade as listed': 'gut' }, { ...sale, note: 'lot 12' })).toBe('note');
});
