/** A handle by an outline that somebody measured: single-valued lines between two ends rounded as the outline's are. */
import { formOf, type Form, type RoundedEnd } from '../geometry/form.ts';
import { monotone } from '../geometry/graph.ts';
import type { Point } from '../geometry/path.ts';

/** mm, closed, from the mark side: the butt at the least x, the back at the least y. */
export type Outline = readonly (readonly [x: number, y: number])[];

/** Places along the handle at which the outline is read. */
const STATIONS = 28;
/** How square an end may be, tried in turn: an ellipse is 0.55. */
const FULLNESSES = Array.from({ length: 17 }, (_, i) => 0.2 + i * 0.05);
/** How far from the end its rounding may begin, as shares of the height. */
const RADII = [0.05, 0.12, 0.2, 0.3, 0.4, 0.5, 0.6, 0.75];
/** Where an end is held against the outline's, as shares of the height. */
const ENDS_READ = [0.03, 0.08, 0.15, 0.25, 0.4, 0.6, 0.8];

/** Whether it can be drawn: one that is still being written may not. */
export const isOutline = (outline: Outline | null | undefined): outline is Outline =>
  outline != null &&
  outline.length > 2 &&
  outline.every(([x, y]) => Number.isFinite(x) && Number.isFinite(y)) &&
  ([0, 1] as const).every((axis) => reach(outline, axis)[0] < reach(outline, axis)[1]);

/** How high an outline is where it is as long as this, mm. */
export function tracedHeight(outline: Outline, length: number): number {
  const [left, right] = reach(outline, 0);
  const [top, bottom] = reach(outline, 1);
  return ((bottom - top) * length) / (right - left);
}
const reach = (outline: Outline, axis: 0 | 1): readonly [number, number] => {
  const values = outline.map((point) => point[axis]);
  return [Math.min(...values), Math.max(...values)];
};

/**
 * @param length mm, to which the outline is scaled
 * @param mirrored the butt at greater x, as a locking folder is shown
 */
export function tracedHandle(outline: Outline, length: number, mirrored: boolean): Form {
  const [left, right] = reach(outline, 0);
  const [top, bottom] = reach(outline, 1);
  const scale = length / (right - left);
  const placed = outline.map(([x, y]): Point => [
    (mirrored ? right - x : x - left) * scale,
    (y - (top + bottom) / 2) * scale,
  ]);
  const height = tracedHeight(outline, length);
  const [leftEnd, rightEnd] = [endOf(placed, 0, length, height), endOf(placed, length, length, height)];
  return formOf({ ...linesBetween(placed, length, leftEnd.radius, rightEnd.radius), leftEnd, rightEnd });
}

/** Top and bottom from where the rounding at the left ends to where the one at the right begins. */
function linesBetween(placed: readonly Point[], length: number, leftRadius: number, rightRadius: number) {
  const [from, to] = [leftRadius, length - rightRadius];
  const read = Array.from({ length: STATIONS }, (_, i) => {
    const x = from + ((to - from) * i) / (STATIONS - 1);
    return { x, at: across(placed, inside(x, length)) };
  });
  const line = (side: 0 | 1) => monotone(read.map(({ x, at }): Point => [x, at[side]]));
  return { left: 0, right: length, top: line(0), bottom: line(1) };
}
/** At its very end an outline has no height to read. */
const inside = (x: number, length: number) => Math.min(length * 0.999, Math.max(length * 0.001, x));

/** The rounding that comes closest to the outline's own. */
function endOf(placed: readonly Point[], x: number, length: number, height: number): RoundedEnd {
  const [, tipY] = placed.reduce((a, b) => (Math.abs(b[0] - x) < Math.abs(a[0] - x) ? b : a));
  const away = (by: number) => Math.abs(x - by);
  const within = (share: number) => Math.min(share * height, length / 3);
  const read = ENDS_READ.map((share) => {
    const at = away(within(share));
    return { at, is: across(placed, inside(at, length)) };
  });
  let best: { readonly end: RoundedEnd; readonly off: number } | undefined;
  for (const radius of RADII.map(within)) {
    const [high, low] = across(placed, inside(away(radius), length));
    const peak = low > high ? Math.min(0.95, Math.max(0.05, (tipY - high) / (low - high))) : 0.5;
    const lines = linesBetween(placed, length, radius, radius);
    for (const fullness of FULLNESSES) {
      const end: RoundedEnd = { radius, fullness, peak };
      const form = formOf({ ...lines, leftEnd: end, rightEnd: end });
      const off = read.reduce(
        (sum, { at, is: [top, bottom] }) =>
          sum + Math.abs(form.top(at) - top) + Math.abs(form.bottom(at) - bottom),
        0,
      );
      if (!best || off < best.off) best = { end, off };
    }
  }
  return best?.end ?? { radius: 0 };
}

/** Where the outline is crossed at an x: the least and the greatest y. */
function across(placed: readonly Point[], x: number): readonly [number, number] {
  let [high, low] = [Infinity, -Infinity];
  placed.forEach((p, i) => {
    const q = placed[(i + 1) % placed.length] ?? p;
    if (p[0] < x === q[0] < x) return;
    const y = p[1] + ((q[1] - p[1]) * (x - p[0])) / (q[0] - p[0]);
    high = Math.min(high, y);
    low = Math.max(low, y);
  });
  return low >= high ? [high, low] : [0, 0];
}
