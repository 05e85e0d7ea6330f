/**
 * What a surface is made of, told by lines and not by colour alone: streaks for horn, pick marks for jigged bone, bands
 * for laminate, a weave for carbon. Every mark lies between the form's top and bottom, so nothing has to be clipped.
 */
import { random } from '../../random/index.ts';
import type { Form } from '../geometry/form.ts';
import { lerp, polygon, polyline, type Point, type Run } from '../geometry/path.ts';
import type { Paint, Pencil } from './sheet.ts';
import type { Texture } from './vocabulary.ts';

interface Field {
  readonly form: Form;
  readonly from: number;
  readonly to: number;
  readonly next: () => number;
  /** fewer and larger marks on a large surface, so that a card stays light: 1 on a slipjoint's scales */
  readonly density: number;
}
type Marks = (field: Field, pencil: Pencil) => void;

export const PAINT_OF: Readonly<Record<Texture, Paint>> = {
  horn: 'horn',
  jigged: 'bone',
  stag: 'stag',
  ebony: 'ebony',
  wood: 'wood',
  figured: 'wood',
  fibre: 'fibre',
  celluloid: 'celluloid',
  laminate: 'laminate',
  carbon: 'carbon',
  layered: 'layered',
  milled: 'titanium',
  chequered: 'ebony',
  brushed: 'nickel',
  leather: 'leather',
  rings: 'leather',
  smooth: 'bone',
};

/** A number for a text, always the same: textures are seeded by what a part is, never by whose it is. */
export function seedOf(...values: readonly (string | number)[]): number {
  let h = 2166136261;
  for (const c of values.join('|')) h = Math.imul(h ^ (c.codePointAt(0) ?? 0), 16777619);
  return h >>> 0;
}
const times = <T>(n: number, make: (i: number) => T): T[] =>
  Array.from({ length: Math.max(0, Math.round(n)) }, (_, i) => make(i));
/** So many marks to the millimetre. */
const count = ({ from, to, density }: Field, perMm: number) => (to - from) * perMm * density;
const within = ({ from, to, next }: Field): number => lerp(from, to, next());
const flat = () => 0;
const streak = (field: Field, share: number, x: number, length: number, wave: (x: number) => number = flat) =>
  field.form.stripe(share, Math.max(field.from, x), Math.min(field.to, x + length), wave);
/** A small cloud: six corners are round enough at its size. */
const cloud = (x: number, y: number, rx: number, ry: number): Run =>
  polygon(
    times(6, (i): Point => [x + rx * Math.cos((i * Math.PI) / 3), y + ry * Math.sin((i * Math.PI) / 3)]),
  );
/** Straight streaks all over, of lengths between two, mm. */
const streaks = (field: Field, perMm: number, shortest: number, longest: number): Run[] =>
  times(count(field, perMm), () =>
    streak(field, lerp(0.04, 0.96, field.next()), within(field), lerp(shortest, longest, field.next())),
  );
/** The shortest lines there are, all over; a card has room for so many. */
const MOST_SPECKS = 220;
const specks = (field: Field, perMm: number, length: number): Run[] =>
  times(Math.min(MOST_SPECKS, count(field, perMm)), () => {
    const [x, share] = [within(field), lerp(0.04, 0.96, field.next())];
    return polyline([
      [x, field.form.share(x, share)],
      [x + length, field.form.share(x, share)],
    ]);
  });
/** Lines across at a lean, from top to bottom, x kept within the field. */
const leaning = ({ form, from, to, density }: Field, apart: number, lean: number): Run[] => {
  const step = apart / density;
  const [first, last] = [Math.min(from, from - lean), Math.max(to, to - lean)];
  return times((last - first) / step, (i) => first + (i + 0.5) * step).flatMap((x) => {
    const shares = [(from - x) / lean, (to - x) / lean].sort((a, b) => a - b);
    const [a, b] = [Math.max(0.02, shares[0] ?? 0), Math.min(0.98, shares[1] ?? 1)];
    if (b - a < 0.05) return [];
    const at = (t: number): Point => [x + lean * t, form.share(x + lean * t, t)];
    return [polyline([at(a), at((a + b) / 2), at(b)])];
  });
};

const MARKS: Readonly<Record<Texture, Marks>> = {
  horn(field, pencil) {
    const veins = times(count(field, 0.5), (i) => {
      const [x, length, share] = [
        lerp(field.from - 6, field.to - 6, field.next()),
        lerp(6, 26, field.next()),
        lerp(0.03, 0.97, field.next()),
      ];
      const [phase, sway] = [field.next() * 6, lerp(0.01, 0.03, field.next())];
      return {
        light: i % 7 === 0,
        run: streak(field, share, x, length, (at) => sway * Math.sin(at / 6 + phase)),
      };
    }).filter(({ run }) => run.segments.length > 0);
    pencil.line(
      veins.filter((s) => !s.light).map((s) => s.run),
      'texture',
    );
    pencil.line(
      veins.filter((s) => s.light).map((s) => s.run),
      'light',
      1.5,
    );
  },
  jigged(field, pencil) {
    const { form, from, to, next, density } = field;
    const step = 2.7 / density;
    const picks = times((to - from - 1.4) / step, (column) =>
      times(4, (row): Run[] => {
        const share = (row + 0.5 + (column % 2 ? 0.26 : -0.2)) / 4.1 + 0.07 * next() - 0.035;
        const x = from + 1.4 + column * step + next() * 0.8 - 0.4;
        const [length, width, lean] = [
          (0.9 + next() * 0.6) / density,
          (0.34 + next() * 0.2) / density,
          -62 + next() * 44,
        ];
        if (share < 0.07 || share > 0.93) return [];
        const [c, s, y] = [
          Math.cos((lean * Math.PI) / 180),
          Math.sin((lean * Math.PI) / 180),
          form.share(x, share),
        ];
        const at = (along: number, across: number): Point => [
          x + along * c - across * s,
          y + along * s + across * c,
        ];
        return [polygon([at(-length, 0), at(length * 0.3, -width), at(length, 0), at(length * 0.2, width)])];
      }).flat(),
    ).flat();
    pencil.patches(picks);
  },
  stag(field, pencil) {
    const furrows = times(count(field, 0.4), () => {
      const [x, length, share, phase] = [
        within(field),
        lerp(4, 15, field.next()),
        lerp(0.06, 0.94, field.next()),
        field.next() * 9,
      ];
      return streak(field, share, x, length, (at) => 0.03 * Math.sin(at / 2.2 + phase));
    });
    const bark = times(count(field, 0.3), () => {
      const share = field.next() < 0.5 ? lerp(0.05, 0.22, field.next()) : lerp(0.74, 0.94, field.next());
      const [x, rx] = [lerp(field.from + 3, field.to - 4, field.next()), 1.2 + field.next() * 2.4];
      return cloud(x, field.form.share(x, share), rx, 0.35 + field.next() * 0.4);
    });
    pencil.patches(bark).line(furrows, 'texture');
  },
  ebony(field, pencil) {
    pencil.line(streaks(field, 0.7, 3, 13), 'texture');
  },
  wood(field, pencil) {
    const { from, to } = field;
    const knot = lerp(from, to, 0.4 + 0.3 * field.next());
    const grain = times(9, (i) => {
      const share = (i + 0.5) / 9;
      const off = share - 0.48;
      const push = -Math.sign(off || 1) * Math.max(0, 0.14 - Math.abs(off) * 0.35);
      return field.form.stripe(
        share,
        from,
        to,
        (x) => push * Math.exp(-(((x - knot) / ((to - from) * 0.2)) ** 2)),
      );
    });
    pencil.line(grain, 'texture');
    pencil.line(specks(field, 0.5, 1.1), 'texture');
  },
  figured(field, pencil) {
    // curl: short bands across the grain, each a little bowed
    const { form, from, to, next } = field;
    const bands = times(count(field, 0.5), () => {
      const [x, share, tall, bow] = [
        lerp(from + 1, to - 3, next()),
        lerp(0.06, 0.6, next()),
        lerp(0.16, 0.34, next()),
        lerp(0.6, 1.8, next()),
      ];
      const at = (t: number): Point => [x + bow * 4 * t * (1 - t), form.share(x + bow, share + tall * t)];
      return polyline([at(0), at(0.35), at(0.7), at(1)]);
    });
    pencil.line(bands, 'texture');
    pencil.line(
      [0.2, 0.5, 0.8].map((share) => form.stripe(share, from, to, flat)),
      'texture',
    );
  },
  fibre(field, pencil) {
    pencil.line(specks(field, 2.6, 0.2), 'texture');
  },
  celluloid(field, pencil) {
    const clouds = times(count(field, 0.8), () => {
      const [x, r] = [within(field), 0.7 + field.next() * 1.5];
      return cloud(x, field.form.share(x, lerp(0.12, 0.88, field.next())), r * 1.3, r * 0.7);
    });
    pencil.patches(clouds.filter((_, i) => i % 2 === 0));
    pencil.patches(
      clouds.filter((_, i) => i % 2 === 1),
      'light',
    );
  },
  laminate(field, pencil) {
    const { form, from, to } = field;
    pencil.line(
      times(11, (i) => {
        const share = (i + 1) / 12;
        const sway = 0.07 * Math.sin(Math.PI * share);
        return form.stripe(
          share,
          from,
          to,
          (x) => sway * Math.sin(((x - from) / (to - from)) * Math.PI * 2.4 + 0.6),
        );
      }),
      'texture',
    );
  },
  carbon(field, pencil) {
    const { form, from, to } = field;
    const step = 2.6 / field.density;
    const [columns, rows] = [Math.floor((to - from) / step), 7];
    const cells = times(columns, (i) =>
      times(rows, (j): Run[] => {
        if ((i + j) % 4 >= 2) return [];
        const [x, a, b] = [from + 0.3 + i * step, (j + 0.1) / rows, (j + 0.9) / rows];
        return [
          polygon([
            [x, form.share(x, a)],
            [x + step * 0.85, form.share(x + step * 0.85, a)],
            [x + step * 0.85, form.share(x + step * 0.85, lerp(a, b, 0.6))],
            [x, form.share(x, b)],
          ]),
        ];
      }).flat(),
    ).flat();
    pencil.patches(cells);
  },
  layered(field, pencil) {
    pencil.line(
      leaning(field, 1.7, field.form.bottom(field.from + 9) - field.form.top(field.from + 9)),
      'texture',
    );
    pencil.line(
      leaning(field, 1.7, field.form.top(field.from + 9) - field.form.bottom(field.from + 9)),
      'light',
      1.5,
    );
  },
  milled(field, pencil) {
    const inner = { ...field, from: field.from + 3 };
    pencil.line(leaning(inner, 3.2, 4.2), 'texture');
    pencil.line(leaning({ ...inner, from: inner.from + 0.5 }, 3.2, 4.2), 'light', 1.5);
  },
  chequered(field, pencil) {
    pencil.line([...leaning(field, 1.9, 14), ...leaning(field, 1.9, -14)], 'texture');
  },
  brushed(field, pencil) {
    pencil.line(streaks(field, 0.55, 8, 28), 'texture');
  },
  leather(field, pencil) {
    pencil.line(specks(field, 2.4, 0.4), 'texture');
  },
  rings(field, pencil) {
    pencil.line(
      times((field.to - field.from - 2) / 2.35, (i) => field.form.across({ x: field.from + 2 + i * 2.35 })),
      'texture',
    );
  },
  smooth() {
    // a plain surface is told by having no marks
  },
};

/** The surface of which marks are as close as they are told, mm². */
const USUAL_SURFACE = 1000;
/** @param share of the usual closeness, where a surface is drawn twice */
export function drawTexture(
  pencil: Pencil,
  texture: Texture,
  form: Form,
  from: number,
  to: number,
  share = 1,
): void {
  const middle = (from + to) / 2;
  const surface = (to - from) * (form.bottom(middle) - form.top(middle));
  const density = Math.min(1, USUAL_SURFACE / surface) * share;
  const { next } = random(seedOf(texture, Math.round(from), Math.round(to)));
  MARKS[texture]({ form, from, to, next, density }, pencil);
}

/** Lines that run with the form, closer towards its shaded side, and a light along the top. */
export function drawRoundness(pencil: Pencil, form: Form, begin: number, end: number, lines = 5): void {
  const [from, to] = [Math.max(begin, form.straight[0]), Math.min(end, form.straight[1])];
  if (to - from < 1) return;
  const shade = times(lines, (i) => {
    const k = (i + 0.35) / lines;
    return form.stripe(1 - 0.3 * k ** 1.35, lerp(from, to, 0.02 + 0.09 * k), lerp(to, from, 0.01 + 0.11 * k));
  });
  pencil.line(shade, 'shade', 1.5);
  pencil.line([form.stripe(0.1, lerp(from, to, 0.08), lerp(from, to, 0.9))], 'light', 1.5);
}
