/** A locking folder or an automatic: the blade to the left, its edge down; the pile side is the mirror image. */
import type { Form } from '../geometry/form.ts';
import {
  closed,
  ellipse,
  joined,
  lerp,
  polyline,
  smooth,
  turned,
  type Knot,
  type Point,
} from '../geometry/path.ts';
import { bladeStyles, drawBlade, type BladeSpec, type DrawnBlade } from './blade.ts';
import { drawLanyard, drawPivot, drawShield, screw } from './fittings.ts';
import { handleOf } from './handles.ts';
import { stateOf, type DrawingRecipe } from './recipe.ts';
import { DETAIL, type Sheet } from './sheet.ts';
import { drawBolster } from './slipjoint.ts';
import { drawRoundness, drawTexture } from './texture.ts';
import { paintOfLiner, paintOfScales } from './tint.ts';

export interface LockingView {
  readonly open: boolean;
  readonly side: 'mark' | 'pile';
}

export function drawLocking(sheet: Sheet, recipe: DrawingRecipe, { open, side }: LockingView): void {
  if (side === 'pile')
    sheet.through(
      ([x, y]) => [recipe.handleLength - x, y],
      () => drawSide(sheet, recipe, open, side),
    );
  else drawSide(sheet, recipe, open, side);
}

/** Between a shut blade's edge and the handle's back, mm. */
const CLEAR = 1.2;
interface Pin {
  readonly x: number;
  readonly y: number;
}
function drawSide(sheet: Sheet, recipe: DrawingRecipe, open: boolean, side: 'mark' | 'pile'): void {
  const { handleLength: length, handleHeight: height, styles } = recipe;
  const handle = handleOf(recipe, 'swayback', true);
  const pin = { x: height * 0.52, y: handle.middle(height * 0.52) };
  const far = sheet.part('liner', stateOf(recipe, 'liner'));
  far.area(handle.region(), paintOfLiner(styles.liner), 'secondary');
  drawBladeAndOpener(sheet, recipe, handle, pin, open, side);
  drawSpacer(sheet, recipe, handle);
  const texture = styles.scales ?? 'smooth';
  const state = stateOf(recipe, 'scales');
  sheet.kept(handle, ['scales', texture, styles.tint, state], () => {
    const scales = sheet.part('scales', state);
    scales.area(handle.region(), paintOfScales(texture, styles.tint));
    drawTexture(scales, texture, handle, 1, length - 1);
    drawRoundness(scales, handle, 1, length - 1, 4);
    scales.line(handle.inset(0.9, 0.9).region(), 'fine', DETAIL.texture);
    scales.anchor([length * 0.55, handle.middle(length * 0.55)]);
  });
  const set = styles['bolster-set'] ?? 'none';
  const share = Math.max(height * 0.95, length * 0.19);
  if (set !== 'none')
    drawBolster(sheet, recipe, handle, 'rear', { from: 0, to: share, joint: share, bulge: 0 });
  if (set === 'both')
    drawBolster(sheet, recipe, handle, 'front', {
      from: length - share,
      to: length,
      joint: length - share,
      bulge: 0,
    });
  drawLock(sheet, recipe, handle, side);
  drawPivot(
    sheet.part('pivot', stateOf(recipe, 'pivot')),
    styles.pivot ?? 'plain',
    pin.x,
    pin.y,
    Math.min(4.3, height * 0.16),
  );
  drawScrews(sheet, recipe, handle);
  const lanyard = styles.lanyard ?? 'none';
  drawLanyard(
    sheet.part('lanyard', stateOf(recipe, 'lanyard')),
    lanyard,
    [length, handle.middle(length - 6)],
    1,
  );
  const middle = length * 0.56;
  drawShield(
    sheet.part('shield', stateOf(recipe, 'shield')),
    styles.shield ?? 'none',
    middle,
    handle.middle(middle),
    0.9,
  );
  if (side === 'pile') drawClip(sheet, recipe, handle);
}

function drawBladeAndOpener(
  sheet: Sheet,
  recipe: DrawingRecipe,
  handle: Form,
  pin: Pin,
  open: boolean,
  side: 'mark' | 'pile',
): void {
  const { styles, handleHeight: height } = recipe;
  const [spec] = recipe.blades;
  if (!spec) return;
  const back = Math.min(pin.y - handle.top(pin.x) - 0.6, height * 0.44);
  const tallest = tallestThatShuts(handle, pin, back, spec.length);
  const bladeHeight = Math.min(spec.height ?? tallest, height);
  const blade: BladeSpec = {
    part: 'blade:1',
    state: spec.state,
    form: spec.form,
    reach: pin.x + spec.length,
    height: bladeHeight,
    back,
    heel: pin.x + 3.4,
    tang: { radius: Math.min(7.4, back * 0.9), square: false, choil: 'curve' },
    styles: bladeStyles(styles),
    fullness: spec.fullness,
    stamp: open && side === 'mark' ? recipe.stamp : undefined,
    stampAt: pin.x + spec.length * 0.3,
    outline: recipe.bladeOutline,
  };
  const state = stateOf(recipe, 'opener');
  sheet.kept(handle, [blade, open, side, styles.opener, state], () => {
    // closed, it is turned half round about its pin: the edge lies in the handle, the back looks out
    sheet.through(turned(open ? 180 : 360, pin.x, pin.y), () => {
      drawOpener(sheet, recipe, drawBlade(sheet, blade), pin, bladeHeight);
    });
  });
}

/** The highest blade whose edge and tip stay under the handle's back when it is shut, mm. */
function tallestThatShuts(handle: Form, pin: Pin, back: number, length: number): number {
  let tallest = handle.bottom(pin.x) - handle.top(pin.x);
  for (let share = 0.2; share <= 1; share += 0.05) {
    const x = Math.min(pin.x + (pin.x + length) * share, handle.right - 1);
    tallest = Math.min(tallest, pin.y + back - handle.top(x) - CLEAR);
  }
  return Math.max(6, tallest);
}

function drawOpener(sheet: Sheet, recipe: DrawingRecipe, blade: DrawnBlade, pin: Pin, height: number): void {
  const pencil = sheet.part('opener', stateOf(recipe, 'opener'));
  const style = recipe.styles.opener ?? 'none';
  const at: Point = blade.at(0.13, 0.24);
  switch (style) {
    case 'stud':
      pencil
        .area(ellipse(at[0], at[1], 2.5), 'nickel')
        .line(ellipse(at[0], at[1], 1.6), 'fine')
        .anchor(at);
      return;
    case 'hole':
      pencil
        .area(
          ellipse(at[0] + 3, at[1] - 0.6, Math.min(5.6, height * 0.24), Math.min(3.2, height * 0.15)),
          'hole',
        )
        .anchor(at);
      return;
    case 'round-hole':
    case 'small-hole': {
      const r = style === 'round-hole' ? Math.min(4.6, height * 0.2) : 2.2;
      pencil.area(ellipse(at[0] + 2, at[1], r), 'hole').anchor(at);
      return;
    }
    case 'flipper': {
      // a tab of the tang: beneath the guard when open, above the handle when closed
      const [x, y] = [pin.x * 0.5, -recipe.handleHeight * 0.42];
      const knots: Knot[] = [
        [x - 2.5, y, 'corner'],
        [x - 1, y - 5],
        [x + 1.4, y - 6.2],
        [x + 3.6, y - 4.4],
        [x + 5.4, y, 'corner'],
      ];
      pencil.area(closed(smooth(knots)), 'steel').anchor([x + 1, y - 3]);
      return;
    }
    case 'none':
  }
}

function drawSpacer(sheet: Sheet, recipe: DrawingRecipe, handle: Form): void {
  const pencil = sheet.part('spacer', stateOf(recipe, 'spacer'));
  const { right } = handle;
  const strip = (from: number, to: number) => {
    const top = Array.from({ length: 8 }, (_, i): Knot => {
      const x = lerp(from, to, i / 7);
      return [x, handle.top(x) - 0.75];
    });
    pencil.area(
      closed(smooth(top), smooth(top.map(([x, y]): Knot => [x, y + 1.7]).reverse())),
      'titanium',
      'secondary',
    );
  };
  switch (recipe.styles.spacer ?? 'posts') {
    case 'strip':
      strip(right * 0.32, right * 0.95);
      return;
    case 'half':
      strip(right * 0.62, right * 0.95);
      return;
    case 'posts':
      for (const share of [0.45, 0.68, 0.9]) {
        const x = right * share;
        pencil.area(
          polyline([
            [x - 1.6, handle.top(x) + 0.6],
            [x - 1.6, handle.top(x) - 0.8],
            [x + 1.6, handle.top(x) - 0.8],
            [x + 1.6, handle.top(x) + 0.6],
          ]),
          'nickel',
          'secondary',
        );
      }
      return;
    case 'none':
  }
}

function drawLock(sheet: Sheet, recipe: DrawingRecipe, handle: Form, side: 'mark' | 'pile'): void {
  const pencil = sheet.part('lock', stateOf(recipe, 'lock'));
  const length = handle.right;
  switch (recipe.styles.lock ?? 'none') {
    case 'liner': {
      // the thumb's cut in the near slab, under the leaf
      const [a, b] = [length * 0.26, length * 0.38];
      pencil.line(
        smooth([
          [a, handle.bottom(a) - 0.2],
          [(a + b) / 2, handle.bottom((a + b) / 2) - 2.4],
          [b, handle.bottom(b) - 0.2],
        ]),
        'inner',
      );
      return;
    }
    case 'frame':
      if (side === 'pile')
        pencil.line(
          [handle.stripe(0.74, length * 0.22, length * 0.72), handle.across({ x: length * 0.72 }, 0.74, 1)],
          'secondary',
        );
      else pencil.line(handle.across({ x: length * 0.3 }, 0.86, 1), 'inner');
      return;
    case 'back': {
      const [a, b] = [length * 0.62, length * 0.74];
      pencil.area(
        closed(
          smooth([
            [a, handle.top(a) - 0.1, 'corner'],
            [(a + b) / 2, handle.top((a + b) / 2) + 1.8],
            [b, handle.top(b) - 0.1, 'corner'],
          ]),
        ),
        'hole',
        'secondary',
      );
      pencil.line(
        joined(handle.stripe(0.13, length * 0.2, a), handle.stripe(0.13, b, length * 0.95)),
        'fine',
      );
      return;
    }
    case 'button': {
      const [x, y] = [length * 0.27, handle.share(length * 0.27, 0.42)];
      pencil
        .area(ellipse(x, y, 2.8), 'nickel')
        .line(ellipse(x, y, 2), 'fine')
        .anchor([x, y]);
      return;
    }
    case 'none':
  }
}

function drawScrews(sheet: Sheet, recipe: DrawingRecipe, handle: Form): void {
  // body screws stand where the posts stand
  const pencil = sheet.part('screws', recipe.handleState);
  const length = handle.right;
  for (const [x, share] of [
    [length * 0.45, 0.16],
    [length * 0.9, 0.26],
    [length * 0.88, 0.76],
  ] as const)
    screw(pencil, x, handle.share(x, share));
}

/** A clip at the butt of the pile side, its tail towards the pivot. */
function drawClip(sheet: Sheet, recipe: DrawingRecipe, handle: Form): void {
  const form = recipe.styles.clip ?? 'none';
  if (form === 'none') return;
  const pencil = sheet.part('clip', stateOf(recipe, 'clip'));
  const length = Math.min(54, handle.right * 0.48);
  const butt = handle.right - (form === 'deep' ? 1 : 5);
  const y = handle.share(handle.right - 9, 0.42);
  const at = (x: number, across: number): Point => [butt - x, y + across - x * 0.04];
  const side = (sign: 1 | -1, widths: readonly (readonly [number, number])[]) =>
    widths.map(([x, w]): Knot => at(x, sign * w));
  const band = (widths: readonly (readonly [number, number])[]) =>
    closed(smooth(side(-1, widths)), smooth([...side(1, widths)].reverse()));
  if (form === 'wire') {
    const wire: Point[] = [at(2, 2.6), at(length - 4, 2.6), at(length, 0), at(length - 4, -2.6), at(2, -2.6)];
    pencil.line(smooth(wire), 'heavy').line(smooth(wire.map(([x, yy]): Knot => [x, yy + 0.9])), 'inner');
    screw(pencil.area(ellipse(...at(3.5, 0), 3.2), 'nickel', 'secondary'), ...at(3.5, 0), 1.3);
  } else if (form === 'deep') {
    pencil.area(
      band([
        [-4, 1.6],
        [0, 3],
        [10, 2.8],
        [length - 10, 2.2],
        [length - 5, 2.6],
        [length, 1.4],
      ]),
      'titanium',
    );
    pencil.line(polyline([at(-1.2, -2.7), at(-1.2, 2.7)]), 'inner');
  } else {
    pencil.area(
      band([
        [0, 4.6],
        [7, 4.6],
        [12, 3.1],
        [length - 13, 2.5],
        [length - 6, 2.9],
        [length, 1.8],
      ]),
      'titanium',
    );
    for (const [x, across] of [
      [3.2, -2.2],
      [3.2, 2.2],
      [7.6, 0],
    ] as const)
      screw(pencil, ...at(x, across), 1.2);
    // holes of the places where it does not sit
    if (form === 'spring-four')
      for (const across of [-2.2, 2.2, 0])
        pencil.area(
          ellipse(handle.left + 20 + (across === 0 ? 4 : 0), handle.share(22, 0.5) + across, 0.8),
          'hole',
          'secondary',
        );
  }
  pencil.anchor(at(length * 0.6, 0));
}

/** From above, closed: the layers of the handle, the blade in its well. */
export function drawFromAbove(sheet: Sheet, recipe: DrawingRecipe): void {
  const { handleLength: length, styles } = recipe;
  const [slab, liner, gap] = [
    3.4,
    1.2,
    recipe.construction === 'slipjoint' ? 2.4 * Math.max(1, recipe.blades.length) : 4.1,
  ];
  const half = gap / 2;
  const bar = (from: number, to: number, inset = 0) =>
    polyline([
      [inset, from],
      [length - inset, from],
      [length - inset, to],
      [inset, to],
    ]);
  const well = sheet.part('well');
  well.area({ ...bar(-half, half), closed: true }, 'well', 'secondary');
  const blades = recipe.blades.length || 1;
  recipe.blades.forEach((blade, i) => {
    const y = -half + (gap * (i + 0.5)) / blades;
    const mirror = blade.end === 'front' && recipe.construction === 'slipjoint';
    const tip = Math.min(length - 6, blade.length);
    const x = (mm: number) => (mirror ? length - mm : mm);
    const thick = Math.min(1.3, gap / blades / 2.2);
    sheet.part(`blade:${i + 1}`, blade.state).area(
      closed(
        smooth([
          [x(4), y - thick, 'corner'],
          [x(tip * 0.6), y - thick],
          [x(tip), y, 'corner'],
          [x(tip * 0.6), y + thick],
          [x(4), y + thick, 'corner'],
          [x(4), y - thick],
        ]),
      ),
      'nickel',
      'secondary',
    );
  });
  const liners = sheet.part('liner', stateOf(recipe, 'liner'));
  const metal = paintOfLiner(styles.liner);
  if (styles.liner !== 'none')
    for (const side of [-1, 1])
      liners.area({ ...bar(side * half, side * (half + liner)), closed: true }, metal, 'secondary');
  const scales = sheet.part('scales', stateOf(recipe, 'scales'));
  for (const side of [-1, 1])
    scales.area(
      { ...bar(side * (half + liner), side * (half + liner + slab), 1.2), closed: true },
      paintOfScales(styles.scales ?? 'smooth', styles.tint),
    );
  const spacer = sheet.part('spacer', stateOf(recipe, 'spacer'));
  const block = (from: number, to: number) =>
    spacer.area(
      {
        ...polyline([
          [from, -half],
          [to, -half],
          [to, half],
          [from, half],
        ]),
        closed: true,
      },
      'titanium',
      'secondary',
    );
  if (recipe.construction !== 'slipjoint') {
    if (styles.spacer === 'strip') block(length * 0.86, length * 0.99);
    if (styles.spacer === 'half') block(length * 0.92, length * 0.99);
    if (styles.spacer === 'posts')
      for (const share of [0.45, 0.68, 0.9]) block(length * share - 1.6, length * share + 1.6);
  }
}
