/** A balisong: two handles about two pins at the foot of one blade. */
import { formOf } from '../geometry/form.ts';
import { monotone } from '../geometry/graph.ts';
import { ellipse, polyline, roundedRect, turned } from '../geometry/path.ts';
import { bladeStyles, drawBlade } from './blade.ts';
import { drawPivot } from './fittings.ts';
import { stateOf, type DrawingRecipe } from './recipe.ts';
import type { Sheet } from './sheet.ts';
import { drawRoundness, drawTexture } from './texture.ts';
import { paintOfScales } from './tint.ts';

/** Open: both handles to the right, the blade to the left. Closed: the blade between them. */
export function drawBalisong(sheet: Sheet, recipe: DrawingRecipe, open: boolean): void {
  const { styles, handleLength: length, handleHeight: height } = recipe;
  const slab = height * 0.46;
  const off = height * 0.27;
  const [spec] = recipe.blades;
  if (spec)
    sheet.through(turned(open ? 180 : 360), () => {
      drawBlade(sheet, {
        part: 'blade:1',
        state: spec.state,
        form: spec.form,
        reach: spec.length,
        height: Math.min(spec.height ?? height * 0.72, height * 0.8),
        back: height * 0.36,
        heel: 7,
        styles: bladeStyles(styles),
        fullness: spec.fullness,
        stamp: open ? recipe.stamp : undefined,
        stampAt: spec.length * 0.28,
        outline: recipe.bladeOutline,
      });
    });
  const texture = styles.scales ?? 'smooth';
  const handle = formOf({
    left: -5,
    right: length - 5,
    top: monotone([
      [-5, -slab / 2],
      [length * 0.5, -slab * 0.48],
      [length - 5, -slab * 0.44],
    ]),
    bottom: monotone([
      [-5, slab / 2],
      [length * 0.5, slab * 0.48],
      [length - 5, slab * 0.46],
    ]),
    leftEnd: { radius: slab * 0.5 },
    rightEnd: { radius: slab * 0.24 },
  });
  for (const side of [-1, 1] as const) {
    sheet.through(
      ([x, y]) => [x, side * (off + y)],
      () => {
        const scales = sheet.part('scales', stateOf(recipe, 'scales'));
        scales.area(handle.region(), paintOfScales(texture, styles.tint));
        drawTexture(scales, texture, handle, 3, length - 10, 0.4);
        drawRoundness(scales, handle, 2, length - 7, 2);
        scales.anchor([length * 0.55, 0]);
        const pins = sheet.part('spacer', stateOf(recipe, 'spacer'));
        if ((styles.spacer ?? 'posts') === 'posts')
          for (const share of [0.35, 0.65, 0.9])
            pins.area(ellipse(length * share - 5, 0, 1.2), 'nickel', 'secondary');
        else if (styles.spacer !== 'none')
          pins.line(
            polyline([
              [length * 0.3, slab * 0.3],
              [length * 0.9, slab * 0.3],
            ]),
            'secondary',
          );
        drawPivot(sheet.part('pivot', stateOf(recipe, 'pivot')), styles.pivot ?? 'plain', 0, 0, slab * 0.26);
      },
    );
  }
  // the latch closes over the other handle
  sheet
    .part('lock', recipe.handleState)
    .area(roundedRect(length - 8, -off - 1.4, 7.5, off * 2 + 2.8, 1.2), 'nickel', 'secondary');
}
