/** A bayonet: the crossguard's face at x = 0, the blade to the left, the hilt and its press stud to the right. */
import { formOf, keptForm } from '../geometry/form.ts';
import { monotone } from '../geometry/graph.ts';
import {
  arc,
  closed,
  ellipse,
  lerp,
  polygon,
  polyline,
  roundedRect,
  smooth,
  type Knot,
  type Point,
} from '../geometry/path.ts';
import { stateOf, type DrawingRecipe } from './recipe.ts';
import { DETAIL, type Paint, type Sheet } from './sheet.ts';
import { APART, drawGrip, drawStraightBlade } from './straight.ts';
import { drawRoundness, drawTexture } from './texture.ts';

/** Thickness of the crossguard, and where the grip of a bayonet begins, mm. */
const CROSS = 8;
export function drawBayonet(sheet: Sheet, recipe: DrawingRecipe, sheathed: boolean): void {
  const { styles, handleLength: hilt, handleHeight: height } = recipe;
  const [blade] = recipe.blades;
  const bladeHeight = blade?.height ?? 26;
  const ricasso = 24;
  drawStraightBlade(sheet, recipe, bladeHeight, ricasso);
  const back = -bladeHeight * 0.48;
  const slabs = hilt - 30;
  const grip = keptForm(`bayonet ${hilt} ${height} ${back}`, () =>
    formOf({
      left: CROSS,
      right: slabs,
      top: monotone([
        [CROSS, back + 2.2],
        [slabs, back + 2.2],
      ]),
      bottom: monotone([
        [CROSS, height * 0.52],
        [lerp(CROSS, slabs, 0.2), height * 0.54],
        [lerp(CROSS, slabs, 0.55), height * 0.44],
        [slabs, height * 0.54],
      ]),
    }),
  );
  sheet.part('tang', recipe.handleState).area(
    polygon([
      [CROSS, back],
      [slabs + 2, back],
      [slabs + 2, back + 4],
      [CROSS, back + 4],
    ]),
    'steel',
  );
  drawGrip(sheet, { ...recipe, styles: { ...styles, pommel: 'cap' } }, grip, CROSS + 0.2, slabs);
  drawBeak(sheet, recipe, slabs, hilt, back, height);
  drawCrossguard(sheet, recipe, back, height);
  if (sheathed && (styles.scabbard ?? 'none') !== 'none')
    drawScabbard(sheet, recipe, blade?.length ?? 200, bladeHeight);
}

function drawBeak(
  sheet: Sheet,
  recipe: DrawingRecipe,
  from: number,
  hilt: number,
  back: number,
  height: number,
): void {
  const pencil = sheet.part('pommel', stateOf(recipe, 'pommel'));
  const low = height * 0.55;
  const end = hilt;
  const beaked = (recipe.styles.pommel ?? 'beaked') !== 'plate';
  const knots: Knot[] = beaked
    ? [
        [from, back, 'corner'],
        [end - 2.4, back, 'corner'],
        [end - 0.7, back + 2],
        [end, back + 9],
        [end - 0.6, low + 1],
        [end - 2.6, low + 7],
        [end - 7.5, low + 9],
        [end - 15, low + 7.4],
        [end - 23, low + 3],
        [from, low, 'corner'],
        [from, back, 'corner'],
      ]
    : [
        [from, back, 'corner'],
        [end - 1.5, back, 'corner'],
        [end, back + 2],
        [end, low - 2],
        [end - 1.5, low, 'corner'],
        [from, low, 'corner'],
        [from, back, 'corner'],
      ];
  pencil.area(closed(smooth(knots)), 'steel');
  // the slot the rifle's bar slides in, cut from the back
  pencil.area(
    polygon([
      [end - 26, back + 0.4],
      [end - 0.4, back + 0.4],
      [end - 0.4, back + 2.6],
      [end - 26, back + 2.6],
    ]),
    'hole',
    'secondary',
  );
  pencil.line(
    polyline([
      [end - 26, back + 5],
      [end - 0.8, back + 5],
    ]),
    'inner',
  );
  const [x, y] = [end - 19, back + 10.4];
  sheet
    .part('press-stud', stateOf(recipe, 'pommel'))
    .area(ellipse(x, y, 3.2), 'nickel', 'secondary')
    .line(ellipse(x, y, 2.1), 'fine')
    .anchor([x, y]);
}

function drawCrossguard(sheet: Sheet, recipe: DrawingRecipe, back: number, height: number): void {
  const low = height * 0.5;
  const quillon = recipe.styles.quillon ?? 'plain';
  const tails: Record<typeof quillon, Knot[]> = {
    hooked: [
      [0, low + 4],
      [-0.6, low + 11],
      [-5, low + 17],
      [-9, low + 19.4],
      [-9.6, low + 21.6],
      [-6, low + 21.8],
      [0, low + 20],
      [5.6, low + 14.6],
      [8, low + 7],
    ],
    plain: [
      [0, low + 2.5],
      [-0.3, low + 5],
      [1.6, low + 7.2],
      [6.4, low + 7.2],
      [8.3, low + 5],
      [8, low + 2.5],
    ],
    none: [
      [0, low],
      [1, low + 0.9],
      [7, low + 0.9],
      [8, low],
    ],
  };
  const pencil = sheet.part('guard', stateOf(recipe, 'quillon'));
  pencil.area(
    closed(
      smooth([
        [0, back - 2, 'corner'],
        ...tails[quillon],
        [CROSS, back - 2, 'corner'],
        [0, back - 2, 'corner'],
      ]),
    ),
    'steel',
  );
  pencil
    .line(
      [5.4, 6.3, 7.1].map((x, i) =>
        polyline([
          [x, back + i],
          [x, low - i],
        ]),
      ),
      'shade',
      DETAIL.texture,
    )
    .anchor([4, low]);
  const ring = recipe.styles['muzzle-ring'] ?? 'none';
  if (ring === 'none') return;
  const [outer, inner, y] = [12, 8.3, back - 13.4];
  const made = sheet.part('ring', stateOf(recipe, 'muzzle-ring'));
  if (ring === 'full')
    made
      .area([arcClosed(4, y, outer, back), ellipse(4, y, inner)], 'steel')
      .line(arc(4, y, inner + 1, 20, 170), 'fine');
  // cut through at its middle: two horns are left
  else
    made.area(
      closed(
        polyline([[0, back - 1.5]]),
        arc(4, y, outer, 113, 180),
        arc(4, y, inner, 180, 90),
        arc(4, y, inner, 90, 0),
        arc(4, y, outer, 0, 67),
        polyline([[8, back - 1.5]]),
      ),
      'steel',
    );
  made.anchor([4, y]);
}
const arcClosed = (x: number, y: number, r: number, to: number) => {
  const run = arc(x, y, r, 113, 427);
  const begin: Point = [0, to - 1.5];
  return closed(polyline([begin, run.start]), run, polyline([[8, to - 1.5]]));
};

function drawScabbard(sheet: Sheet, recipe: DrawingRecipe, bladeLength: number, bladeHeight: number): void {
  const [length, height] = [bladeLength + 8, bladeHeight * 1.3];
  const top = recipe.handleHeight * 0.5 + 22 + APART;
  const style = recipe.styles.scabbard ?? 'steel';
  const body: Paint = style === 'leather' ? 'leather' : 'blued';
  const form = formOf({
    left: -length,
    right: 0,
    top: monotone([
      [-length, height * 0.14],
      [-length * 0.85, height * 0.05],
      [0, 0],
    ]),
    bottom: monotone([
      [-length, height * 0.86],
      [-length * 0.85, height * 0.95],
      [0, height],
    ]),
    leftEnd: { radius: 7 },
  });
  sheet.through(
    ([x, y]) => [x, y + top],
    () => {
      const pencil = sheet.part('scabbard', stateOf(recipe, 'scabbard'));
      pencil.area(ellipse(-length - 2, height / 2, 3), 'blued', 'secondary');
      pencil.area(form.region(), body);
      if (style === 'leather') drawTexture(pencil, 'leather', form, -length + 10, -9);
      drawRoundness(pencil, form, -length + 6, -9);
      pencil.area(
        polygon([
          [-8, -0.6],
          [2, -1.5],
          [2, height + 1.5],
          [-8, height + 0.6],
        ]),
        'blued',
      );
      if (style === 'leather') pencil.area(form.region(undefined, { x: -length + 24, bulge: 4 }), 'blued');
      pencil
        .area(roundedRect(-34, height / 2 - 3, 14, 6, 2.4), 'blued', 'secondary')
        .area(ellipse(-24, height / 2, 2.4), 'blued', 'secondary');
    },
  );
}
