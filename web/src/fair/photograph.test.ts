import { expect, test } from '@jest/globals';
import { fitted } from './photograph.ts';

test('the longest side is brought within bounds, its shape kept', () => {
  expect(fitted(3600, 2400)).toEqual({ width: 1800, height: 1200 });
  expect(fitted(2400, 3600)).toEqual({ width: 1200, height: 1800 });
});
test('a small picture stays as it is', () => {
  expect(fitted(640, 480)).toEqual({ width: 640, height: 480 });
});
test('however narrow, there is a pixel of it', () => {
  expect(fitted(1, 100_000)).toEqual({ width: 1, height: 1800 });
});
