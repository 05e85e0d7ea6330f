import { describe, expect, test } from '@jest/globals';
import { CONSTRUCTIONS, type Construction } from '../../reference/index.ts';
import {
  bladesThatDoNotFold,
  cardView,
  differingParts,
  drawPiece,
  drawsOn,
  SLOT_NAMES,
  SLOTS,
  stylesOf,
  USUAL,
  VIEWS,
  viewsThatDiffer,
  type BladeRecipe,
  type Drawing,
  type DrawingRecipe,
  type SlotName,
} from './index.ts';

const blade = (more: Partial<BladeRecipe> = {}): BladeRecipe => ({
  role: 'master',
  end: 'front',
  form: 'spear',
  length: 76,
  layer: 0,
  state: 'recorded',
  ...more,
});
const SIZE: Record<Construction, [length: number, height: number, blade: number]> = {
  slipjoint: [104.8, 17, 76],
  'locking-folder': [114, 28, 84],
  automatic: [115, 21, 88],
  balisong: [125, 30, 100],
  fixed: [112, 27, 118],
  bayonet: [125, 27, 203],
  'multi-tool': [91, 21, 66],
};
function recipe(
  construction: Construction,
  styles: Record<string, string> = {},
  more: Partial<DrawingRecipe> = {},
): DrawingRecipe {
  const [handleLength, handleHeight, length] = SIZE[construction];
  const folder = construction === 'slipjoint';
  const second = blade({ role: 'pen', form: 'pen', length: length * 0.72, layer: 1 });
  return {
    name: 'A piece',
    construction,
    styles: { ...USUAL[construction], ...styles },
    known: Object.fromEntries(SLOT_NAMES.map((slot) => [slot, 'recorded'])),
    handleLength,
    handleHeight,
    handleState: 'recorded',
    blades: folder
      ? [blade({ length }), second]
      : [blade({ length, form: construction === 'bayonet' ? 'bayonet' : 'spear' })],
    ...more,
  };
}
const boxOfPart = (drawing: Drawing, part: string) => {
  const found = drawing.parts.find((p) => p.part === part);
  if (!found) throw new Error(`no ${part} is drawn`);
  return found.box;
};
/** A style that is not the usual one, so that the part it is on is there. */
const there: Record<string, string> = {
  lanyard: 'ring',
  scabbard: 'steel',
  sheath: 'plain',
  clip: 'spring',
  'bolster-set': 'both',
};
const belongs = (part: string, slot: SlotName) =>
  SLOTS[slot].parts.some((p) => part === p || part.startsWith(`${p}:`) || part.startsWith(p));

const cases = CONSTRUCTIONS.flatMap((construction) =>
  SLOT_NAMES.filter((slot) => drawsOn(slot, construction) && slot !== 'blade-form').map((slot) => ({
    construction,
    slot,
  })),
);
test.each(cases)('$slot of a $construction changes its own part and no other', ({ construction, slot }) => {
  const drawn = stylesOf(slot, construction).map((style) =>
    recipe(construction, { ...there, [slot]: style }),
  );
  for (const [i, one] of drawn.entries())
    for (const other of drawn.slice(i + 1)) {
      const parts = VIEWS.flatMap((view) => differingParts([drawPiece(one, view), drawPiece(other, view)]));
      expect(parts.filter((part) => !belongs(part, slot))).toEqual([]);
      expect(`${one.styles[slot]} and ${other.styles[slot]} differ: ${parts.length > 0}`).toMatch(/true$/);
    }
});

describe.each(CONSTRUCTIONS)('a %s', (construction) => {
  test.each(VIEWS)(
    '%s: every part lies in the drawing’s box, in one order, light enough for a card',
    (view) => {
      const drawing = drawPiece(recipe(construction, there), view);
      expect(drawing.parts.length).toBeGreaterThan(1);
      for (const { box, shapes, anchor } of drawing.parts) {
        expect(box.left).toBeGreaterThanOrEqual(drawing.left - 1e-9);
        expect(box.top).toBeGreaterThanOrEqual(drawing.top - 1e-9);
        expect(box.right).toBeLessThanOrEqual(drawing.left + drawing.widthMm + 1e-9);
        expect(box.bottom).toBeLessThanOrEqual(drawing.top + drawing.heightMm + 1e-9);
        expect(Number.isFinite(anchor.x + anchor.y)).toBe(true);
        for (const shape of shapes)
          if (shape.kind !== 'letters') expect(shape.d).not.toMatch(/NaN|undefined|Infinity/);
      }
      const again = drawPiece(recipe(construction, there), view);
      expect(again).toEqual(drawing);
    },
  );
  test('a card has no more than sixty nodes and eight thousand letters of path', () => {
    for (const texture of stylesOf('scales')) {
      const slot = construction === 'fixed' || construction === 'bayonet' ? 'grip' : 'scales';
      const drawing = drawPiece(
        recipe(construction, { ...there, [slot]: texture }),
        cardView({ construction }),
      );
      const shapes = drawing.parts.flatMap((p) => p.shapes.filter((s) => s.from <= 2));
      expect(shapes.length + drawing.parts.length).toBeLessThanOrEqual(60);
      const written = shapes.reduce((n, s) => n + (s.kind === 'letters' ? 0 : s.d.length), 0);
      expect(`${texture} ${written < 8192 ? 'fits' : written}`).toBe(`${texture} fits`);
    }
  });
});

describe('measures move geometry', () => {
  const handle = (drawing: ReturnType<typeof drawPiece>) => {
    const boxes = drawing.parts.filter((p) => /^(scales|bolster)/.test(p.part)).map((p) => p.box);
    return Math.max(...boxes.map((b) => b.right)) - Math.min(...boxes.map((b) => b.left));
  };
  test.each([98, 104.8, 105, 111.3])('a closed length of %d mm is drawn so', (length) => {
    expect(handle(drawPiece(recipe('slipjoint', {}, { handleLength: length }), 'mark-side'))).toBeCloseTo(
      length,
      1,
    );
    expect(handle(drawPiece(recipe('locking-folder', {}, { handleLength: length }), 'open'))).toBeCloseTo(
      length,
      1,
    );
  });
  test.each(['slipjoint', 'locking-folder', 'fixed', 'bayonet'] as const)(
    'a blade of a %s is as long as recorded',
    (construction) => {
      const drawing = drawPiece(recipe(construction), 'open');
      const box = boxOfPart(drawing, 'blade:1');
      const length = construction === 'slipjoint' ? box.right - SIZE.slipjoint[0] : -box.left;
      expect(length).toBeCloseTo(SIZE[construction][2], 1);
    },
  );
  test('wear is drawn: the lost part of the outline stands beside what is left', () => {
    const drawing = drawPiece(recipe('slipjoint', {}, { blades: [blade({ fullness: 0.88 })] }), 'open');
    expect(drawing.parts.map((p) => p.part)).toContain('blade:1:lost');
    expect(drawPiece(recipe('slipjoint'), 'open').parts.map((p) => p.part)).not.toContain('blade:1:lost');
  });
});

describe('blades fold', () => {
  test('one whose height is not recorded is drawn as high as folds, whatever the profile', () => {
    for (const profile of stylesOf('profile')) {
      const closed = drawPiece(recipe('slipjoint', { profile }), 'mark-side');
      expect(boxOfPart(closed, 'blade:1').bottom).toBeLessThan(boxOfPart(closed, 'scales').bottom);
    }
  });
  test('a blade that locks lies under the handle’s back when it is shut', () => {
    for (const profile of ['swayback', 'straight', 'equal-end', 'swell-end'])
      for (const form of ['sheepfoot', 'drop', 'clip'] as const) {
        const shut = drawPiece(
          recipe('locking-folder', { profile }, { blades: [blade({ length: 84, form })] }),
          'mark-side',
        );
        expect(boxOfPart(shut, 'blade:1').top).toBeGreaterThan(boxOfPart(shut, 'scales').top);
        expect(boxOfPart(shut, 'blade:1').right).toBeLessThan(boxOfPart(shut, 'scales').right);
      }
  });
  test('a recorded height that would strike the spring is named', () => {
    expect(bladesThatDoNotFold(recipe('slipjoint', {}, { blades: [blade({ height: 12 })] }))).toEqual([]);
    expect(bladesThatDoNotFold(recipe('slipjoint', {}, { blades: [blade({ height: 19 })] }))).toHaveLength(1);
  });
});

describe('stamps', () => {
  const stamped = (more: object) =>
    recipe('slipjoint', {}, { stamp: { lines: ['BECK', 'HALLOW'], lettering: 'upright', ...more } });
  test('that differ in lettering, signs or their place never look alike', () => {
    const all = [
      stamped({}),
      stamped({ lettering: 'slanted' }),
      stamped({ lettering: 'arched' }),
      stamped({ lettering: 'script' }),
      stamped({ painted: true }),
      stamped({ framed: true }),
      ...(['above', 'below', 'beside', 'before', 'after', 'arc'] as const).map((where) =>
        stamped({ signs: { count: 5, form: 'tick', where } }),
      ),
      ...(['dot', 'ring', 'star', 'cross', 'diamond'] as const).map((form) =>
        stamped({ signs: { count: 5, form, where: 'above' } }),
      ),
      stamped({ signs: { count: 6, form: 'tick', where: 'above' } }),
    ].map((r) => drawPiece(r, 'tang'));
    for (const [i, one] of all.entries())
      for (const other of all.slice(i + 1)) expect(differingParts([one, other])).toEqual(['mark']);
  });
  test('on a turned blade the letters still read from the left', () => {
    const letters = drawPiece(stamped({}), 'open')
      .parts.flatMap((p) => p.shapes)
      .filter((s) => s.kind === 'letters');
    expect(letters.map((s) => s.text)).toEqual(['BECK', 'HALLOW']);
    for (const s of letters) expect(Math.abs(s.angle)).toBeLessThanOrEqual(91);
    const fixed = drawPiece(
      { ...recipe('fixed'), stamp: { lines: ['BECK', 'HALLOW'], lettering: 'upright' } },
      'open',
    );
    const [first, second] = fixed.parts.flatMap((p) => p.shapes).filter((s) => s.kind === 'letters');
    expect([first?.text, second?.text]).toEqual(['BECK', 'HALLOW']);
    expect(first?.y ?? 0).toBeLessThan(second?.y ?? 0);
  });
});

test('which views show a difference', () => {
  const views = (a: Record<string, string>, b: Record<string, string>) =>
    viewsThatDiffer([recipe('locking-folder', a), recipe('locking-folder', b)]);
  expect(views({ scales: 'carbon' }, { scales: 'layered' })).toEqual(['open']);
  expect(views({ clip: 'deep' }, { clip: 'spring' })).toEqual(['pile-side']);
  expect(views({}, {})).toEqual([]);
});
test('a drawing says what it shows', () => {
  const drawing = drawPiece(
    recipe('slipjoint', { bolster: 'grooved', scales: 'horn', lanyard: 'bar' }, { name: 'Harbour jack' }),
    'mark-side',
  );
  expect(drawing.name).toBe(
    'Harbour jack: two blades, grooved bolsters, horn scales, no shield, bar, satin blade',
  );
});
