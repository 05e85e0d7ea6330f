import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { erfc, measureDensity, normalDensity, wornDensity, type MeasureModel } from './density.ts';

const model: MeasureModel = {
  nominal: 76,
  spread: 0.5,
  wear: 'shrinks',
  noise: 0.1,
  outlierShare: 0.02,
  outlierRange: 0.25,
  wornShare: 0.5,
  wearMean: 0.025,
};
const area = (of: (x: number) => number, from: number, to: number, steps = 40_000) => {
  const width = (to - from) / steps;
  let sum = 0;
  for (let i = 0; i < steps; i++) sum += of(from + (i + 0.5) * width) * width;
  return sum;
};

describe('densities of a measured size', () => {
  test('erfc is what the tables say', () => {
    expect(erfc(0)).toBeCloseTo(1, 6);
    expect(erfc(1)).toBeCloseTo(0.157299, 5);
    expect(erfc(-1)).toBeCloseTo(2 - 0.157299, 5);
  });
  test('each holds an area of one', () => {
    expect(area((x) => normalDensity(x, 0.7), -10, 10)).toBeCloseTo(1, 4);
    expect(area((x) => wornDensity(x, 0.5, 1.9), -10, 60)).toBeCloseTo(1, 3);
    expect(area((x) => measureDensity(x, model), 76 * 0.7, 76 * 1.3)).toBeCloseTo(1, 2);
  });
  test('wear goes to one side only', () => {
    expect(measureDensity(73, model)).toBeGreaterThan(10 * measureDensity(79, model));
    expect(measureDensity(79, { ...model, wear: 'grows' })).toBeCloseTo(measureDensity(73, model), 9);
    expect(measureDensity(73, { ...model, wear: 'none' })).toBeCloseTo(
      measureDensity(79, { ...model, wear: 'none' }),
      12,
    );
  });
  test('nothing is impossible', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 1, max: 500, noNaN: true }),
        fc.constantFrom('none' as const, 'shrinks' as const, 'grows' as const),
        (x, wear) => expect(measureDensity(x, { ...model, wear })).toBeGreaterThan(0),
      ),
    );
  });
});
