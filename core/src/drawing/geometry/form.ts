/**
 * A long form between two lines: a handle, a grip, a scabbard. Top and bottom are single-valued, the ends rounded; every
 * bolster, stripe and groove on it is an interpolation between the two.
 */
import { between, stretch, type Graph } from './graph.ts';
import { bezier, closed, joined, lerp, polyline, reversed, smooth, type Point, type Run } from './path.ts';

export interface RoundedEnd {
  /** how far from the end the rounding begins, mm; 0 for a square end */
  readonly radius: number;
  /** 0.55 is an ellipse, more is squarer */
  readonly fullness?: number;
  /** where between top and bottom the end stands furthest out */
  readonly peak?: number;
}
export interface FormLines {
  readonly left: number;
  readonly right: number;
  readonly top: Graph;
  readonly bottom: Graph;
  readonly leftEnd?: RoundedEnd;
  readonly rightEnd?: RoundedEnd;
}
/** A joint across the form: where, and how far its middle stands out towards greater x. */
export interface Joint {
  readonly x: number;
  readonly bulge?: number;
}
export interface Form {
  readonly left: number;
  readonly right: number;
  /** between its rounded ends */
  readonly straight: readonly [from: number, to: number];
  top(x: number): number;
  bottom(x: number): number;
  middle(x: number): number;
  /** y at a share of the way from top to bottom */
  share(x: number, share: number): number;
  /** the closed outline, or the part of it between two joints */
  region(from?: Joint, to?: Joint): Run;
  /** a line along the form at a share of its height, with a wave laid on it (a share too) */
  stripe(share: number, from: number, to: number, wave?: (x: number) => number): Run;
  /** a line across */
  across(joint: Joint, from?: number, to?: number): Run;
  /** the same form with its top and bottom drawn in */
  inset(by: number, ends?: number): Form;
}

type Cap = readonly [Point, Point, Point, Point];
const DEFAULT_FULLNESS = 0.5523;

export function formOf(lines: FormLines): Form {
  const { left, right, top, bottom } = lines;
  const cap = (end: RoundedEnd | undefined, x: number, sign: 1 | -1) => {
    const r = end?.radius ?? 0;
    if (r <= 0) return undefined;
    const inner = x + sign * r;
    const k = end?.fullness ?? DEFAULT_FULLNESS;
    const peak = lerp(top.at(x), bottom.at(x), end?.peak ?? 0.5);
    const quarter = (edge: Graph): Cap => [
      [inner, edge.at(inner)],
      [inner - sign * k * r, edge.at(inner) - sign * edge.slope(inner) * k * r],
      [x, lerp(peak, edge.at(inner), k)],
      [x, peak],
    ];
    return { inner, upper: quarter(top), lower: quarter(bottom) };
  };
  const leftCap = cap(lines.leftEnd, left, 1);
  const rightCap = cap(lines.rightEnd, right, -1);
  const straightFrom = leftCap?.inner ?? left;
  const straightTo = rightCap?.inner ?? right;
  const y = (x: number, edge: Graph, which: 'upper' | 'lower') => {
    if (leftCap && x < straightFrom) return onCap(leftCap[which], Math.max(x, left));
    if (rightCap && x > straightTo) return onCap(rightCap[which], Math.min(x, right));
    return edge.at(x);
  };
  const form: Form = {
    left,
    right,
    straight: [straightFrom, straightTo],
    top: (x) => y(x, top, 'upper'),
    bottom: (x) => y(x, bottom, 'lower'),
    middle: (x) => (form.top(x) + form.bottom(x)) / 2,
    share: (x, share) => lerp(form.top(x), form.bottom(x), share),
    across: ({ x, bulge = 0 }, from = 0, to = 1) => {
      const at = (share: number): Point => {
        const out = x + bulge * 4 * share * (1 - share);
        return [out, form.share(out, share)];
      };
      return bulge === 0 ? polyline([at(from), at(to)]) : smooth([at(from), at((from + to) / 2), at(to)]);
    },
    region: (from, to) => {
      const begin = from ? Math.max(from.x, straightFrom) : straightFrom;
      const finish = to ? Math.min(to.x, straightTo) : straightTo;
      const leftSide = from
        ? reversed(form.across({ ...from, x: begin }))
        : leftCap
          ? joined(capRun(leftCap.lower), reversed(capRun(leftCap.upper)))
          : { start: [left, bottom.at(left)] as Point, segments: [[[left, top.at(left)] as Point]] as const };
      const rightSide = to
        ? form.across({ ...to, x: finish })
        : rightCap
          ? joined(capRun(rightCap.upper), reversed(capRun(rightCap.lower)))
          : {
              start: [right, top.at(right)] as Point,
              segments: [[[right, bottom.at(right)] as Point]] as const,
            };
      return closed(
        stretch(top, begin, finish),
        rightSide,
        reversed(stretch(bottom, begin, finish)),
        leftSide,
      );
    },
    stripe: (share, from, to, wave) => {
      const [a, b] = [Math.max(from, left + 0.1), Math.min(to, right - 0.1)];
      if (b <= a) return { start: [a, form.share(a, share)], segments: [] };
      if (!wave && a >= straightFrom && b <= straightTo) return stretch(between(top, bottom, share), a, b);
      const n = Math.max(2, wave ? Math.min(20, Math.ceil((b - a) / 2.6)) : Math.ceil((b - a) / 6));
      const points = Array.from({ length: n + 1 }, (_, i): Point => {
        const x = lerp(a, b, i / n);
        return [x, form.share(x, share + (wave?.(x) ?? 0))];
      });
      // a waved stripe is one of many on a surface: short straight steps look the same and are written in a third
      return wave ? polyline(points) : smooth(points);
    },
    inset: (by, ends = by) =>
      formOf({
        left: left + ends,
        right: right - ends,
        top: raised(top, by),
        bottom: raised(bottom, -by),
        leftEnd: { ...lines.leftEnd, radius: Math.max(0, (lines.leftEnd?.radius ?? 0) - by) },
        rightEnd: { ...lines.rightEnd, radius: Math.max(0, (lines.rightEnd?.radius ?? 0) - by) },
      }),
  };
  return form;
}
const raised = (graph: Graph, by: number): Graph => ({ ...graph, at: (x) => graph.at(x) + by });
const capRun = ([start, a, b, end]: Cap): Run => ({ start, segments: [[a, b, end]] });

/** y on a rounded end at an x: its x falls or rises all along, so halving finds it. */
function onCap([a, b, c, d]: Cap, x: number): number {
  let [low, high] = [0, 1];
  const falling = a[0] > d[0];
  for (let i = 0; i < 16; i++) {
    const t = (low + high) / 2;
    if (bezier(a[0], b[0], c[0], d[0], t) > x === falling) low = t;
    else high = t;
  }
  return bezier(a[1], b[1], c[1], d[1], (low + high) / 2);
}

const made = new Map<string, Form>();
/** Few handles are looked at in a sitting; a server's long run is kept from growing without end. */
const MOST_KEPT = 400;
/** A form that was made before from the same values: what is drawn on it is kept with it. */
export function keptForm(key: string, make: () => Form): Form {
  const known = made.get(key);
  if (known) return known;
  if (made.size >= MOST_KEPT) made.clear();
  const form = make();
  made.set(key, form);
  return form;
}
