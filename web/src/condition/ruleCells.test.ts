import { describe, expect, test } from '@jest/globals';
import { pointsOf } from './RuleCells.tsx';

describe('pairs of a measure and a share, as typed', () => {
  test('are read with point or comma, parted by a dot or a semicolon', () => {
    expect(pointsOf('0: 0 · 5: 0.02 · 30: 0.1')).toEqual([
      [0, 0],
      [5, 0.02],
      [30, 0.1],
    ]);
    expect(pointsOf('0:0; 2,5 : 0,03')).toEqual([
      [0, 0],
      [2.5, 0.03],
    ]);
  });
  test('count only when all of them can be read', () => {
    for (const text of ['', '5', '5:', '5: 0.1 · x: 1', '1: 2: 3', '0: 0 ·'])
      expect(pointsOf(text)).toBeUndefined();
  });
});
