/** Small things let into or hung on a handle: shields, lanyard fittings, screws. */
import {
  arc,
  closed,
  ellipse,
  polygon,
  polyline,
  roundedRect,
  smooth,
  strap,
  type Knot,
  type Point,
  type Run,
} from '../geometry/path.ts';
import { DETAIL, type Pencil } from './sheet.ts';
import type { StyleOf } from './vocabulary.ts';

const placed = (knots: readonly Knot[], x: number, y: number): Knot[] =>
  knots.map(([a, b, turn]): Knot => [x + a, y + b, turn]);

export function drawShield(pencil: Pencil, form: StyleOf<'shield'>, x: number, y: number, size = 1): void {
  const knots = (list: readonly Knot[]) =>
    closed(
      smooth(
        placed(
          list.map(([a, b, turn]): Knot => [a * size, b * size, turn]),
          x,
          y,
        ),
      ),
    );
  switch (form) {
    case 'none':
      return;
    case 'bar':
      pencil.area(
        roundedRect(x - 6.5 * size, y - 2.1 * size, 13 * size, 4.2 * size, 1.1 * size),
        'nickel',
        'secondary',
      );
      pencil.line(
        polyline([
          [x - 5.4 * size, y + 1.3 * size],
          [x + 5.4 * size, y + 1.3 * size],
        ]),
        'fine',
        DETAIL.fittings,
      );
      return;
    case 'oval':
      pencil.area(ellipse(x, y, 6 * size, 2.8 * size), 'nickel', 'secondary');
      pencil.line(arc(x, y, 5.2 * size, 20, 160, 2.1 * size), 'fine', DETAIL.fittings);
      return;
    case 'round':
      pencil.area(ellipse(x, y, 3.3 * size), 'nickel', 'secondary');
      pencil.line(arc(x, y, 2.5 * size, 20, 160), 'fine', DETAIL.fittings);
      return;
    case 'lozenge':
      pencil.area(
        polygon([
          [x - 6.5 * size, y],
          [x, y - 3.1 * size],
          [x + 6.5 * size, y],
          [x, y + 3.1 * size],
        ]),
        'nickel',
        'secondary',
      );
      return;
    case 'crest':
      pencil.area(
        knots([
          [-5.2, -3, 'corner'],
          [0, -2.35],
          [5.2, -3, 'corner'],
          [5.1, -0.4],
          [2.8, 2.2],
          [0, 3.5, 'corner'],
          [-2.8, 2.2],
          [-5.1, -0.4],
          [-5.2, -3, 'corner'],
        ]),
        'nickel',
        'secondary',
      );
      return;
    case 'anchor':
      // shank, stock and two flukes, lying along the handle
      pencil.area(
        closed(ellipse(x - 5.6 * size, y, 1.3 * size), ellipse(x - 5.6 * size, y, 0.7 * size)),
        'nickel',
        'secondary',
      );
      pencil.area(
        knots([
          [-4.3, -0.5, 'corner'],
          [-3.2, -0.5, 'corner'],
          [-3.2, -2.2, 'corner'],
          [-2.4, -2.2, 'corner'],
          [-2.4, -0.5, 'corner'],
          [3.2, -0.5, 'corner'],
          [2.6, -2],
          [0.8, -3.1, 'corner'],
          [3.4, -3.3],
          [5, -1.6],
          [5.4, 0],
          [5, 1.6],
          [3.4, 3.3],
          [0.8, 3.1, 'corner'],
          [2.6, 2],
          [3.2, 0.5, 'corner'],
          [-2.4, 0.5, 'corner'],
          [-2.4, 2.2, 'corner'],
          [-3.2, 2.2, 'corner'],
          [-3.2, 0.5, 'corner'],
          [-4.3, 0.5, 'corner'],
          [-4.3, -0.5, 'corner'],
        ]),
        'nickel',
        'secondary',
      );
  }
}

/**
 * At the butt of a handle.
 * @param at where the handle ends; `outwards` is the way it hangs
 */
export function drawLanyard(
  pencil: Pencil,
  fitting: StyleOf<'lanyard'>,
  [x, y]: Point,
  outwards: 1 | -1,
): void {
  const out = (mm: number) => x + outwards * mm;
  const both = (a: number, b: number) => [Math.min(out(a), out(b)), Math.abs(a - b)] as const;
  switch (fitting) {
    case 'none':
      return;
    case 'ring': {
      const [left, width] = both(-2.4, 1.6);
      pencil.area(roundedRect(left, y - 1.4, width, 2.8, 0.6), 'nickel');
      pencil.area([ellipse(out(3.9), y, 4.6), ellipse(out(3.9), y, 3.35)], 'nickel');
      pencil.anchor([out(6), y]);
      return;
    }
    case 'bar': {
      const [left, width] = both(-3.4, 5.6);
      const [inner, innerWidth] = both(-3.4, 4.1);
      pencil.area(
        [roundedRect(left, y - 4.6, width, 9.2, 1.3), roundedRect(inner, y - 3.1, innerWidth, 6.2, 0.5)],
        'nickel',
      );
      pencil.anchor([out(4.9), y]);
      return;
    }
    case 'bail':
      pencil.area(
        hung(
          [
            [-6.5, -0.5],
            [-1, 0.2],
            [3.6, 0.9],
            [5.2, 1.2],
          ],
          1.7,
          [x, y],
          outwards,
        ),
        'nickel',
      );
      pencil.area(ellipse(out(5.4), y + 1.25, 1.5), 'nickel');
      return;
    case 'tube':
    case 'hole':
      // let into the scale, so drawn there and not outside it
      pencil.area(
        ellipse(out(-5.6), y, fitting === 'tube' ? 2.4 : 1.7),
        fitting === 'tube' ? 'nickel' : 'hole',
        'secondary',
      );
      if (fitting === 'tube') pencil.area(ellipse(out(-5.6), y, 1.5), 'hole', 'secondary');
  }
}
/** A wire hung at the butt, its points told outwards from there. */
const hung = (points: readonly Point[], width: number, [x, y]: Point, outwards: 1 | -1): Run =>
  strap(
    points.map(([a, b]): Point => [x + outwards * a, y + b]),
    width,
  );
export function drawShackle(pencil: Pencil, style: StyleOf<'shackle'>, at: Point): void {
  if (style === 'none') return;
  const bow: Point[] = [
    [-2.4, -2.6],
    [0, -3.8],
    [4.5, -5],
    [8.4, -3],
    [9, 0],
    [8.4, 3],
    [4.5, 5],
    [0, 3.8],
    [-2.4, 2.6],
  ];
  const straight: Point[] = [
    [-2.4, -3.2],
    [4, -3.2],
    [7, -3.1],
    [8.2, -2],
    [8.4, 0],
    [8.2, 2],
    [7, 3.1],
    [4, 3.2],
    [-2.4, 3.2],
  ];
  pencil.area(hung(style === 'bow' ? bow : straight, 1.4, at, -1), 'nickel').anchor([at[0] - 7, at[1]]);
}
/** Fittings that are let into the scale are drawn over it, those that hang from the butt under its bolster. */
export const liesOnScale = (fitting: StyleOf<'lanyard'>): boolean => fitting === 'tube' || fitting === 'hole';

export function drawPivot(pencil: Pencil, style: StyleOf<'pivot'>, x: number, y: number, r = 4.2): void {
  pencil.area(ellipse(x, y, r), style === 'cast' ? 'spring' : 'nickel');
  const inner: Run[] = [ellipse(x, y, r * 0.72)];
  if (style === 'milled') inner.push(...rays(x, y, r * 0.76, r * 0.96, 16));
  if (style !== 'cast') pencil.line(inner, 'fine');
  if (style === 'cast') pencil.line(arc(x, y, r * 0.8, 200, 330), 'inner');
  if (style === 'slotted' || style === 'cast')
    pencil.line(
      polyline([
        [x - r * 0.46, y + r * 0.28],
        [x + r * 0.46, y - r * 0.28],
      ]),
      'heavy',
    );
  if (style === 'hex' || style === 'milled') pencil.area(hexagon(x, y, r * 0.38), 'hole', 'secondary');
  if (style === 'two-hole')
    for (const side of [-1, 1]) pencil.area(ellipse(x + side * r * 0.36, y, r * 0.17), 'hole', 'secondary');
  pencil.anchor([x, y]);
}
const rays = (x: number, y: number, from: number, to: number, n: number): Run[] =>
  Array.from({ length: n }, (_, i): Run => {
    const a = (i / n) * 2 * Math.PI;
    return polyline([
      [x + from * Math.cos(a), y + from * Math.sin(a)],
      [x + to * Math.cos(a), y + to * Math.sin(a)],
    ]);
  });
export const hexagon = (x: number, y: number, r: number): Run =>
  polygon(
    Array.from({ length: 6 }, (_, i): Point => [
      x + r * Math.cos((i * Math.PI) / 3),
      y + r * Math.sin((i * Math.PI) / 3),
    ]),
  );
export const screw = (pencil: Pencil, x: number, y: number, r = 1.6): Pencil =>
  pencil.area(ellipse(x, y, r), 'nickel', 'secondary').line(hexagon(x, y, r * 0.45), 'fine', DETAIL.fittings);
