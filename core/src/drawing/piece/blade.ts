/**
 * A blade in its own frame, mm: the pin at the origin, the tip towards greater x, the edge towards smaller y, the back
 * at `back`. A folder turns it about its pin, a straight knife turns it once.
 */
import { throughPoints } from '../geometry/graph.ts';
import {
  arc,
  areaOf,
  closed,
  flattened,
  joined,
  lerp,
  polyline,
  reversed,
  smooth,
  type Knot,
  type Point,
  type Run,
} from '../geometry/path.ts';
import { random } from '../../random/index.ts';
import { OUTLINES, type Outline } from './bladeForms.ts';
import type { PartState, StampRecipe } from './recipe.ts';
import { DETAIL, type Paint, type Pencil, type Sheet } from './sheet.ts';
import { drawStamp } from './stamp.ts';
import { seedOf } from './texture.ts';
import type { BladeForm, Styles } from './vocabulary.ts';

type BladeStyles = Pick<Styles, 'pull' | 'grind' | 'finish'>;
export const bladeStyles = ({ pull = 'none', grind = 'flat', finish = 'satin' }: Styles): BladeStyles => ({
  pull,
  grind,
  finish,
});

export interface BladeSpec {
  /** the drawn part's name, 'blade:1' */
  readonly part: string;
  readonly state: PartState;
  readonly form: BladeForm;
  /** from the pin to the tip, mm */
  readonly reach: number;
  readonly height: number;
  /** from the pin to the back, mm */
  readonly back: number;
  /** from the pin to where the edge begins, mm */
  readonly heel: number;
  /** a folder's tang about its pin; a straight knife has none */
  readonly tang?: { readonly radius: number; readonly square: boolean; readonly choil: 'notch' | 'curve' };
  readonly styles: BladeStyles;
  /** share of the outline when new that is left */
  readonly fullness?: number | undefined;
  readonly stamp?: StampRecipe | undefined;
  /** where the stamp's middle stands along it */
  readonly stampAt?: number;
  readonly outline?: readonly (readonly [number, number])[] | undefined;
}
export interface DrawnBlade {
  readonly tip: Point;
  readonly edge: readonly Point[];
  /** y of the back and of the edge at an x of the blade's own frame */
  readonly backAt: (x: number) => number;
  readonly edgeAt: (x: number) => number;
  /** a place on the blade: along it and across it */
  readonly at: (along: number, across: number) => Point;
}
const FINISH: Readonly<Record<NonNullable<Styles['finish']>, Paint>> = {
  bright: 'steel',
  satin: 'steel',
  stonewashed: 'spring',
  black: 'black',
  blued: 'blued',
  phosphated: 'phosphated',
};

export function drawBlade(sheet: Sheet, spec: BladeSpec): DrawnBlade {
  const shape = OUTLINES[spec.form];
  const { reach, heel, height, back: backY } = spec;
  const along = alongOf(shape, heel, reach, height);
  const across = (share: number) => backY - height * share;
  const knot = ([x, y, turn]: Knot): Knot => [along(x), across(y), turn];
  const traced =
    spec.outline && spec.outline.length > 2 ? tracedSides(spec.outline, heel, reach, backY) : undefined;
  const back = traced?.back ?? smooth(shape.back.map(knot));
  const edgeNew = traced?.edge ?? smooth(shape.edge.map(knot));
  const worn =
    spec.fullness !== undefined && spec.fullness < 0.995
      ? wornEdge(back, edgeNew, spec.fullness, height)
      : undefined;
  const edge = worn?.edge ?? edgeNew;
  const backLeft = worn?.back ?? back;
  const tang = spec.tang
    ? tangRun(spec.tang, backY, heel, across(1))
    : polyline([
        [0, backY],
        [0, across(0.82)],
        [heel - 1.5, across(0.84)],
      ]);
  const pencil = sheet.part(spec.part, spec.state);
  pencil.area(closed(reversed(backLeft), tang, edge), FINISH[spec.styles.finish ?? 'satin']);

  const edgePoints = flattened(edge);
  const backAt = throughPoints(flattened(backLeft));
  const edgeAt = throughPoints(edgePoints);
  const tip = edgePoints.at(-1) ?? [reach, backY];
  const blade: DrawnBlade = {
    tip,
    edge: edgePoints,
    backAt,
    edgeAt,
    at: (u, v) => [along(u), lerp(backAt(along(u)), edgeAt(along(u)), v)],
  };
  drawGrind(pencil, blade, shape, spec, along);
  drawSurface(pencil, blade, spec, along);
  drawPull(pencil, shape, spec, along);
  if (spec.stamp)
    drawStamp(
      pencil,
      spec.stamp,
      [spec.stampAt ?? heel - 0.4, across(0.5)],
      Math.min(1.8, height * 0.16),
      DETAIL.lettering,
    );
  if (worn)
    sheet.part(`${spec.part}:lost`, spec.state).area(closed(edgeNew, reversed(worn.whole)), 'hole', 'lost');
  const [ax, ay] = blade.at(0.55, 0.5);
  pencil.anchor([ax, ay]);
  return blade;
}

/** x by the share of the way: tips go by the blade's height, so a long blade has no longer tip. */
function alongOf(shape: Outline, heel: number, reach: number, height: number): (share: number) => number {
  const length = reach - heel;
  if (!shape.tip) return (u) => heel + length * u;
  const [from, heights] = shape.tip;
  const tip = Math.min(length * 0.6, heights * height);
  return (u) => (u <= from ? heel + ((length - tip) * u) / from : reach - (tip * (1 - u)) / (1 - from));
}

/** A traced outline's back and edge, scaled to the recorded length: spine first, as an imported outline has it. */
function tracedSides(
  outline: readonly (readonly [number, number])[],
  heel: number,
  reach: number,
  backY: number,
) {
  const length = Math.max(...outline.map(([x]) => x));
  const top = Math.min(...outline.map(([, y]) => y));
  const tip = outline.findIndex(([x]) => x === length);
  const scale = (reach - heel) / length;
  const placed = outline.map(([x, y]): Point => [heel + x * scale, backY - (y - top) * scale]);
  const [first, second] = [placed.slice(0, tip + 1), placed.slice(tip)];
  const upper = mean(first) >= mean(second) ? first : [...second].reverse();
  const lower = upper === first ? [...second].reverse() : first;
  const run = (side: Point[]) => smooth([...side].sort((a, b) => a[0] - b[0]));
  return { back: run(upper), edge: run(lower) };
}
const mean = (points: readonly Point[]) =>
  points.reduce((sum, [, y]) => sum + y, 0) / Math.max(1, points.length);

/** The round end about the pin, then the kick or the choil up to where the edge begins. */
function tangRun(
  { radius: r, square, choil }: NonNullable<BladeSpec['tang']>,
  back: number,
  heel: number,
  edge: number,
): Run {
  const end = square
    ? smooth([
        [r * 0.3, r, 'corner'],
        [-r * 0.7, r],
        [-r * 0.97, r * 0.7],
        [-r * 0.97, -r * 0.7],
        [-r * 0.7, -r],
        [0, -r, 'corner'],
      ])
    : arc(0, 0, r, 90, 270);
  const kick = heel - 3.5;
  const front: readonly Knot[] =
    choil === 'curve'
      ? [
          [heel - 7.5, -r, 'corner'],
          [heel - 4.6, lerp(-r, edge, 0.1)],
          [heel - 2.4, lerp(-r, edge, 0.42)],
          [heel - 1.2, lerp(-r, edge, 0.85)],
          [heel, edge, 'corner'],
        ]
      : [
          [kick - 5, -r, 'corner'],
          [kick - 3, -r + 0.3],
          [kick - 0.4, -r - 0.2],
          [kick + 0.45, -r + 0.05],
          [kick + 1.1, lerp(-r, edge, 0.55)],
          [kick + 2.2, edge + 0.75],
          [heel, edge, 'corner'],
        ];
  return joined(
    polyline([
      [r * 0.42 + 1.5, back],
      [r * 0.42, Math.max(r, back - 1.8)],
      [r * 0.3, r],
    ]),
    end,
    smooth(front),
  );
}

/**
 * Wear walks the edge towards the back, most at belly and tip, until the outline's area is the share that is left
 * (found by halving). The tip moves back where the edge reaches the back.
 */
function wornEdge(back: Run, edge: Run, fullness: number, height: number) {
  const [backPoints, edgePoints] = [flattened(back, 8), flattened(edge, 8)];
  const [backAt, edgeAt] = [throughPoints(backPoints), throughPoints(edgePoints)];
  const [from, to] = [edgePoints[0]?.[0] ?? 0, edgePoints.at(-1)?.[0] ?? 1];
  const whole = areaOf([...backPoints, ...[...edgePoints].reverse()]);
  const walked = (depth: number): Point[] => {
    const points: Point[] = [];
    for (let i = 0; i <= 40; i++) {
      const u = i / 40;
      const x = lerp(from, to, u);
      const y = edgeAt(x) + depth * (0.28 + 0.9 * u ** 1.1 - 0.3 * u ** 6) * Math.min(1, u / 0.06);
      if (u > 0.3 && y >= backAt(x) - 0.02) return [...points, [x, backAt(x)]];
      points.push([x, y]);
    }
    return points;
  };
  const backTo = (tip: Point): Point[] => [...backPoints.filter(([x]) => x < tip[0] - 1e-6), tip];
  let [low, high] = [0, height];
  for (let i = 0; i < 26; i++) {
    const depth = (low + high) / 2;
    const line = walked(depth);
    const left = areaOf([...backTo(line.at(-1) ?? [to, 0]), ...[...line].reverse()]);
    if (left / whole > fullness) low = depth;
    else high = depth;
  }
  const line = walked(low);
  const tip = line.at(-1) ?? [to, 0];
  const lostBack = backPoints.filter(([x]) => x > tip[0] + 1e-6);
  return { edge: smooth(line), back: polyline(backTo(tip)), whole: polyline([...line, ...lostBack]) };
}

type Along = (share: number) => number;
function onBlade(blade: DrawnBlade, across: number, from: number, to: number): Run {
  return smooth(pointsOn(blade, across, from, to, Math.max(3, Math.ceil((to - from) / 9))));
}
const pointsOn = (blade: DrawnBlade, across: number, from: number, to: number, steps: number): Point[] =>
  Array.from({ length: steps + 1 }, (_, i): Point => {
    const x = lerp(from, to, i / steps);
    return [x, lerp(blade.backAt(x), blade.edgeAt(x), across)];
  });

/** Plunge and grind line, the honed bevel, the false edge. */
function drawGrind(pencil: Pencil, blade: DrawnBlade, shape: Outline, spec: BladeSpec, along: Along): void {
  const tip = blade.tip[0];
  const plunge = along(0.03);
  const [edge, back] = [blade.edgeAt(plunge), blade.backAt(plunge)];
  if ((spec.styles.grind ?? 'flat') === 'flat')
    pencil.line(
      smooth([
        [plunge, edge + 0.1],
        [plunge + 0.9, lerp(edge, back, 0.3)],
        [plunge + 1.2, lerp(edge, back, 0.8)],
      ]),
      'inner',
    );
  else {
    const turn = Math.min(spec.height * 0.2, 4);
    const line = onBlade(blade, 0.5, plunge + turn, tip - spec.height * 0.12);
    pencil.line(
      joined(
        smooth([
          [plunge, edge],
          [plunge + turn * 0.3, lerp(edge, line.start[1], 0.72)],
          [plunge + turn, line.start[1]],
        ]),
        line,
      ),
      'inner',
    );
  }
  const width = Math.min(0.75, spec.height * 0.055);
  const bevel = blade.edge.filter(([x]) => x > plunge && x < tip - 0.6);
  const honed = bevel
    .filter((_, i) => i % 4 === 0)
    .map(([x, y]): Knot => [x, Math.min(y + width, blade.backAt(x))]);
  if (honed.length > 2) pencil.line(smooth(honed), 'fine');
  if (shape.ridge) pencil.line(onBlade(blade, 0.5, along(0.04), tip - 0.5), 'inner');
  if (!shape.swedge) return;
  const [from, to] = [along(shape.swedge[0]), Math.min(along(shape.swedge[1]), tip - 1)];
  if (to <= from) return;
  const knots = Array.from({ length: 7 }, (_, i): Knot => {
    const x = lerp(from, to, i / 6);
    return [
      x,
      lerp(blade.backAt(x), blade.edgeAt(x), 0.1 * Math.sin(Math.PI * Math.min(1, (i / 6) * 0.92 + 0.08))),
    ];
  });
  pencil.line(smooth(knots), 'inner');
}

/** Polishing lines and the shade under the back; a washed finish is scratched every way. */
function drawSurface(pencil: Pencil, blade: DrawnBlade, spec: BladeSpec, along: Along): void {
  const length = spec.reach - spec.heel;
  const finish = spec.styles.finish ?? 'satin';
  const { next } = random(seedOf(spec.form, Math.round(spec.reach), finish));
  const tip = blade.tip[0];
  if (finish === 'satin') {
    const lines = Array.from({ length: Math.round(length / 7) }, () => {
      const from = along(0.05 + 0.75 * next());
      const to = Math.min(from + length * (0.06 + 0.16 * next()), tip - 2);
      return polyline(pointsOn(blade, 0.2 + 0.66 * next(), from, to, 2));
    });
    pencil.line(lines, 'texture');
  }
  if (finish === 'stonewashed' || finish === 'phosphated') {
    const grain = Array.from({ length: Math.round(length * 0.9) }, (): Run => {
      const [x, v] = [lerp(along(0.03), tip - 4, next()), 0.12 + 0.76 * next()];
      const y = lerp(blade.backAt(x), blade.edgeAt(x), v);
      const size = finish === 'phosphated' ? 0.25 : 0.9;
      return polyline([
        [x, y],
        [x + size * (next() - 0.3), y + size * (next() - 0.5)],
      ]);
    });
    pencil.line(grain, 'texture');
  }
  const shade = Array.from({ length: 3 }, (_, i) =>
    onBlade(blade, 0.03 + i * 0.035, along(0.02 + 0.04 * i), along(0.78 - 0.12 * i)),
  );
  pencil.line(shade, 'shade', DETAIL.texture);
}

function drawPull(pencil: Pencil, shape: Outline, spec: BladeSpec, along: Along): void {
  const pull = spec.styles.pull ?? 'none';
  if (pull === 'none') return;
  const y = spec.back;
  if (pull === 'crescent') {
    const [x, half] = [along(0.42), Math.min(4.4, Math.max(3.1, (spec.reach - spec.heel) * 0.062))];
    pencil.area(
      closed(
        smooth([
          [x - half, y - 0.8, 'corner'],
          [x - half * 0.5, y - 1.9],
          [x, y - 2.35],
          [x + half * 0.5, y - 1.9],
          [x + half, y - 0.8, 'corner'],
        ]),
      ),
      'cut',
      'secondary',
    );
    return;
  }
  const turn = shape.back.find(([, , corner]) => corner === 'corner')?.[0] ?? 0.62;
  const [from, to] = [
    along(0.1),
    along(pull === 'match' ? Math.min(0.58, turn - 0.03) : Math.min(0.7, turn - 0.03)),
  ];
  pencil.area(
    closed(
      polyline([
        [from, y - 1],
        [from + 0.9, y - 2.05],
        [to - 0.5, y - 2.05],
        [to, y - 1.4],
        [to, y - 1],
      ]),
    ),
    'cut',
    'secondary',
  );
  if (pull !== 'match') return;
  const teeth = Array.from({ length: Math.floor((to - from - 2) / 0.9) }, (_, i): Run =>
    polyline([
      [from + 1.4 + i * 0.9, y - 1.1],
      [from + 1 + i * 0.9, y - 1.95],
    ]),
  );
  pencil.line(teeth, 'fine', DETAIL.fittings);
}
