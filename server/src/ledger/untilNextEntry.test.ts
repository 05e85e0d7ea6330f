import { beforeEach, expect, test } from '@jest/globals';
import type { Queries } from '../db/index.ts';
import { untilNextEntry } from './untilNextEntry.ts';

let seq = 0;
let reckoned = 0;
const row: Queries['row'] = <T extends object>() => Promise.resolve({ seq } as T);
const never = () => Promise.reject(new Error('not asked'));
const db: Queries = { row, rows: never, run: never, insertMany: never };
const reckon = () => Promise.resolve((reckoned += 1));
beforeEach(() => {
  seq = 1;
  reckoned = 0;
});

test('what is asked twice is reckoned once, and again after the next entry', async () => {
  const kept = untilNextEntry<number>(db);
  expect([await kept('sums', reckon), await kept('sums', reckon)]).toEqual([1, 1]);
  seq = 2;
  expect([await kept('sums', reckon), await kept('sums', reckon)]).toEqual([2, 2]);
});

test('different questions have answers of their own', async () => {
  const kept = untilNextEntry<number>(db);
  expect([await kept('a', reckon), await kept('b', reckon), await kept('a', reckon)]).toEqual([1, 2, 1]);
});

test('several who ask at once wait for one reckoning', async () => {
  const kept = untilNextEntry<number>(db);
  expect(await Promise.all([kept('a', reckon), kept('a', reckon), kept('a', reckon)])).toEqual([1, 1, 1]);
});

test('what failed is asked again', async () => {
  const kept = untilNextEntry<number>(db);
  await expect(kept('a', () => Promise.reject(new Error('away')))).rejects.toThrow('away');
  expect(await kept('a', reckon)).toBe(1);
});
