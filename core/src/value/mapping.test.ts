import { describe, expect, test } from '@jest/globals';
import { guessMapping, mapRow } from './index.ts';

const header = ['Sold on', 'Hammer', 'Cur', 'House', 'Pattern', 'Shelf mark', 'Buyer premium %'];
const rows = [
  ['30.10.2026', '1.182,50', '€', 'Tollgate Rooms', 'jack', 'A3', '22'],
  ['3.11.2026', '90,00', '£', 'Tollgate Rooms', 'jack', '', ''],
];

describe('lists of prices that others keep', () => {
  test('columns, order of dates and decimal comma are recognised', () => {
    expect(guessMapping(header, rows)).toEqual({
      columns: {
        'Sold on': 'sale_date',
        Hammer: 'price',
        Cur: 'currency',
        House: 'venue',
        Pattern: 'pattern',
        'Buyer premium %': 'buyer_premium_pct',
      },
      dateOrder: 'dmy',
      decimalComma: true,
      fixed: {},
    });
  });
  test('own names come before likenesses, and no column is given twice', () => {
    const { columns } = guessMapping(['price', 'reserve price', 'venue', 'sale_date', 'date listed'], []);
    expect(columns).toEqual({ price: 'price', venue: 'venue', sale_date: 'sale_date' });
  });
  test('a month above twelve in second place tells that the month comes first', () => {
    expect(guessMapping(['date'], [['10/30/2026'], ['3/4/2026']]).dateOrder).toBe('mdy');
    expect(guessMapping(['date'], [['2026-10-30']]).dateOrder).toBe('ymd');
  });
  test('a row comes out in Jutbank’s columns; what no column takes stays under its own name', () => {
    const mapping = { ...guessMapping(header, rows), fixed: { price_kind: 'sold', venue_kind: 'auction' } };
    const cells = Object.fromEntries(header.map((name, i) => [name, rows[0]?.[i] ?? '']));
    expect(mapRow(mapping, cells)).toEqual({
      price_kind: 'sold',
      venue_kind: 'auction',
      sale_date: '2026-10-30',
      price: '1182.50',
      currency: 'EUR',
      venue: 'Tollgate Rooms',
      pattern: 'jack',
      'Shelf mark': 'A3',
      buyer_premium_pct: '22',
    });
  });
  test('what cannot be read is left for the check to name', () => {
    const mapping = {
      columns: { when: 'sale_date' },
      dateOrder: 'dmy' as const,
      decimalComma: false,
      fixed: {},
    };
    expect(mapRow(mapping, { when: 'last spring' })).toEqual({ sale_date: 'last spring' });
  });
});
