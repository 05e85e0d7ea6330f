import { describe, expect, test } from '@jest/globals';
import { commaIsDecimal, dateIn, indexIn, numberIn } from './cells.ts';

describe('dates', () => {
  test.each([
    ['dmy', '30.10.2026', '2026-10-30'],
    ['dmy', '3/4/26', '2026-04-03'],
    ['mdy', '3/4/98', '1998-03-04'],
    ['dmy', '2026-10-30', '2026-10-30'],
    ['ymd', '2026-10', '2026-10'],
    ['dmy', '10/2026', '2026-10'],
    ['dmy', '30.10.2026 14:05', '2026-10-30'],
    ['ymd', '2026-10-30T14:05:00Z', '2026-10-30'],
    ['dmy', '30. Oktober 2026', '2026-10-30'],
    ['dmy', '1er février 2025', '2025-02-01'],
    ['dmy', 'Oct 30th, 2026', '2026-10-30'],
    ['dmy', '7 maj 2024', '2024-05-07'],
    ['dmy', 'Dezember 2023', '2023-12'],
    ['dmy', '12-déc-24', '2024-12-12'],
  ] as const)('in the order %s, %s is %s', (order, cell, day) => expect(dateIn(order, cell)).toBe(day));
  test.each(['last spring', 'jui 2025', 'Oct Nov 2025', 'lot 12 of 1998', '', 'March'])(
    '“%s” is left for the check to name',
    (cell) => expect(dateIn('dmy', cell)).toBe(cell),
  );
});

describe('numbers', () => {
  test.each([
    [true, '1.182,50 €', '1182.50'],
    [true, '1 182,50', '1182.50'],
    [true, '1 182 kr', '1182'],
    [true, '1200:50', '1200.50'],
    [true, '1.200,–', '1200'],
    [false, '$1,182.50', '1182.50'],
    [false, "CHF 1'182.50", '1182.50'],
    [false, 'US$ 90', '90'],
    [false, '22 %', '22'],
  ])('with a decimal comma: %s, %s is %s', (comma, cell, number) =>
    expect(numberIn(comma, cell)).toBe(number),
  );
  test.each([
    [false, '182,50'],
    [true, '182.50'],
    [false, 'two at 120 each'],
    [false, '120-150'],
    [false, '2 x 120'],
    [false, 'ca. 120 or less'],
    [false, '-120'],
  ])('with a decimal comma: %s, “%s” could be read in two ways and is left', (comma, cell) =>
    expect(numberIn(comma, cell)).toBe(cell),
  );
  test('the comma is decimal where more cells say so than not', () => {
    expect(commaIsDecimal(['1.182,50', '90'])).toBe(true);
    expect(commaIsDecimal(['1.200', '950'])).toBe(true);
    expect(commaIsDecimal(['1,200', '950.50'])).toBe(false);
    expect(commaIsDecimal(['1200', '950'])).toBe(false);
  });
  test('points of ten or of a hundred are points of a hundred', () => {
    expect([
      indexIn(false, '8/10'),
      indexIn(false, '85 %'),
      indexIn(true, '4,5/5'),
      indexIn(false, '3/0'),
    ]).toEqual(['80', '85', '90', '3/0']);
  });
});
