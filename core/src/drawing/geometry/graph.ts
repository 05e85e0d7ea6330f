/** Single-valued lines y(x): a handle's top and bottom, a blade's back and edge. */
import { lerp, type Point, type Run, type Segment } from './path.ts';

export interface Graph {
  readonly at: (x: number) => number;
  readonly slope: (x: number) => number;
  /** where one cubic ends and the next begins, in order */
  readonly knots: readonly number[];
}

/**
 * A monotone cubic through points in order of x: no overshoot between them (harmonic-mean tangents, after Fritsch and
 * Butland). Level beyond its ends.
 */
export function monotone(points: readonly Point[]): Graph {
  const n = points.length;
  const steps = points.slice(1).map(([x, y], i) => {
    const from = points[i] ?? [0, 0];
    return { width: x - from[0], rise: (y - from[1]) / (x - from[0]) };
  });
  const tangents = points.map((_, i) => {
    const [before, after] = [steps[i - 1]?.rise, steps[i]?.rise];
    if (before === undefined || after === undefined) return before ?? after ?? 0;
    return before * after <= 0 ? 0 : (2 * before * after) / (before + after);
  });
  const pieceOf = (x: number) => {
    let i = 0;
    while (i < n - 2 && x > (points[i + 1]?.[0] ?? Infinity)) i++;
    return i;
  };
  const first = points[0] ?? [0, 0];
  const last = points[n - 1] ?? first;
  const hermite = (x: number) => {
    const i = pieceOf(x);
    const [a, b, h] = [points[i] ?? first, points[i + 1] ?? last, steps[i]?.width ?? 1];
    return { a, b, h, t: (x - a[0]) / h, m0: tangents[i] ?? 0, m1: tangents[i + 1] ?? 0 };
  };
  return {
    knots: points.map(([x]) => x),
    at: (x) => {
      if (x <= first[0]) return first[1];
      if (x >= last[0]) return last[1];
      const { a, b, h, t, m0, m1 } = hermite(x);
      const [u, v] = [t * t, t * t * t];
      return (
        (2 * v - 3 * u + 1) * a[1] + (v - 2 * u + t) * h * m0 + (-2 * v + 3 * u) * b[1] + (v - u) * h * m1
      );
    },
    slope: (x) => {
      if (x < first[0] || x > last[0]) return 0;
      const { a, b, h, t, m0, m1 } = hermite(x);
      const u = t * t;
      return (
        ((6 * u - 6 * t) * a[1] + (-6 * u + 6 * t) * b[1]) / h +
        (3 * u - 4 * t + 1) * m0 +
        (3 * u - 2 * t) * m1
      );
    },
  };
}
/** The line a share of the way from one to the other: every stripe on a form is one of these. */
export const between = (a: Graph, b: Graph, share: number): Graph => ({
  at: (x) => lerp(a.at(x), b.at(x), share),
  slope: (x) => lerp(a.slope(x), b.slope(x), share),
  knots: [...new Set([...a.knots, ...b.knots])].sort((p, q) => p - q),
});
/** The stretch of a line between two x, exactly: each cubic is cut where the stretch begins and ends. */
export function stretch(graph: Graph, from: number, to: number): Run {
  const stops = [from, ...graph.knots.filter((x) => x > from + 1e-6 && x < to - 1e-6), to];
  const segments = stops.slice(1).map((x, i): Segment => {
    const x0 = stops[i] ?? from;
    const third = (x - x0) / 3;
    // just inside its own piece, where the tangent of a corner is the right one
    return [
      [x0 + third, graph.at(x0) + graph.slope(x0 + 1e-7) * third],
      [x - third, graph.at(x) - graph.slope(x - 1e-7) * third],
      [x, graph.at(x)],
    ];
  });
  return { start: [from, graph.at(from)], segments };
}
/** y at x of a line given by points in order of x; level beyond its ends. */
export function throughPoints(points: readonly Point[]): (x: number) => number {
  const [first, last] = [points[0] ?? [0, 0], points.at(-1) ?? [0, 0]];
  return (x) => {
    if (x <= first[0]) return first[1];
    if (x >= last[0]) return last[1];
    let [low, high] = [0, points.length - 1];
    while (high - low > 1) {
      const middle = (low + high) >> 1;
      if ((points[middle]?.[0] ?? 0) <= x) low = middle;
      else high = middle;
    }
    const [p, q] = [points[low] ?? first, points[high] ?? last];
    return q[0] === p[0] ? q[1] : lerp(p[1], q[1], (x - p[0]) / (q[0] - p[0]));
  };
}
