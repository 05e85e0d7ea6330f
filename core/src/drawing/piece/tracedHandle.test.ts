import { describe, expect, test } from '@jest/globals';
import { flattened } from '../geometry/path.ts';
import type { Pattern } from '../../reference/index.ts';
import { handleOf } from './handles.ts';
import { drawPiece } from './draw.ts';
import { recipeOfRecords } from './records.ts';
import { isOutline, tracedHandle, tracedHeight, type Outline } from './tracedHandle.ts';
import { stylesOf } from './vocabulary.ts';

const LENGTH = 98;
const recipe = (handle: NonNullable<Pattern['drawing']>['handle'], construction: Pattern['construction']) =>
  recipeOfRecords({
    pattern: {
      name: 'Jack',
      construction,
      measures: { closed: { value: LENGTH, tolerance: 1 } },
      drawing: { handle },
    },
    features: [{ id: 'closed', label: 'Closed length', part: 'frame', kind: 'measure', unit: 'mm' }],
  });
/** As a caliper and a photograph would tell it: points all round, in whatever millimetres the picture has. */
const traced = (profile: string, construction: Pattern['construction'], scale = 1): Outline =>
  flattened(handleOf(recipe({ profile }, construction), 'equal-end').region(), 8).map(
    ([x, y]): [number, number] => [12 + x * scale, 40 + y * scale],
  );

describe.each(['slipjoint', 'locking-folder'] as const)('an outline taken off a %s', (construction) => {
  test.each(stylesOf('profile', construction))('of %s profile is drawn as it was', (profile) => {
    const was = handleOf(recipe({ profile }, construction), 'equal-end');
    const is = tracedHandle(traced(profile, construction), LENGTH, false);
    const places = Array.from({ length: 49 }, (_, i) => ((i + 1) * LENGTH) / 50);
    // a profile need not stand in the middle of its height, an outline is put there
    const middle =
      (Math.min(...places.map((x) => was.top(x))) + Math.max(...places.map((x) => was.bottom(x)))) / 2;
    const off = places.map((x) =>
      Math.max(Math.abs(was.top(x) - middle - is.top(x)), Math.abs(was.bottom(x) - middle - is.bottom(x))),
    );
    expect(Math.max(...off.slice(5, -5))).toBeLessThan(0.35);
    expect(Math.max(...off)).toBeLessThan(1);
  });
});

describe('a handle with an outline of its own', () => {
  const outline = traced('serpentine', 'slipjoint', 1.7).map(([x, y]): [number, number] => [x, y]);
  test('is as long as it is recorded, whatever the picture’s scale, and as high as the outline makes it', () => {
    const own = recipe({ outline }, 'slipjoint');
    const drawing = drawPiece({ ...own, blades: [] }, 'mark-side');
    expect(drawing.widthMm).toBeCloseTo(LENGTH, 0);
    expect(own.handleHeight).toBeCloseTo(tracedHeight(outline, LENGTH));
  });
  test('is shown turned about where a locking folder is', () => {
    const [left, right] = [tracedHandle(outline, LENGTH, false), tracedHandle(outline, LENGTH, true)];
    expect(right.top(20)).toBeCloseTo(left.top(LENGTH - 20), 1);
  });
  test('keeps its profile while the outline is only half written', () => {
    for (const half of [
      [],
      [[0, 0]],
      [
        [0, 0],
        [90, NaN],
        [40, 12],
      ],
      [
        [5, 1],
        [5, 2],
        [5, 3],
      ],
    ] as [number, number][][]) {
      expect(isOutline(half)).toBe(false);
      expect(recipe({ profile: 'canoe', outline: half }, 'slipjoint').handleOutline).toBeUndefined();
    }
  });
});
