/** Straight knives and bayonets: the guard's face at x = 0, the blade to the left with its edge down. */
import { formOf, keptForm, type Form } from '../geometry/form.ts';
import { monotone } from '../geometry/graph.ts';
import { closed, ellipse, lerp, polyline, roundedRect, smooth, turned, type Knot } from '../geometry/path.ts';
import { bladeStyles, drawBlade, type BladeSpec, type DrawnBlade } from './blade.ts';
import { stateOf, type DrawingRecipe, type PartState } from './recipe.ts';
import { DETAIL, type Sheet } from './sheet.ts';
import { drawRoundness, drawTexture } from './texture.ts';
import { paintOfScales } from './tint.ts';
import type { StyleOf } from './vocabulary.ts';

/** Between a knife and its sheath drawn under it, mm. */
export const APART = 8;

export function drawStraightBlade(
  sheet: Sheet,
  recipe: DrawingRecipe,
  height: number,
  ricasso: number,
): void {
  const [spec] = recipe.blades;
  if (!spec) return;
  const { styles } = recipe;
  const blade: BladeSpec = {
    part: 'blade:1',
    state: spec.state,
    form: spec.form,
    reach: spec.length,
    height,
    back: height * 0.48,
    heel: ricasso,
    styles: bladeStyles(styles),
    fullness: spec.fullness,
    stamp: recipe.stamp,
    stampAt: Math.max(ricasso * 0.55, 9),
    outline: recipe.bladeOutline,
  };
  const fuller = styles.fuller ?? 'none';
  const state = stateOf(recipe, 'fuller');
  sheet.kept(STRAIGHT, [blade, fuller, state], () => {
    sheet.through(turned(180), () => drawFuller(sheet, drawBlade(sheet, blade), fuller, state));
  });
}
/** Straight blades have no handle that they turn in: all are kept together. */
const STRAIGHT = {};

function drawFuller(sheet: Sheet, blade: DrawnBlade, fuller: StyleOf<'fuller'>, state: PartState): void {
  if (fuller === 'none') return;
  const [from, to] = fuller === 'full' ? [0.02, 0.8] : [0.03, 0.42];
  const side = (share: number): Knot[] =>
    Array.from({ length: 6 }, (_, i): Knot => {
      const [x, y] = blade.at(lerp(from, to, i / 5), share);
      return [x, y];
    });
  const [a, b] = [blade.at(from, 0.3), blade.at(to, 0.3)];
  const pencil = sheet.part('fuller', state);
  pencil.area(
    closed(
      smooth([...side(0.2), [b[0] + 5, b[1], 'corner']]),
      smooth([[b[0] + 5, b[1], 'corner'], ...side(0.4).reverse(), [a[0] - 2.4, a[1], 'corner']]),
    ),
    'cut',
    'secondary',
  );
  pencil
    .line(smooth(side(0.26).slice(0, 5)), 'shade', DETAIL.texture)
    .line(smooth(side(0.37).slice(1, 5)), 'light', DETAIL.texture);
}

export function drawFixed(sheet: Sheet, recipe: DrawingRecipe, sheathed: boolean): void {
  const { styles, handleLength: length, handleHeight: height } = recipe;
  const [blade] = recipe.blades;
  const bladeHeight = blade?.height ?? height * 1.05;
  drawStraightBlade(sheet, recipe, bladeHeight, 9);
  const grip = gripForm(length, height, styles.pommel === 'none');
  drawGrip(sheet, recipe, grip, 1.5, length);
  drawPommel(sheet, recipe, grip);
  drawGuard(sheet, recipe, height, bladeHeight);
  if (sheathed && (styles.sheath ?? 'none') !== 'none')
    drawSheath(sheet, recipe, blade?.length ?? 100, bladeHeight);
}
const gripForm = (length: number, height: number, roundedButt: boolean): Form =>
  keptForm(`grip ${length} ${height} ${String(roundedButt)}`, () =>
    formOf({
      left: 0,
      right: length,
      top: monotone([
        [0, -height * 0.42],
        [length * 0.3, -height * 0.48],
        [length * 0.62, -height * 0.45],
        [length, -height * 0.5],
      ]),
      bottom: monotone([
        [0, height * 0.4],
        [length * 0.22, height * 0.36],
        [length * 0.55, height * 0.5],
        [length * 0.85, height * 0.44],
        [length, height * 0.5],
      ]),
      ...(roundedButt && { rightEnd: { radius: height * 0.4, fullness: 0.62 } }),
    }),
  );

export function drawGrip(sheet: Sheet, recipe: DrawingRecipe, grip: Form, from: number, to: number): void {
  const texture = recipe.styles.grip ?? 'smooth';
  const state = stateOf(recipe, 'grip');
  const rounded = recipe.styles.pommel === 'none';
  sheet.kept(grip, ['grip', texture, recipe.styles.tint, from, to, rounded, state], () => {
    const pencil = sheet.part('grip', state);
    const region = grip.region({ x: from }, rounded ? undefined : { x: to });
    pencil.area(region, paintOfScales(texture, recipe.styles.tint));
    drawTexture(pencil, texture, grip, from, to - 0.5);
    drawRoundness(pencil, grip, from, to - 0.5);
    pencil.anchor([lerp(from, to, 0.6), grip.middle(lerp(from, to, 0.6))]);
  });
  const shares = { none: [], two: [0.26, 0.72], three: [0.2, 0.5, 0.8] }[recipe.styles.rivets ?? 'none'];
  const pins = sheet.part('pins', stateOf(recipe, 'rivets'));
  for (const share of shares) {
    const x = lerp(from, to, share);
    const r = recipe.construction === 'bayonet' ? 3 : 1.6;
    pins.area(
      ellipse(x, grip.middle(x), r),
      recipe.construction === 'bayonet' ? 'steel' : 'brass',
      'secondary',
    );
    if (recipe.construction === 'bayonet')
      pins.line(
        polyline([
          [x - r * 0.5, grip.middle(x) - r * 0.36],
          [x + r * 0.5, grip.middle(x) + r * 0.36],
        ]),
        'heavy',
        DETAIL.texture,
      );
  }
}

function drawPommel(sheet: Sheet, recipe: DrawingRecipe, grip: Form): void {
  const style = recipe.styles.pommel ?? 'none';
  if (style === 'none') return;
  const pencil = sheet.part('pommel', stateOf(recipe, 'pommel'));
  const [a, top, bottom] = [grip.right, grip.top(grip.right), grip.bottom(grip.right)];
  if (style === 'plate') {
    pencil.area(roundedRect(a, top - 1, 3.2, bottom - top + 2, 0.8), 'brass');
    return;
  }
  const knots: Knot[] =
    style === 'cap'
      ? [
          [a, top - 1, 'corner'],
          [a + 3, top - 1.8],
          [a + 7, top - 0.8],
          [a + 9.6, lerp(top, bottom, 0.3)],
          [a + 9.8, lerp(top, bottom, 0.62)],
          [a + 7.4, bottom + 1.2],
          [a + 3.4, bottom + 1.8],
          [a, bottom + 1, 'corner'],
          [a, top - 1, 'corner'],
        ]
      : [
          [a, top - 0.5, 'corner'],
          [a + 6, top - 0.5],
          [a + 11, lerp(top, bottom, 0.3)],
          [a + 12, bottom + 2],
          [a + 8, bottom + 5],
          [a + 3, bottom + 2.4],
          [a, bottom + 1, 'corner'],
          [a, top - 0.5, 'corner'],
        ];
  pencil.area(closed(smooth(knots)), 'brass');
  pencil.line(
    [0.56, 0.72, 0.86].map((t, i) =>
      polyline([
        [a + 1.2, lerp(top, bottom, t)],
        [a + 8 - i * 0.5, lerp(top, bottom, t)],
      ]),
    ),
    'shade',
    DETAIL.texture,
  );
}

function drawGuard(sheet: Sheet, recipe: DrawingRecipe, height: number, bladeHeight: number): void {
  const style = recipe.styles.guard ?? 'none';
  if (style === 'none') return;
  const up = style === 'both' ? bladeHeight * 0.62 + 4 : height * 0.5;
  const down = bladeHeight * 0.62 + 5;
  const knots: Knot[] = [
    [-2.6, -up, 'corner'],
    [1, -up - 0.9],
    [3.1, -up + 0.6],
    [2.6, -up + 3.4],
    [2.6, down - 3.4],
    [3.4, down - 0.4],
    [0.8, down + 1],
    [-2.6, down - 0.4, 'corner'],
    [-2.6, -up, 'corner'],
  ];
  const pencil = sheet.part('guard', stateOf(recipe, 'guard'));
  pencil
    .area(closed(smooth(knots)), 'brass')
    .line(
      [0.6, 1.4].map((x) =>
        polyline([
          [x, -up + 2],
          [x, down - 2],
        ]),
      ),
      'shade',
      DETAIL.texture,
    )
    .anchor([0, up > 12 ? -up + 4 : down - 4]);
}

function drawSheath(sheet: Sheet, recipe: DrawingRecipe, bladeLength: number, bladeHeight: number): void {
  const [length, height] = [bladeLength + 10, bladeHeight * 1.5];
  const top = bladeHeight * 0.62 + 14 + APART;
  const form = formOf({
    left: -length,
    right: 0,
    top: monotone([
      [-length, height * 0.3],
      [-length * 0.75, height * 0.1],
      [-length * 0.3, 0],
      [0, 0],
    ]),
    bottom: monotone([
      [-length, height * 0.7],
      [-length * 0.75, height * 0.92],
      [-length * 0.3, height],
      [0, height * 1.04],
    ]),
    leftEnd: { radius: Math.min(9, height * 0.3) },
  });
  sheet.through(
    ([x, y]) => [x, y + top],
    () => {
      const pencil = sheet.part('sheath', stateOf(recipe, 'sheath'));
      pencil.area(roundedRect(-28, -7, 14, 14, 1.5), 'strap');
      pencil.area(form.region(), 'leather');
      drawTexture(pencil, 'leather', form, -length + 6, -2);
      drawRoundness(pencil, form, -length + 4, -2);
      pencil
        .line(form.stripe(0.92, -length + 6, -2), 'stitch')
        .line(form.stripe(0.86, -length + 8, -2), 'fine');
      pencil.area(ellipse(-18, height * 0.34, 2.4), 'brass', 'secondary');
      if (recipe.styles.sheath === 'chape')
        pencil.area(form.region(undefined, { x: -length + 16, bulge: 3 }), 'nickel');
    },
  );
}
