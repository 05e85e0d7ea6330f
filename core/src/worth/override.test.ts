import { describe, expect, test } from '@jest/globals';
import { correctedEstimate, type GridLine } from './override.ts';

const rows: GridLine[] = [
  { id: 'a', converted: 100, weight: 0.5, adjustments: [{ name: 'condition', percent: 20 }] },
  { id: 'b', converted: 200, weight: 0.3, adjustments: [{ name: 'time', percent: -10 }] },
  { id: 'no-rate', converted: undefined, weight: 0, adjustments: [] },
];
const rest = { weight: 0.2, adjusted: 150 };

describe('a grid corrected by a person', () => {
  test('without corrections it is the grid’s own figure', () => {
    // by hand: 120^0.5 · 180^0.3 · 150^0.2 = 141.74
    expect(correctedEstimate(rows, rest, [])).toBeCloseTo(120 ** 0.5 * 180 ** 0.3 * 150 ** 0.2, 9);
  });
  test('a corrected line stands in place of the engine’s, a new one beside them', () => {
    expect(correctedEstimate(rows, rest, [{ comparable: 'a', line: 'condition', percent: 0 }])).toBeCloseTo(
      100 ** 0.5 * 180 ** 0.3 * 150 ** 0.2,
      9,
    );
    expect(correctedEstimate(rows, rest, [{ comparable: 'b', line: 'provenance', percent: 10 }])).toBeCloseTo(
      120 ** 0.5 * 198 ** 0.3 * 150 ** 0.2,
      9,
    );
  });
  test('a sale that is left out gives its weight to the others', () => {
    expect(correctedEstimate(rows, rest, [{ comparable: 'a', line: 'sale', percent: null }])).toBeCloseTo(
      (180 ** 0.3 * 150 ** 0.2) ** 2,
      9,
    );
  });
  test('nothing left is no figure', () => {
    expect(
      correctedEstimate(rows.slice(0, 1), { weight: 0, adjusted: 1 }, [
        { comparable: 'a', line: 'sale', percent: null },
      ]),
    ).toBeUndefined();
  });
});
