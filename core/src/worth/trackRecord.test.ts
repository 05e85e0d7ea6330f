import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import {
  calibrationOf,
  HEARD_FROM,
  houseCalibration,
  rangesHeld,
  shareOf,
  type SoldAfter,
} from './trackRecord.ts';

const sold = (price: number, more: Partial<SoldAfter> = {}): SoldAfter => ({
  low: 80,
  figure: 100,
  high: 130,
  concluded: 110,
  price,
  ...more,
});

describe('what was said against what it then sold for', () => {
  test('how many lay inside, and by how much the middle one was off', () => {
    expect(rangesHeld([sold(90), sold(120), sold(131), sold(80)])).toMatchObject({
      held: 3,
      of: 4,
      share: 0.75,
      ofFigure: 1.05,
    });
    expect(rangesHeld([sold(99)]).ofConcluded).toBeCloseTo(0.9, 12);
  });
  test('a share of few may lie anywhere, one of many hardly', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 30 }), fc.integer({ min: 1, max: 30 }), (a, b) => {
        const [held, of] = [Math.min(a, b), b];
        const one = shareOf(held, of);
        const many = shareOf(held * 20, of * 20);
        expect(one.low).toBeLessThanOrEqual(one.share + 0.02);
        expect(one.high).toBeGreaterThanOrEqual(one.share - 0.02);
        expect(many.high - many.low).toBeLessThan(one.high - one.low);
      }),
    );
    const eight = shareOf(8, 10);
    expect(eight.low).toBeGreaterThan(0.55);
    expect(eight.high).toBeLessThan(0.93);
  });
});

test('probabilities by bands, each with how often it was so', () => {
  const told = [
    { probability: 0.97, was: true },
    { probability: 1, was: true },
    { probability: 0.6, was: true },
    { probability: 0.7, was: false },
  ];
  expect(
    calibrationOf(told).map(({ from, to, held, of, stated }) => [
      from,
      to,
      held,
      of,
      Number(stated.toFixed(4)),
    ]),
  ).toEqual([
    [0.5, 0.8, 1, 2, 0.65],
    [0.95, 1, 2, 2, 0.985],
  ]);
  expect(calibrationOf([])).toEqual([]);
});

describe('how wide ranges are to be by the house’s own sales', () => {
  const hold = { share: 0.8, houseHold: 120 };
  /** one after another 1 %, 2 % … of the half-range off, up and down by turns */
  const off = (n: number, most: number, stretch = 1) =>
    Array.from({ length: n }, (_, i) => {
      const times = (most * (i + 1)) / n;
      const half = Math.log(1.25) * stretch;
      return {
        figure: 100,
        low: 100 / Math.exp(half),
        high: 100 * Math.exp(half),
        price: 100 * Math.exp((i % 2 === 0 ? 1 : -1) * times * Math.log(1.25)),
        stretch,
      };
    });
  test('a few say nothing', () => expect(houseCalibration(off(HEARD_FROM - 1, 2), hold)).toBeUndefined());
  test('sales that lie closer make them narrower, sales that lie farther wider, and the more the more', () => {
    const [near, far, farther] = [off(60, 0.8), off(60, 2), off(600, 2)].map(
      (cases) => houseCalibration(cases, hold)?.stretch ?? NaN,
    );
    expect(near).toBeLessThan(0.95);
    expect(far).toBeGreaterThan(1.1);
    expect(farther).toBeGreaterThan(far ?? NaN);
    expect(farther).toBeLessThan(1.6);
  });
  test('what held is what is left alone: eight of ten within', () =>
    expect(houseCalibration(off(400, 1.25), hold)?.stretch).toBeCloseTo(1, 2));
  test('ranges that were stated wider already are measured against what the market alone said', () =>
    expect(houseCalibration(off(200, 2, 1.3), hold)?.stretch).toBeCloseTo(
      houseCalibration(off(200, 2), hold)?.stretch ?? NaN,
      9,
    ));
});
