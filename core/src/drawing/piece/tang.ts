/** A tang close up: the ricasso of a folder beyond its bolster, or of a straight knife beyond its guard, with its stamp. */
import { closed, joined, polygon, polyline, smooth, type Knot } from '../geometry/path.ts';
import { random } from '../../random/index.ts';
import type { PartState, StampRecipe } from './recipe.ts';
import { Sheet, type Drawing } from './sheet.ts';
import { drawStamp, propertyMark } from './stamp.ts';
import { seedOf } from './texture.ts';
import type { StyleOf } from './vocabulary.ts';

const WIDTH = 26;
const HEIGHT = 13.5;

export function drawTangOn(
  sheet: Sheet,
  stamp: StampRecipe | undefined,
  state: PartState,
  property: StyleOf<'property-mark'> = 'none',
  propertyState: PartState = state,
): void {
  const longest = Math.max(6, ...(stamp?.lines ?? []).map((line) => [...line].length));
  const lines = stamp?.lines.length ?? 1;
  const around = stamp?.signs
    ? stamp.signs.where === 'above' || stamp.signs.where === 'below' || stamp.signs.where === 'arc'
      ? 1.3
      : 0
    : 0;
  const size = Math.min(2.6, 15.5 / (longest * 0.62), (HEIGHT - 2.4) / ((lines + around) * 1.25));
  const back: Knot[] = [
    [WIDTH - 7, 0, 'corner'],
    [WIDTH - 5.6, -0.1],
    [WIDTH - 5.2, -0.75],
    [WIDTH - 4.3, -0.75],
    [WIDTH - 3.9, -0.1],
    [WIDTH - 3.2, 0.5],
    [WIDTH - 2.8, 1.4],
    [WIDTH - 2.1, 1.4],
    [WIDTH - 1.5, 0.5, 'corner'],
    [WIDTH + 7, 0.5, 'corner'],
  ];
  const broken: Knot[] = [
    [WIDTH + 7, 0.5, 'corner'],
    [WIDTH + 7.9, HEIGHT * 0.2],
    [WIDTH + 6.4, HEIGHT * 0.42],
    [WIDTH + 7.6, HEIGHT * 0.66],
    [WIDTH + 6.5, HEIGHT * 0.85],
    [WIDTH + 7, HEIGHT, 'corner'],
  ];
  const steel = sheet.part('tang', state);
  steel.area(
    closed(
      joined(
        polyline([
          [-1, 0],
          [WIDTH - 7, 0],
        ]),
        smooth(back),
        smooth(broken),
        polyline([[-1, HEIGHT]]),
      ),
    ),
    'steel',
  );
  steel.line(
    smooth([
      [WIDTH - 1.4, 0.6],
      [WIDTH - 0.2, 4],
      [WIDTH + 0.1, HEIGHT],
    ]),
    'inner',
  );
  steel.line(
    [0.7, 1.3, 1.9].map((up, i) =>
      polyline([
        [i, HEIGHT - up],
        [WIDTH + 4 - i * 8, HEIGHT - up],
      ]),
    ),
    'shade',
  );
  const { next } = random(seedOf('tang'));
  steel.line(
    Array.from({ length: 8 }, () => {
      const [x, y] = [WIDTH + 0.6 + next() * 2, 1.6 + next() * 10];
      return polyline([
        [x, y],
        [x + 2 + next() * 3, y],
      ]);
    }),
    'texture',
  );
  const bolster = sheet.part('bolster', state);
  bolster.area(
    closed(
      smooth([
        [-8, -1.7, 'corner'],
        [-3.4, -1.7],
        [1.6, HEIGHT * 0.12],
        [2.8, HEIGHT * 0.5],
        [1.6, HEIGHT * 0.88],
        [-3.4, HEIGHT + 1.2],
        [-8, HEIGHT + 1.2, 'corner'],
        [-8, -1.7, 'corner'],
      ]),
    ),
    'nickel',
  );
  bolster.line(
    [0.4, 1.5, 2.7, 4].map((up, i) =>
      polyline([
        [-7.6, HEIGHT + 0.6 - up],
        [-1.6 - i * 0.1, HEIGHT + 0.6 - up],
      ]),
    ),
    'shade',
  );
  if (property !== 'none')
    sheet
      .part('property-mark', propertyState)
      .line(propertyMark(property, [WIDTH - 2.8, HEIGHT * 0.55], 1.5), 'heavy', 0);
  if (!stamp) {
    const blank = sheet.part('mark', 'assumed');
    blank.area(
      polygon([
        [6, 3],
        [20, 3],
        [20, HEIGHT - 3],
        [6, HEIGHT - 3],
      ]),
      'hole',
      'secondary',
    );
    return;
  }
  const middle = WIDTH * 0.49 - (property === 'none' ? 0 : 1.6);
  const down =
    stamp.signs?.where === 'above' || stamp.signs?.where === 'arc'
      ? size * 0.5
      : stamp.signs?.where === 'below'
        ? -size * 0.5
        : 0;
  const mark = sheet.part('mark', stamp.state ?? 'recorded');
  drawStamp(mark, stamp, [middle, HEIGHT * 0.5 + down], size, 0);
  mark.anchor([middle, HEIGHT * 0.5]);
}

/** A stamp by itself: of the reference, where no piece is drawn. */
export function drawStampOnTang(stamp: StampRecipe, name: string): Drawing {
  const sheet = new Sheet();
  drawTangOn(sheet, stamp, 'recorded');
  return sheet.finish(name);
}
