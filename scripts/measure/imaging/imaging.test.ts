import { expect, test } from '@jest/globals';
import { random } from '@jutbank/core/random';
import { measureDrawn } from './measured.ts';

const view = {
  width: 800,
  height: 420,
  away: 420,
  pixelsPerMm: 7,
  tilt: 0,
  turned: 9,
  noise: 6,
  uneven: 0.25,
  ground: [228, 224, 214],
  steel: [146, 150, 154],
} as const;
const size = { shape: 'clip', length: 74, height: 17 } as const;

test('a drawn blade is measured within the tolerances, noise, uneven light and all', () => {
  const errors = measureDrawn(size, { tip: 2.5, edge: 1.2, spine: 0 }, view, 'rule', random(5));
  expect(Math.abs(errors?.length ?? 99)).toBeLessThan(0.5);
  expect(Math.abs(errors?.loss ?? 99)).toBeLessThan(1.5);
});
test('and tilted by ten degrees, by the corners of a card', () => {
  const tilted = { ...view, height: 760, tilt: 10 };
  const errors = measureDrawn(size, { tip: 1, edge: 2, spine: 0 }, tilted, 'card', random(6));
  expect(Math.abs(errors?.length ?? 99)).toBeLessThan(0.5);
  expect(Math.abs(errors?.loss ?? 99)).toBeLessThan(1.5);
});
