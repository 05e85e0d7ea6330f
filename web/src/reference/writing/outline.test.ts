import { describe, expect, test } from '@jest/globals';
import { outlineIn, outlineLines } from './outline.ts';

describe('an outline that is written', () => {
  test('is a point to a line, however its numbers are apart', () => {
    expect(outlineIn(['0 0', ' 12.5, -3 ', '98;4.2'])).toEqual([
      [0, 0],
      [12.5, -3],
      [98, 4.2],
    ]);
  });
  test('stands in its field as it was kept', () => {
    const points: [number, number][] = [
      [0, 0],
      [12.5, -3],
    ];
    expect(outlineIn(outlineLines(points))).toEqual(points);
    expect(outlineLines(null)).toEqual([]);
  });
  test('that cannot be read is told by the check, not lost', () => {
    expect(outlineIn(['0 x', '7'])).toEqual([
      [0, NaN],
      [7, NaN],
    ]);
  });
  test('without a line is none', () => {
    expect(outlineIn([])).toBeUndefined();
    expect(outlineIn(undefined)).toBeUndefined();
  });
});
