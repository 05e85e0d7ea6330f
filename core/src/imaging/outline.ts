/** What a closed outline measures: its axis, length, heights at stations and area, all in millimetres. */
import type { Point } from './plane.ts';

export const STATIONS = 10;

export interface OutlineMeasures {
  /** along the axis, end to end */
  readonly length: number;
  /** greatest extent across the axis at one place */
  readonly height: number;
  /** heights at STATIONS places, evenly from the first end to the last, half a step in from both */
  readonly stations: readonly { readonly at: number; readonly height: number }[];
  readonly area: number;
  /** the outline laid along the axis: x from 0 at the first end, y across */
  readonly laid: readonly Point[];
}

/** Signed area by the shoelace formula, and the centre of it. */
export function areaOf(points: readonly Point[]): { area: number; centre: Point } {
  let area = 0;
  let cx = 0;
  let cy = 0;
  points.forEach((p, i) => {
    const q = points[(i + 1) % points.length] ?? p;
    const cross = p.x * q.y - q.x * p.y;
    area += cross;
    cx += (p.x + q.x) * cross;
    cy += (p.y + q.y) * cross;
  });
  if (area === 0) return { area: 0, centre: points[0] ?? { x: 0, y: 0 } };
  return { area: area / 2, centre: { x: cx / (3 * area), y: cy / (3 * area) } };
}

/** Direction of the longest axis, from the second moments of the area within. */
function axisOf(points: readonly Point[], centre: Point): number {
  let xx = 0;
  let yy = 0;
  let xy = 0;
  points.forEach((p, i) => {
    const q = points[(i + 1) % points.length] ?? p;
    const a = { x: p.x - centre.x, y: p.y - centre.y };
    const b = { x: q.x - centre.x, y: q.y - centre.y };
    const cross = a.x * b.y - b.x * a.y;
    xx += cross * (a.x * a.x + a.x * b.x + b.x * b.x);
    yy += cross * (a.y * a.y + a.y * b.y + b.y * b.y);
    xy += cross * (a.x * b.y + 2 * a.x * a.y + 2 * b.x * b.y + b.x * a.y);
  });
  const sign = xx + yy < 0 ? -1 : 1;
  return 0.5 * Math.atan2((2 * sign * xy) / 24, (sign * (xx - yy)) / 12);
}

/** @param points closed, in millimetres; @returns undefined for fewer than three points or no area */
export function measureOutline(points: readonly Point[]): OutlineMeasures | undefined {
  const { area, centre } = areaOf(points);
  if (points.length < 3 || area === 0) return undefined;
  const angle = axisOf(points, centre);
  const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
  const turned = points.map((p) => ({
    x: (p.x - centre.x) * cos + (p.y - centre.y) * sin,
    y: -(p.x - centre.x) * sin + (p.y - centre.y) * cos,
  }));
  const xs = turned.map((p) => p.x);
  const first = Math.min(...xs);
  const length = Math.max(...xs) - first;
  const laid = turned.map((p) => ({ x: p.x - first, y: p.y }));
  const step = length / STATIONS;
  const stations = Array.from({ length: STATIONS }, (_, i) => {
    const at = (i + 0.5) * step;
    return { at, height: heightAt(laid, at) };
  });
  let height = 0;
  for (let i = 1; i < 200; i++) height = Math.max(height, heightAt(laid, (i * length) / 200));
  return { length, height, stations, area: Math.abs(area), laid };
}

/** Extent across the axis at a place along it. */
export function heightAt(laid: readonly Point[], x: number): number {
  let low = Infinity;
  let high = -Infinity;
  laid.forEach((p, i) => {
    const q = laid[(i + 1) % laid.length] ?? p;
    if (p.x < x === q.x < x) return;
    const y = p.y + ((q.y - p.y) * (x - p.x)) / (q.x - p.x);
    low = Math.min(low, y);
    high = Math.max(high, y);
  });
  return high > low ? high - low : 0;
}

/** The same line with at most so many points, those kept that bend it most (Douglas–Peucker, by tolerance). */
export function simplified(points: readonly Point[], tolerance: number): Point[] {
  if (points.length < 8) return [...points];
  const far = points.reduce(
    (best, p, i) => {
      const d = Math.hypot(p.x - (points[0]?.x ?? 0), p.y - (points[0]?.y ?? 0));
      return d > best.d ? { i, d } : best;
    },
    { i: 0, d: 0 },
  ).i;
  const halves = [points.slice(0, far + 1), [...points.slice(far), points[0] ?? { x: 0, y: 0 }]];
  return halves.flatMap((half) => bent(half, tolerance).slice(0, -1));
}

function bent(line: readonly Point[], tolerance: number): Point[] {
  const [a, b] = [line[0], line.at(-1)];
  if (!a || !b || line.length < 3) return [...line];
  const length = Math.hypot(b.x - a.x, b.y - a.y) || 1e-9;
  let worst = { i: 0, d: 0 };
  line.forEach((p, i) => {
    const d = Math.abs((b.x - a.x) * (p.y - a.y) - (b.y - a.y) * (p.x - a.x)) / length;
    if (d > worst.d) worst = { i, d };
  });
  if (worst.d <= tolerance) return [a, b];
  return [
    ...bent(line.slice(0, worst.i + 1), tolerance).slice(0, -1),
    ...bent(line.slice(worst.i), tolerance),
  ];
}
