/**
 * A slipjoint from its mark side. One pivot rule: how far a closed blade stands proud fixes its pin, and the pin's
 * distance from the handle's back the tang, so an open blade lies flush with the spring.
 */
import type { Form } from '../geometry/form.ts';
import { ellipse, lerp, radians, turned, type Run } from '../geometry/path.ts';
import { bladeStyles, drawBlade, type BladeSpec } from './blade.ts';
import { drawLanyard, drawShield, liesOnScale } from './fittings.ts';
import { handleOf } from './handles.ts';
import { stateOf, type BladeRecipe, type DrawingRecipe } from './recipe.ts';
import { DETAIL, type Sheet } from './sheet.ts';
import { drawRoundness, drawTexture } from './texture.ts';
import { paintOfScales } from './tint.ts';

/** Thickness of the spring, how far a closed blade stands proud, and what clears it from the spring, mm. */
const SPRING = 2.3;
const PROUD = 2.2;
const CLEAR = 0.9;
/** A stamp needs this much ricasso beyond the bolster; a plain tang less. */
const RICASSO = { stamped: 9.4, plain: 6.8 } as const;

/** Which way each blade stands, in degrees: 0 is closed, 180 open. */
export type Stand = (blade: BladeRecipe, index: number, all: readonly BladeRecipe[]) => number;
export const CLOSED: Stand = () => 0;
/** The first at each end straight out (the master alone quite), what follows it raised. */
export const OPENED: Stand = (blade, index, all) => {
  const before = all.slice(0, index).filter((b) => b.end === blade.end).length;
  if (before > 0) return 118 - 24 * (before - 1);
  return index === 0 ? 180 : 150;
};

interface Seat {
  readonly x: number;
  readonly y: number;
  /** from the pin to the back of the spring */
  readonly back: number;
  readonly tang: number;
  /** from the pin to the handle's end */
  readonly toEnd: number;
  readonly mirror: 1 | -1;
}
export function seatOf(handle: Form, height: number, end: BladeRecipe['end']): Seat {
  const inset = height * 0.49;
  const x = end === 'front' ? handle.right - inset : handle.left + inset;
  const y = (handle.top(x) + handle.bottom(x) - PROUD) / 2;
  const back = handle.bottom(x) - y;
  return { x, y, back, tang: Math.max(2.6, back - SPRING), toEnd: inset, mirror: end === 'front' ? 1 : -1 };
}

/** The tallest blade that clears the spring all along its edge when closed, mm. */
export function tallestThatFolds(handle: Form, seat: Seat, length: number, tilt: number): number {
  let tallest = seat.back + seat.tang - 1.2;
  for (let along = seat.toEnd + 6; along < seat.toEnd + length * 0.62; along += 4) {
    const x = seat.x - seat.mirror * along * Math.cos(radians(tilt));
    const back = seat.y - seat.back - along * Math.sin(radians(tilt));
    tallest = Math.min(tallest, handle.bottom(x) - SPRING - CLEAR - back);
  }
  return Math.max(4, tallest);
}
const tiltOf = (blade: BladeRecipe, all: readonly BladeRecipe[]) =>
  all.some((other) => other !== blade && other.end === blade.end && other.layer < blade.layer) ? 1.6 : 0;

/** Blades whose recorded height would strike the spring: misread, or the assumed profile is wrong. */
export function bladesThatDoNotFold(recipe: DrawingRecipe): readonly BladeRecipe[] {
  if (recipe.construction !== 'slipjoint') return [];
  const handle = handleOf(recipe, 'equal-end');
  return recipe.blades.filter((blade) => {
    if (blade.height === undefined) return false;
    const seat = seatOf(handle, recipe.handleHeight, blade.end);
    return blade.height > tallestThatFolds(handle, seat, blade.length, tiltOf(blade, recipe.blades)) + CLEAR;
  });
}

export function drawSlipjoint(sheet: Sheet, recipe: DrawingRecipe, stand: Stand): void {
  const { styles } = recipe;
  const handle = handleOf(recipe, 'equal-end');
  drawBlades(sheet, recipe, handle, stand);
  const lanyard = styles.lanyard ?? 'none';
  const butt = sheet.part('lanyard', stateOf(recipe, 'lanyard'));
  if (!liesOnScale(lanyard)) drawLanyard(butt, lanyard, [0, handle.middle(1)], -1);
  drawHandle(sheet, recipe, handle);
  if (liesOnScale(lanyard)) drawLanyard(butt, lanyard, [0, handle.middle(1)], -1);
}

export function drawBlades(sheet: Sheet, recipe: DrawingRecipe, handle: Form, stand: Stand): void {
  const { styles, blades, handleHeight, stamp } = recipe;
  const order = blades
    .map((blade, index) => ({ blade, index }))
    .sort((a, b) => b.blade.layer - a.blade.layer || b.index - a.index);
  for (const { blade, index } of order) {
    const seat = seatOf(handle, handleHeight, blade.end);
    const angle = stand(blade, index, blades);
    const tilt = angle === 0 ? tiltOf(blade, blades) : 0;
    const stamped = index === 0 && stamp !== undefined;
    const tallest = tallestThatFolds(handle, seat, blade.length, tilt);
    const spec: BladeSpec = {
      part: `blade:${index + 1}`,
      state: blade.state,
      form: blade.form,
      reach: seat.toEnd + blade.length,
      height: Math.min(blade.height ?? tallest, tallest),
      back: seat.back,
      heel: seat.toEnd + (stamped ? RICASSO.stamped : RICASSO.plain),
      tang: { radius: seat.tang, square: index > 0 && styles['half-stop'] === 'yes', choil: 'notch' },
      styles: bladeStyles(styles),
      fullness: blade.fullness,
      stamp: stamped && angle > 80 ? stamp : undefined,
      stampAt: seat.toEnd + 4.9,
      outline: index === 0 ? recipe.bladeOutline : undefined,
    };
    sheet.kept(handle, [spec, blade.end, angle, tilt], () => {
      sheet.through(turned(180 + angle + tilt, seat.x, seat.y, seat.mirror), () => drawBlade(sheet, spec));
    });
  }
}

function drawHandle(sheet: Sheet, recipe: DrawingRecipe, handle: Form): void {
  const { styles, handleLength: length, handleHeight: height } = recipe;
  const set = styles['bolster-set'] ?? 'both';
  const share = Math.max(length * 0.19, height * 0.62);
  const bulge = styles.joint === 'curved' ? 1.4 : 0;
  const rear = set === 'both' ? { x: share, bulge: -bulge } : undefined;
  const front = set === 'none' ? undefined : { x: length - share, bulge };
  const [from, to] = [rear?.x ?? 0, front?.x ?? length];
  const texture = styles.scales ?? 'smooth';
  const state = stateOf(recipe, 'scales');
  sheet.kept(handle, ['scales', texture, styles.tint, from, to, bulge, state], () => {
    const scales = sheet.part('scales', state);
    scales.area(handle.region(rear, front), paintOfScales(texture, styles.tint));
    drawTexture(scales, texture, handle, from, to);
    drawRoundness(scales, handle, from, to, 4);
    scales.anchor([lerp(from, to, 0.66), handle.share(lerp(from, to, 0.66), 0.5)]);
  });
  if (rear) drawBolster(sheet, recipe, handle, 'rear', { from: 0, to: rear.x, joint: rear.x, bulge: -bulge });
  if (front)
    drawBolster(sheet, recipe, handle, 'front', { from: front.x, to: length, joint: front.x, bulge });
  drawPins(sheet, recipe, handle, from, to);
  const shield = styles.shield ?? 'none';
  const x = lerp(from, to, 0.5);
  drawShield(
    sheet.part('shield', stateOf(recipe, 'shield')),
    shield,
    x,
    handle.middle(x),
    Math.min(1, height / 15),
  );
}

export interface BolsterPlace {
  readonly from: number;
  readonly to: number;
  readonly joint: number;
  readonly bulge: number;
}
export function drawBolster(
  sheet: Sheet,
  recipe: DrawingRecipe,
  handle: Form,
  end: 'rear' | 'front',
  place: BolsterPlace,
): void {
  const bladed = recipe.blades.some((b) => b.end === end);
  const depends = ['bolster', end, place, recipe.styles.bolster, bladed, stateOf(recipe, 'bolster')];
  sheet.kept(handle, depends, () => drawBolsterOn(sheet, recipe, handle, end, place));
}
function drawBolsterOn(
  sheet: Sheet,
  recipe: DrawingRecipe,
  handle: Form,
  end: 'rear' | 'front',
  place: BolsterPlace,
): void {
  const { from, to, joint, bulge } = place;
  const pencil = sheet.part(`bolster:${end}`, stateOf(recipe, 'bolster'));
  const edge = { x: joint, bulge };
  pencil.area(end === 'rear' ? handle.region(undefined, edge) : handle.region(edge), 'nickel');
  drawRoundness(pencil, handle, from + 0.6, to - 0.6, 4);
  const outwards = end === 'rear' ? -1 : 1;
  const lines = (offsets: readonly number[]): Run[] =>
    offsets.map((mm) => handle.across({ x: joint + outwards * mm, bulge }));
  const width = to - from;
  switch (recipe.styles.bolster ?? 'plain') {
    case 'grooved':
      pencil.line(lines([2.2, 3.9, 5.6]), 'heavy').line(lines([2.75, 4.45, 6.15]), 'light', DETAIL.texture);
      break;
    case 'ribbed':
      pencil.line(lines([1.6, 3.1, 4.6, 6.1, 7.6, 9.1].filter((mm) => mm < width - 3)), 'inner');
      pencil.line(lines([2.2, 3.7, 5.2, 6.7, 8.2].filter((mm) => mm < width - 3)), 'shade', DETAIL.texture);
      break;
    case 'threaded':
      pencil.line(
        lines(Array.from({ length: 12 }, (_, i) => 1.2 + i * 0.75).filter((mm) => mm < width - 2)),
        'fine',
      );
      break;
    case 'fluted':
      pencil.line(
        [0.2, 0.35, 0.5, 0.65, 0.8].map((at) =>
          handle.stripe(
            at,
            Math.min(joint + outwards * 1.6, joint + outwards * width * 0.85),
            Math.max(joint + outwards * 1.6, joint + outwards * width * 0.85),
          ),
        ),
        'inner',
      );
      break;
    case 'plain':
      break;
  }
  pencil.line(lines([0.75]), 'fine', DETAIL.texture);
  const seat = seatOf(handle, recipe.handleHeight, end);
  if (recipe.blades.some((b) => b.end === end))
    pencil.line(ellipse(seat.x, seat.y, 1.3), 'fine', DETAIL.texture);
  pencil.anchor([(from + to) / 2, handle.share((from + to) / 2, 0.5)]);
}

function drawPins(sheet: Sheet, recipe: DrawingRecipe, handle: Form, from: number, to: number): void {
  const shares = { none: [], two: [0.18, 0.82], three: [0.16, 0.5, 0.84], four: [0.14, 0.36, 0.64, 0.86] }[
    recipe.styles.pins ?? 'two'
  ];
  const pencil = sheet.part('pins', stateOf(recipe, 'pins'));
  for (const share of shares) {
    const x = lerp(from, to, share);
    pencil.area(ellipse(x, handle.middle(x), 0.95), 'brass', 'secondary');
  }
}
