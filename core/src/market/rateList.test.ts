import { expect, test } from '@jest/globals';
import { readRateList } from './rateList.ts';

const rows = (...lines: string[][]) => lines.map((cells, i) => ({ line: i + 2, cells }));
const TODAY = '2026-11-25';

test('a row a rate, whatever the order of its columns', () => {
  const read = readRateList(
    ['currency', 'rate', 'date', 'remark'],
    rows(['sek', '11.4310', '2026-10-30', 'x'], ['GBP', '0.86', '2026-10-30', '']),
    false,
    TODAY,
  );
  expect(read).toEqual({
    rates: [
      { date: '2026-10-30', currency: 'SEK', rate: '11.4310' },
      { date: '2026-10-30', currency: 'GBP', rate: '0.86' },
    ],
    errors: [],
  });
});
test('a row a day: holidays are passed over, a decimal comma is read where it may stand', () => {
  const read = readRateList(
    ['Date', 'SEK', 'GBP', 'Comment'],
    rows(['2026-10-30', '11,431', 'N/A', ''], ['2026-10-31', '', '0,86', '']),
    true,
    TODAY,
  );
  expect(read?.rates.map((r) => [r.date, r.currency, r.rate])).toEqual([
    ['2026-10-30', 'SEK', '11.431'],
    ['2026-10-31', 'GBP', '0.86'],
  ]);
});
test('each error at its line and column; the good rows stay', () => {
  const read = readRateList(
    ['date', 'currency', 'rate'],
    rows(
      ['2026-02-30', 'SEK', '11'],
      ['2026-10-32', 'SEK', '11'],
      ['2027-01-01', 'SEK', '11'],
      ['2026-01-05', 'SEKK', '11'],
      ['2026-01-05', 'SEK', '0'],
      ['2026-01-05', 'SEK', '11,2'],
      ['2026-01-06', 'SEK', '11.2'],
    ),
    false,
    TODAY,
  );
  expect(read?.rates).toHaveLength(1);
  expect(read?.errors.map((e) => [e.line, e.column])).toEqual([
    [2, 'date'],
    [3, 'date'],
    [4, 'date'],
    [5, 'currency'],
    [6, 'rate'],
    [7, 'rate'],
  ]);
});
test('a header that names no rate is refused whole', () => {
  expect(readRateList(['when', 'what'], [], false, TODAY)).toBeUndefined();
  expect(readRateList(['date', 'rate'], [], false, TODAY)).toBeUndefined();
});
