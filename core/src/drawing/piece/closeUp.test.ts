import { describe, expect, test } from '@jest/globals';
import { CONSTRUCTIONS, type Construction } from '../../reference/index.ts';
import { closeUp } from './closeUp.ts';
import { drawPiece, insetOf } from './draw.ts';
import { recipeOfRecords } from './records.ts';

const ASPECT = 56 / 30;
const drawn = (construction: Construction) =>
  drawPiece(recipeOfRecords({ pattern: { name: 'Piece', construction }, features: [] }), 'open');

describe('a part from near', () => {
  test.each(CONSTRUCTIONS)(
    'is the blade of a %s, whole in its height, in the form that was asked',
    (construction) => {
      const drawing = drawn(construction);
      const near = closeUp(drawing, 'blade:1', ASPECT);
      const [blade] = near?.parts ?? [];
      expect(blade?.part).toMatch(/^blade/);
      expect(near && near.widthMm / near.heightMm).toBeCloseTo(ASPECT);
      expect(near && near.top).toBeLessThan(blade?.box.top ?? -Infinity);
      expect(near && near.top + near.heightMm).toBeGreaterThan(blade?.box.bottom ?? Infinity);
      // looked at where its middle is
      const { left = 0, right = 0 } = blade?.box ?? {};
      expect(near && near.left + near.widthMm / 2).toBeCloseTo((left + right) / 2);
    },
  );
  test('shows the blade on which an edge, a tip or a finish is found', () => {
    const drawing = drawn('fixed');
    const names = (part: string) => closeUp(drawing, part, ASPECT)?.parts.map((p) => p.part);
    expect(names('edge:1')).toEqual(names('blade:1'));
    expect(names('finish')).toEqual(names('blade:1'));
  });
  test('clips by its own surface, and by no other part’s', () => {
    const drawing = drawn('slipjoint');
    const areas = (part: string) =>
      drawing.parts
        .filter((p) => p.part === part)
        .flatMap((p) => p.shapes.flatMap((s) => (s.kind === 'area' ? [s.d] : [])));
    expect(closeUp(drawing, 'scales', ASPECT)?.surface).toBe(areas('scales').join(''));
  });
  test('is none where the part is not drawn', () => {
    expect(closeUp(drawn('fixed'), 'package', ASPECT)).toBeUndefined();
  });
});

describe('an inset', () => {
  const knife = (styles: Readonly<Record<string, string>>) =>
    drawPiece(
      recipeOfRecords({
        pattern: {
          name: 'Piece',
          construction: 'slipjoint',
          drawing: { styles: { shield: 'none', ...styles } },
        },
        features: [],
      }),
      'mark-side',
    );
  const plain = knife({});
  test('frames the small part that one has and the other has not, on both', () => {
    const barred = knife({ shield: 'bar' });
    const frame = insetOf([plain, barred]);
    const box = barred.parts.find((p) => p.part === 'shield')?.box;
    expect(frame?.left).toBeCloseTo((box?.left ?? NaN) - 1.5);
    expect(frame && frame.left + frame.widthMm).toBeCloseTo((box?.right ?? NaN) + 1.5);
    expect(insetOf([barred, plain])).toEqual(frame);
  });
  test('is not needed where all is alike, or where a large part differs too', () => {
    expect(insetOf([plain, knife({})])).toBeUndefined();
    expect(insetOf([plain, knife({ shield: 'bar', scales: 'stag' })])).toBeUndefined();
  });
});
