/** Runs of cubic curves in millimetres, y downwards: what every drawn line is made of. */
export type Point = readonly [x: number, y: number];
/** A straight step to a point, or a cubic curve by its two control points and its end. */
export type Segment = readonly [end: Point] | readonly [first: Point, second: Point, end: Point];
export interface Run {
  readonly start: Point;
  readonly segments: readonly Segment[];
  readonly closed?: boolean;
}
export interface Box {
  readonly left: number;
  readonly top: number;
  readonly right: number;
  readonly bottom: number;
}
export type Move = (p: Point) => Point;

export const lerp = (a: number, b: number, t: number): number => a + (b - a) * t;
export const radians = (degrees: number): number => (degrees * Math.PI) / 180;
const endOf = (s: Segment): Point => (s.length === 1 ? s[0] : s[2]);
const lastOf = (run: Run): Point => {
  const last = run.segments.at(-1);
  return last ? endOf(last) : run.start;
};

export const moved = (run: Run, move: Move): Run => ({
  ...run,
  start: move(run.start),
  segments: run.segments.map((s): Segment =>
    s.length === 1 ? [move(s[0])] : [move(s[0]), move(s[1]), move(s[2])],
  ),
});

export function reversed(run: Run): Run {
  const stops = [run.start, ...run.segments.map(endOf)];
  const segments = run.segments
    .map((s, i): Segment => {
      const to = stops[i] ?? run.start;
      return s.length === 1 ? [to] : [s[1], s[0], to];
    })
    .reverse();
  return { ...run, start: lastOf(run), segments };
}

const near = (a: Point, b: Point) => Math.abs(a[0] - b[0]) < 1e-6 && Math.abs(a[1] - b[1]) < 1e-6;
/** One run after the other, with a straight step where they do not meet. */
export function joined(...runs: readonly Run[]): Run {
  const [first, ...rest] = runs;
  if (!first) return { start: [0, 0], segments: [] };
  const segments = [...first.segments];
  let at = lastOf(first);
  for (const run of rest) {
    if (!near(at, run.start)) segments.push([run.start]);
    segments.push(...run.segments);
    at = lastOf(run);
  }
  return { start: first.start, segments };
}
export const closed = (...runs: readonly Run[]): Run => ({ ...joined(...runs), closed: true });

export const polyline = (points: readonly Point[]): Run => ({
  start: points[0] ?? [0, 0],
  segments: points.slice(1).map((p): Segment => [p]),
});
export const polygon = (points: readonly Point[]): Run => ({ ...polyline(points), closed: true });

/** A point at which a smooth line turns sharply. */
export type Knot = readonly [x: number, y: number, turn?: 'corner' | undefined];

/**
 * A smooth line through points (a cardinal spline, its tangents scaled to the shorter neighbour so that close points
 * do not overshoot); a `corner` ends one smooth stretch and begins the next.
 */
export function smooth(knots: readonly Knot[]): Run {
  const stretches: Knot[][] = [[]];
  knots.forEach((k, i) => {
    stretches.at(-1)?.push(k);
    if (k[2] === 'corner' && i > 0 && i < knots.length - 1) stretches.push([k]);
  });
  return joined(...stretches.map(smoothStretch));
}
function smoothStretch(knots: readonly Knot[]): Run {
  const points = knots.map(([x, y]): Point => [x, y]);
  if (points.length < 3) return polyline(points);
  const tangent = (i: number): Point => {
    const [p, a, b] = [points[i], points[i - 1], points[i + 1]];
    if (!p || !a || !b) return [0, 0];
    const [before, after] = [distance(a, p), distance(p, b)];
    const reach = Math.min(before, after) / (before + after || 1);
    return [(b[0] - a[0]) * reach, (b[1] - a[1]) * reach];
  };
  const last = points.length - 1;
  const segments = points.slice(1).map((to, i): Segment => {
    const from = points[i] ?? to;
    const [out, into] = [tangent(i), tangent(i + 1)];
    // at a loose end the curve aims at its neighbour's control point
    const second: Point = i + 1 === last ? to : [to[0] - into[0] / 1.5, to[1] - into[1] / 1.5];
    const first: Point = i === 0 ? from : [from[0] + out[0] / 1.5, from[1] + out[1] / 1.5];
    if (i === 0) return [[lerp(from[0], second[0], 0.5), lerp(from[1], second[1], 0.5)], second, to];
    if (i + 1 === last) return [first, [lerp(to[0], first[0], 0.5), lerp(to[1], first[1], 0.5)], to];
    return [first, second, to];
  });
  return { start: points[0] ?? [0, 0], segments };
}
export const distance = (a: Point, b: Point): number => Math.hypot(a[0] - b[0], a[1] - b[1]);

/** Handle length of a quarter circle's cubic, as a share of its radius. */
const QUARTER = 0.5523;
export function ellipse(x: number, y: number, rx: number, ry = rx): Run {
  const [kx, ky] = [rx * QUARTER, ry * QUARTER];
  return {
    start: [x - rx, y],
    closed: true,
    segments: [
      [
        [x - rx, y - ky],
        [x - kx, y - ry],
        [x, y - ry],
      ],
      [
        [x + kx, y - ry],
        [x + rx, y - ky],
        [x + rx, y],
      ],
      [
        [x + rx, y + ky],
        [x + kx, y + ry],
        [x, y + ry],
      ],
      [
        [x - kx, y + ry],
        [x - rx, y + ky],
        [x - rx, y],
      ],
    ],
  };
}
/** Part of an ellipse from one angle to another, in degrees clockwise from three o'clock. */
export function arc(x: number, y: number, r: number, from: number, to: number, ry = r): Run {
  const steps = Math.max(1, Math.ceil(Math.abs(to - from) / 90));
  const at = (a: number): Point => [x + r * Math.cos(a), y + ry * Math.sin(a)];
  const step = radians((to - from) / steps);
  const k = (4 / 3) * Math.tan(step / 4);
  const segments = Array.from({ length: steps }, (_, i): Segment => {
    const [a, b] = [radians(from) + i * step, radians(from) + (i + 1) * step];
    return [
      [x + r * (Math.cos(a) - k * Math.sin(a)), y + ry * (Math.sin(a) + k * Math.cos(a))],
      [x + r * (Math.cos(b) + k * Math.sin(b)), y + ry * (Math.sin(b) - k * Math.cos(b))],
      at(b),
    ];
  });
  return { start: at(radians(from)), segments };
}
export function roundedRect(x: number, y: number, width: number, height: number, r: number): Run {
  const [right, bottom] = [x + width, y + height];
  return closed(
    arc(right - r, y + r, r, -90, 0),
    arc(right - r, bottom - r, r, 0, 90),
    arc(x + r, bottom - r, r, 90, 180),
    arc(x + r, y + r, r, 180, 270),
  );
}
/** A band of one width along points, as a wire or a strap is. */
export function strap(points: readonly Point[], width: number | ((share: number) => number)): Run {
  const sides = points.map((p, i) => {
    const [q, o] = [points[Math.min(i + 1, points.length - 1)] ?? p, points[Math.max(i - 1, 0)] ?? p];
    const [dx, dy] = [q[0] - o[0], q[1] - o[1]];
    const length = Math.hypot(dx, dy) || 1;
    const half = (typeof width === 'number' ? width : width(i / (points.length - 1))) / 2;
    return [(-dy / length) * half, (dx / length) * half] as const;
  });
  const side = (sign: 1 | -1) =>
    points.map((p, i): Knot => [p[0] + sign * (sides[i]?.[0] ?? 0), p[1] + sign * (sides[i]?.[1] ?? 0)]);
  return closed(smooth(side(1)), smooth(side(-1).reverse()));
}

/** Turned by degrees about the origin, carried to a place, mirrored across the upright where `mirror` is -1. */
export const turned = (degrees: number, x = 0, y = 0, mirror: 1 | -1 = 1): Move => {
  const [c, s] = [Math.cos(radians(degrees)), Math.sin(radians(degrees))];
  return (p) => [x + mirror * (p[0] * c - p[1] * s), y + p[0] * s + p[1] * c];
};

/** Where a cubic of one coordinate turns, besides its ends. */
function turns(a: number, b: number, c: number, d: number): number[] {
  const [p, q, r] = [-a + 3 * b - 3 * c + d, 2 * (a - 2 * b + c), b - a];
  const roots: number[] = [];
  if (Math.abs(p) < 1e-9) {
    if (Math.abs(q) > 1e-9) roots.push(-r / q);
  } else {
    const under = q * q - 4 * p * r;
    if (under >= 0) roots.push((-q + Math.sqrt(under)) / (2 * p), (-q - Math.sqrt(under)) / (2 * p));
  }
  return roots.filter((t) => t > 0 && t < 1).map((t) => bezier(a, b, c, d, t));
}
export const bezier = (a: number, b: number, c: number, d: number, t: number): number => {
  const u = 1 - t;
  return u * u * u * a + 3 * u * u * t * b + 3 * u * t * t * c + t * t * t * d;
};
/** The exact box of runs: curves by where they turn, not by their control points. */
export function boxOf(runs: readonly Run[]): Box {
  let [left, top, right, bottom] = [Infinity, Infinity, -Infinity, -Infinity];
  const x = (value: number) => {
    left = Math.min(left, value);
    right = Math.max(right, value);
  };
  const y = (value: number) => {
    top = Math.min(top, value);
    bottom = Math.max(bottom, value);
  };
  for (const run of runs) {
    let at = run.start;
    x(at[0]);
    y(at[1]);
    for (const s of run.segments) {
      const end = endOf(s);
      if (s.length === 3) {
        turns(at[0], s[0][0], s[1][0], end[0]).forEach(x);
        turns(at[1], s[0][1], s[1][1], end[1]).forEach(y);
      }
      x(end[0]);
      y(end[1]);
      at = end;
    }
  }
  return { left, top, right, bottom };
}
export const around = (boxes: readonly Box[]): Box => ({
  left: Math.min(...boxes.map((b) => b.left)),
  top: Math.min(...boxes.map((b) => b.top)),
  right: Math.max(...boxes.map((b) => b.right)),
  bottom: Math.max(...boxes.map((b) => b.bottom)),
});

/** Points along a run, `n` to a curve. */
export function flattened(run: Run, n = 10): Point[] {
  const points: Point[] = [run.start];
  let at = run.start;
  for (const s of run.segments) {
    if (s.length === 1) points.push(s[0]);
    else
      for (let i = 1; i <= n; i++)
        points.push([
          bezier(at[0], s[0][0], s[1][0], s[2][0], i / n),
          bezier(at[1], s[0][1], s[1][1], s[2][1], i / n),
        ]);
    at = endOf(s);
  }
  return points;
}
/** Area inside a closed line of points. */
export function areaOf(points: readonly Point[]): number {
  let sum = 0;
  points.forEach((p, i) => {
    const q = points[(i + 1) % points.length] ?? p;
    sum += p[0] * q[1] - q[0] * p[1];
  });
  return Math.abs(sum / 2);
}

/** SVG path data; steps are written relative to each other, which is shortest. */
export function pathData(runs: readonly Run[], digits: 1 | 2 = 2): string {
  const grain = digits === 1 ? 10 : 100;
  let text = '';
  for (const { start, segments, closed: ends } of runs) {
    let x = Math.round(start[0] * grain);
    let y = Math.round(start[1] * grain);
    text += `M${pair(x, y, grain)}`;
    let command = '';
    for (const segment of segments) {
      const letter = segment.length === 1 ? 'l' : 'c';
      let first = letter !== command;
      if (first) text += letter;
      command = letter;
      const [fromX, fromY] = [x, y];
      for (const point of segment) {
        x = Math.round(point[0] * grain);
        y = Math.round(point[1] * grain);
        const next = pair(x - fromX, y - fromY, grain);
        text += first || next.startsWith('-') ? next : ` ${next}`;
        first = false;
      }
    }
    if (ends === true) text += 'z';
  }
  return text;
}
/** Two whole numbers of grains as they stand in path data: no nought before the point, no blank before a minus. */
const pair = (x: number, y: number, grain: number): string => {
  const second = short(y, grain);
  return y < 0 ? short(x, grain) + second : `${short(x, grain)} ${second}`;
};
/** Small steps are most of what is written: each is turned into text once. */
const SMALL = 2048;
const written: Readonly<Record<number, (string | undefined)[]>> = { 10: [], 100: [] };
const short = (grains: number, grain: number): string => {
  if (grains < -SMALL || grains > SMALL) return decimal(grains, grain);
  const known = written[grain];
  return (known && (known[grains + SMALL] ??= decimal(grains, grain))) ?? decimal(grains, grain);
};
const decimal = (grains: number, grain: number): string => {
  const text = String(grains / grain);
  if (grains > 0 && grains < grain) return text.slice(1);
  return grains < 0 && grains > -grain ? `-${text.slice(2)}` : text;
};
