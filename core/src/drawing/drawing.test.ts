import { expect, test } from '@jest/globals';
import { CONSTRUCTIONS } from '../reference/index.ts';
import { drawOutline, OUTLINE_BOX } from './index.ts';

test.each(CONSTRUCTIONS)('a %s has an outline, inside its box, with no shape twice', (construction) => {
  const shapes = drawOutline(construction);
  expect(shapes.length).toBeGreaterThan(3);
  expect(new Set(shapes.map((s) => s.d)).size).toBe(shapes.length);
  for (const { d } of shapes)
    for (const [, x, y] of d.matchAll(/[ML](-?[\d.]+)[ ,](-?[\d.]+)/g)) {
      expect(Number(x)).toBeGreaterThanOrEqual(0);
      expect(Number(x)).toBeLessThanOrEqual(OUTLINE_BOX.width);
      expect(Number(y)).toBeGreaterThanOrEqual(0);
      expect(Number(y)).toBeLessThanOrEqual(OUTLINE_BOX.height);
    }
});

test('what tells two forms apart is drawn', () => {
  const shapes = (traits: Parameters<typeof drawOutline>[1]) => drawOutline('slipjoint', traits).length;
  expect(shapes({ lanyard: 'ring' })).toBe(shapes({}) + 1);
  expect(shapes({ lanyard: 'bar', bolster: 'grooved' })).toBe(shapes({}) + 2);
});
