/** Stamps drawn as they are struck: upright, slanted, arched or in script, with the signs counted beside them. */
import {
  ellipse,
  moved,
  polygon,
  polyline,
  radians,
  smooth,
  type Knot,
  type Point,
  type Run,
} from '../geometry/path.ts';
import type { SignForm, StampRecipe } from './recipe.ts';
import type { Pencil } from './sheet.ts';
import type { StyleOf } from './vocabulary.ts';
import { scriptLine } from './script.ts';

const SLANT = -16;
/** Width of a letter of the stamp face as a share of its height. */
const LETTER = 0.62;

/** Text and signs about a place, in a frame that reads from the left whichever way the part is turned. */
interface Frame {
  readonly pencil: Pencil;
  readonly size: number;
  readonly from: number;
  readonly painted: boolean;
  readonly at: (dx: number, dy: number) => Point;
}

/** @param size height of a line of letters, mm */
export function drawStamp(
  pencil: Pencil,
  stamp: StampRecipe,
  [cx, cy]: Point,
  size: number,
  from: number,
): void {
  const [across, down] = pencil.sense([cx, cy]);
  const at = (dx: number, dy: number): Point => [cx + across * dx, cy + down * dy];
  const frame: Frame = { pencil, size, from, painted: stamp.painted ?? false, at };
  LETTERINGS[stamp.lettering](frame, stamp.lines);
  const widest = Math.max(...stamp.lines.map((text) => [...text].length)) * size * LETTER;
  const tall = stamp.lines.length * size * STEP;
  if (stamp.framed === true)
    pencil.line(ellipse(cx, cy, widest / 2 + size, tall / 2 + size * 0.7), 'inner', from);
  drawSigns(frame, stamp, widest, tall);
}
const STEP = 1.22;

const centred = ({ pencil, size, from, painted, at }: Frame, lines: readonly string[], slant: number) => {
  lines.forEach((text, i) =>
    pencil.letters(at(0, (i - (lines.length - 1) / 2) * size * STEP + size * 0.36), text, size, {
      slant,
      painted,
      from,
    }),
  );
};
/** The lines beneath a first one that is arched or written, smaller. */
const beneath = (
  { pencil, size, from, painted, at }: Frame,
  lines: readonly string[],
  top: number,
  share: number,
) => {
  lines.forEach((text, i) =>
    pencil.letters(at(0, top + i * size * STEP), text, size * share, { painted, from }),
  );
};
const LETTERINGS: Readonly<
  Record<StampRecipe['lettering'], (frame: Frame, lines: readonly string[]) => void>
> = {
  upright: (frame, lines) => centred(frame, lines, 0),
  slanted: (frame, lines) => centred(frame, lines, SLANT),
  arched: (frame, [first = '', ...rest]) => {
    const { pencil, size, from, painted, at } = frame;
    const letters = [...first];
    const radius = Math.max(size * 3.4, letters.length * size * LETTER * 0.85);
    const turn = (size * LETTER * 1.16) / radius;
    letters.forEach((letter, i) => {
      const angle = (i - (letters.length - 1) / 2) * turn;
      const place = at(radius * Math.sin(angle), -size * 0.5 + radius * (1 - Math.cos(angle)));
      pencil.letters(place, letter, size, { turn: (angle * 180) / Math.PI, painted, from });
    });
    beneath(frame, rest, size * 1.15, 0.86);
  },
  script: (frame, [first = '', ...rest]) => {
    const { pencil, size, from, at } = frame;
    const lines = scriptLine(first, size * 1.25, [0, rest.length > 0 ? 0 : size * 0.45]);
    pencil.line(
      lines.map((run) => moved(run, ([x, y]) => at(x, y))),
      'heavy',
      from,
    );
    beneath(frame, rest, size * 1.6, 0.72);
  },
};

function drawSigns(
  { pencil, size, from, at }: Frame,
  { signs }: StampRecipe,
  widest: number,
  tall: number,
): void {
  if (!signs || signs.count < 1) return;
  const n = Math.min(signs.count, 40);
  const step = size * 0.72;
  const row = (y: number) => Array.from({ length: n }, (_, i) => at((i - (n - 1) / 2) * step, y));
  const column = (x: number, count: number) =>
    Array.from({ length: count }, (_, i) => at(x, (i - (count - 1) / 2) * step));
  const aside = widest / 2 + size * 0.9;
  const arched = () =>
    Array.from({ length: n }, (_, i) => {
      const radius = Math.max(widest * 0.55, size * 3);
      const angle = radians((i - (n - 1) / 2) * Math.min(12, 150 / n));
      return at(radius * Math.sin(angle), -tall / 2 - size * 0.6 + radius * (1 - Math.cos(angle)));
    });
  const places = {
    above: () => row(-tall / 2 - size * 0.55),
    below: () => row(tall / 2 + size * 0.7),
    before: () => column(-aside, n),
    after: () => column(aside, n),
    beside: () => [...column(-aside, Math.ceil(n / 2)), ...column(aside, Math.floor(n / 2))],
    arc: arched,
  }[signs.where]();
  pencil.line(
    places.flatMap((place) => sign(signs.form, place, size * 0.28)),
    'heavy',
    from,
  );
}
function sign(form: SignForm, [x, y]: Point, r: number): Run[] {
  const ray = (degrees: number, length = r): Run => {
    const [dx, dy] = [Math.cos(radians(degrees)) * length, Math.sin(radians(degrees)) * length];
    return polyline([
      [x - dx, y - dy],
      [x + dx, y + dy],
    ]);
  };
  return {
    tick: () => [ray(90, r * 1.3)],
    dot: () => [ellipse(x, y, r * 0.35)],
    ring: () => [ellipse(x, y, r)],
    star: () => [ray(90), ray(30), ray(150)],
    cross: () => [ray(0), ray(90)],
    diamond: () => [
      polygon([
        [x - r, y],
        [x, y - r],
        [x + r, y],
        [x, y + r],
      ]),
    ],
  }[form]();
}

/** A property mark as stores and arsenals strike it, about a point. */
export function propertyMark(
  form: Exclude<StyleOf<'property-mark'>, 'none'>,
  [x, y]: Point,
  size: number,
): Run[] {
  const run = (points: readonly Point[]) =>
    polyline(points.map(([a, b]): Point => [x + a * size, y + b * size]));
  const curve = (knots: readonly Knot[]) => smooth(knots.map(([a, b]): Knot => [x + a * size, y + b * size]));
  return {
    'crowned-wave': () => [
      curve([
        [-1.2, 0.5],
        [-0.6, 0.1],
        [0, 0.5],
        [0.6, 0.9],
        [1.2, 0.5],
      ]),
      run([
        [-0.9, -0.2],
        [-1, -1],
        [-0.45, -0.6],
        [0, -1.2],
        [0.45, -0.6],
        [1, -1],
        [0.9, -0.2],
        [-0.9, -0.2],
      ]),
    ],
    star: () =>
      [-90, 54, 198, 342, 126, -90].slice(0, 5).map((a, i, all) => {
        const b = all[(i + 1) % all.length] ?? -90;
        return run([
          [Math.cos(radians(a)), Math.sin(radians(a))],
          [Math.cos(radians(b)), Math.sin(radians(b))],
        ]);
      }),
    lozenge: () => [
      run([
        [-0.7, 0],
        [0, -1],
        [0.7, 0],
        [0, 1],
        [-0.7, 0],
      ]),
    ],
    initials: () => [
      run([
        [-1, 0.8],
        [-1, -0.8],
        [0, 0.4],
        [1, -0.8],
        [1, 0.8],
      ]),
    ],
  }[form]();
}
