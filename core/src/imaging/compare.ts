/**
 * A measured outline laid on the reference one: aligned at the tang end by trimmed least squares, so that what was
 * lost does not pull it along; what is missing is told by place.
 */
import { areaOf, measureOutline } from './outline.ts';
import type { Point } from './plane.ts';

export interface LossPlace {
  readonly mm2: number;
  /** of the reference's area */
  readonly percent: number;
}
export interface Comparison {
  readonly loss: LossPlace;
  readonly tip: LossPlace;
  readonly edge: LossPlace;
  readonly spine: LossPlace;
  /** the measured outline in the reference's own millimetres */
  readonly aligned: readonly Point[];
  /** cells of the reference that are missing, by their lower left corner; `cell` is their side in mm */
  readonly missing: readonly Point[];
  readonly cell: number;
  /** root mean square distance of the points that were kept, in mm: how well the two belong together */
  readonly fit: number;
}

/** What is called the tip: the last share of the length. */
const TIP_SHARE = 0.12;
/** Points that count in the alignment: those that lie nearest; the rest may be lost metal. */
const KEPT = 0.6;
/** Points near the tang end count so much more: a blade is never lost there. */
const TANG_WEIGHT = 4;
/** What counts as the tang end, as a share of the length. */
const TANG_END = 0.06;
/** In mm: farther off than this, a point is lost metal and says no more than that. */
const FAR = 3;
interface Alignment {
  readonly points: Point[];
  /** root mean square distance of the points that were kept */
  readonly fit: number;
  /** mean square distance of all, none counted for more than FAR: which way round it lies */
  readonly off: number;
}
const SPINE_WEIGHT = 4;
/** In mm: a point so far off counts half, one much farther hardly. */
const NEAR = 0.8;
const POINTS = 180;
/** Degrees by which a worn blade's own axis may lie off the reference's; each is tried for a few rounds. */
const STARTS = [-9, -4.5, 0, 4.5, 9];
const FIRST_ROUNDS = 8;
const ROUNDS = 60;

/**
 * @param reference closed, in millimetres, the tang end at x = 0, the edge towards greater y
 * @param measured closed, in millimetres, however it lies
 */
export function compareOutlines(
  reference: readonly Point[],
  measured: readonly Point[],
): Comparison | undefined {
  const own = measureOutline(measured);
  const long = Math.max(...reference.map((p) => p.x));
  if (!own || reference.length < 3 || !(long > 0)) return undefined;
  const target = resampled(reference, POINTS);
  const points = resampled(own.laid, POINTS);
  const middle = areaOf(reference).centre.y;
  let best: Alignment | undefined;
  // it may lie with either end first and either side up
  for (const end of [1, -1])
    for (const side of [1, -1])
      for (const degrees of STARTS) {
        const [cos, sin] = [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)];
        const laid = points.map((p) => {
          const x = end === 1 ? p.x : own.length - p.x;
          const y = side * p.y;
          return { x: x * cos - y * sin, y: middle + x * sin + y * cos };
        });
        const fitted = aligned(laid, target, long, middle, FIRST_ROUNDS);
        if (!best || fitted.off < best.off) best = fitted;
      }
  if (!best) return undefined;
  const final = aligned(best.points, target, long, middle, ROUNDS);
  // the finer outline is carried along by the same motion
  const carried = moved(resampled(own.laid, 600), points, final.points, own.length);
  return { ...missingOf(reference, carried, long), aligned: carried, fit: final.fit };
}

/** Carries further points of the same rigid body (perhaps turned over) to where some of them went. */
function moved(
  more: readonly Point[],
  from: readonly Point[],
  to: readonly Point[],
  length: number,
): Point[] {
  // an affine map through three far points of the body is exact for a rigid motion, turned over or not
  const far = (of: (p: Point) => number) =>
    from.reduce((best, p, i) => (of(p) > of(from[best] ?? p) ? i : best), 0);
  const corners = [
    far((p) => p.x),
    far((p) => -p.x),
    far((p) => p.y - (0.2 * Math.abs(p.x - length / 2)) / length),
  ];
  const [a, b, c] = corners.map((i) => ({ from: from[i], to: to[i] }));
  if (!a?.from || !b?.from || !c?.from || !a.to || !b.to || !c.to) return [...to];
  const [ux, uy, vx, vy] = [
    b.from.x - a.from.x,
    b.from.y - a.from.y,
    c.from.x - a.from.x,
    c.from.y - a.from.y,
  ];
  const det = ux * vy - uy * vx;
  if (Math.abs(det) < 1e-9) return [...to];
  const [A, B, C] = [a.to, b.to, c.to];
  return more.map((p) => {
    const [dx, dy] = [p.x - (a.from?.x ?? 0), p.y - (a.from?.y ?? 0)];
    const s = (dx * vy - dy * vx) / det;
    const t = (ux * dy - uy * dx) / det;
    return { x: A.x + s * (B.x - A.x) + t * (C.x - A.x), y: A.y + s * (B.y - A.y) + t * (C.y - A.y) };
  });
}

/** Evenly spaced points along a closed line. */
export function resampled(line: readonly Point[], n: number): Point[] {
  const lengths = line.map((p, i) => {
    const q = line[(i + 1) % line.length] ?? p;
    return Math.hypot(q.x - p.x, q.y - p.y);
  });
  const total = lengths.reduce((a, b) => a + b, 0);
  const out: Point[] = [];
  let at = 0;
  let done = 0;
  for (let k = 0; k < n; k++) {
    const wanted = (k * total) / n;
    while (at < line.length - 1 && done + (lengths[at] ?? 0) < wanted) done += lengths[at++] ?? 0;
    const p = line[at];
    const q = line[(at + 1) % line.length];
    if (!p || !q) continue;
    const share = (lengths[at] ?? 0) > 0 ? (wanted - done) / (lengths[at] ?? 1) : 0;
    out.push({ x: p.x + share * (q.x - p.x), y: p.y + share * (q.y - p.y) });
  }
  return out;
}

/** Rigid motion (the scale is known from the rule) by iterated closest points, the farthest ones left out. */
function aligned(
  start: readonly Point[],
  target: readonly Point[],
  long: number,
  middle: number,
  rounds: number,
): Alignment {
  let points = [...start];
  let fit = Infinity;
  let off = Infinity;
  for (let round = 0; round < rounds; round++) {
    const all = points.map((from) => ({ from, ...nearest(from, target) }));
    // the tang end is where a blade is never lost: its points count however far they lie
    const atTang = all.filter((p) => p.to.x < TANG_END * long);
    const others = all.filter((p) => p.to.x >= TANG_END * long).sort((p, q) => p.d - q.d);
    const pairs = [...atTang, ...others.slice(0, Math.ceil(KEPT * others.length))];
    off = all.reduce((sum, p) => sum + (p.d < FAR ? p.d * p.d : FAR * FAR), 0) / all.length;
    fit = Math.sqrt(pairs.reduce((sum, p) => sum + p.d * p.d, 0) / Math.max(1, pairs.length));
    // stones take the edge, hardly ever the spine: the spine and the tang tell where it lies
    const weight = ({ to, d }: { to: Point; d: number }) =>
      ((to.x < 0.35 * long ? TANG_WEIGHT : 1) * (to.y < middle ? SPINE_WEIGHT : 1)) / (1 + (d / NEAR) ** 2);
    let [w, fx, fy, tx, ty] = [0, 0, 0, 0, 0];
    for (const p of pairs) {
      const k = weight(p);
      w += k;
      fx += k * p.from.x;
      fy += k * p.from.y;
      tx += k * p.to.x;
      ty += k * p.to.y;
    }
    let cross = 0;
    let dot = 0;
    for (const p of pairs) {
      const k = weight(p);
      const [ax, ay] = [p.from.x - fx / w, p.from.y - fy / w];
      const [bx, by] = [p.to.x - tx / w, p.to.y - ty / w];
      cross += k * (ax * by - ay * bx);
      dot += k * (ax * bx + ay * by);
    }
    const angle = Math.atan2(cross, dot);
    const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
    const [dx, dy] = [tx / w - (cos * fx - sin * fy) / w, ty / w - (sin * fx + cos * fy) / w];
    points = points.map((p) => ({ x: cos * p.x - sin * p.y + dx, y: sin * p.x + cos * p.y + dy }));
    if (Math.abs(angle) < 1e-6 && Math.hypot(dx, dy) < 1e-4) break;
  }
  return { points, fit, off };
}

function nearest(p: Point, target: readonly Point[]): { to: Point; d: number } {
  let bx = p.x;
  let by = p.y;
  let least = Infinity;
  let a = target.at(-1) ?? p;
  for (const b of target) {
    const ux = b.x - a.x;
    const uy = b.y - a.y;
    const along = ((p.x - a.x) * ux + (p.y - a.y) * uy) / (ux * ux + uy * uy || 1);
    const t = along < 0 ? 0 : along > 1 ? 1 : along;
    const dx = p.x - a.x - t * ux;
    const dy = p.y - a.y - t * uy;
    const d = dx * dx + dy * dy;
    if (d < least) {
      bx = p.x - dx;
      by = p.y - dy;
      least = d;
    }
    a = b;
  }
  return { to: { x: bx, y: by }, d: Math.sqrt(least) };
}

const CELLS_ALONG = 400;

/** The reference minus the measured outline, cell by cell. */
function missingOf(
  reference: readonly Point[],
  measured: readonly Point[],
  long: number,
): Pick<Comparison, 'loss' | 'tip' | 'edge' | 'spine' | 'missing' | 'cell'> {
  const cell = long / CELLS_ALONG;
  const ys = [...reference, ...measured].map((p) => p.y);
  const [low, high] = [Math.min(...ys), Math.max(...ys)];
  const missing: Point[] = [];
  const places = { tip: 0, edge: 0, spine: 0 };
  let lost = 0;
  for (let x = cell / 2; x < long; x += cell) {
    const inside = spansAt(reference, x);
    const there = spansAt(measured, x);
    for (let y = low + cell / 2; y < high; y += cell) {
      if (!covered(inside, y) || covered(there, y)) continue;
      lost++;
      missing.push({ x: x - cell / 2, y: y - cell / 2 });
      const [top = 0] = inside[0] ?? [];
      const bottom = inside.at(-1)?.[1] ?? 0;
      if (x > (1 - TIP_SHARE) * long) places.tip++;
      else if (y > (top + bottom) / 2) places.edge++;
      else places.spine++;
    }
  }
  const whole = Math.abs(areaOf(reference).area);
  const place = (cells: number): LossPlace => {
    const mm2 = cells * cell * cell;
    return { mm2, percent: (100 * mm2) / whole };
  };
  return {
    loss: place(lost),
    tip: place(places.tip),
    edge: place(places.edge),
    spine: place(places.spine),
    missing,
    cell,
  };
}

/** Where a vertical line at x lies inside a closed outline: pairs of y, rising. */
function spansAt(points: readonly Point[], x: number): [number, number][] {
  const crossings: number[] = [];
  points.forEach((p, i) => {
    const q = points[(i + 1) % points.length] ?? p;
    if (p.x < x === q.x < x) return;
    crossings.push(p.y + ((q.y - p.y) * (x - p.x)) / (q.x - p.x));
  });
  crossings.sort((a, b) => a - b);
  const spans: [number, number][] = [];
  for (let i = 0; i + 1 < crossings.length; i += 2) spans.push([crossings[i] ?? 0, crossings[i + 1] ?? 0]);
  return spans;
}
const covered = (spans: readonly (readonly [number, number])[], y: number) =>
  spans.some(([a, b]) => y >= a && y <= b);
