import { describe, expect, test } from '@jest/globals';
import { CONSTRUCTIONS } from '../reference/index.ts';
import { besideTheirLike, stampsOfOneText } from './stamp.ts';
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

describe('stamps that read the same', () => {
  const upright = { id: 'a', lines: ['BECK', 'HALLOW'], lettering: 'upright', place: 'front tang' };
  const slanted = { id: 'b', lines: ['Beck', 'Hallow'], lettering: 'slanted', place: 'front tang' };
  const other = { id: 'c', lines: ['TARNWICK'], place: 'front tang' };
  const dotted = { ...upright, id: 'd', codes: ['dots'] };
  const titles = (code: string) => (code === 'dots' ? 'Year dots' : undefined);

  test('stand side by side, whatever stands between them in the reference', () => {
    expect(besideTheirLike([upright, other, slanted]).map((m) => m.id)).toEqual(['a', 'b', 'c']);
  });
  test('are told apart by what can be seen, each with what it shows', () => {
    expect(stampsOfOneText([upright, other, slanted], titles)).toEqual([
      {
        lines: ['BECK', 'HALLOW'],
        marks: ['a', 'b'],
        by: [{ what: 'lettering', shown: ['upright', 'slanted'] }],
      },
    ]);
    expect(stampsOfOneText([upright, dotted], titles)[0]?.by).toEqual([
      { what: 'signs', shown: ['no signs', 'Year dots'] },
    ]);
  });
  test('where nothing visible differs, that is said too', () => {
    expect(stampsOfOneText([upright, { ...upright, id: 'e' }], titles)[0]?.by).toEqual([]);
    expect(stampsOfOneText([upright, other], titles)).toEqual([]);
  });
});
