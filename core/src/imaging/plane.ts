/**
 * From pixels to millimetres: two clicks on a rule, or the four corners of a card of known size. The plane of the
 * rule or card is the plane that is measured in; the piece must lie in it.
 */
import { fail, succeed, type InputProblem, type Result } from '../result/index.ts';

export interface Point {
  readonly x: number;
  readonly y: number;
}

export interface Plane {
  /** pixels to millimetres */
  toMm(p: Point): Point;
  toPixels(p: Point): Point;
  /** millimetres a pixel stands for, about the middle of what was clicked */
  readonly mmPerPixel: number;
  /** one standard deviation of the scale, as a share of it */
  readonly relative: number;
}

/** A card as wallets hold it, in millimetres (the common 85.60 × 53.98 format). */
export const CARD = { width: 85.6, height: 53.98 } as const;
/** How well a person clicks, one standard deviation in pixels of the picture. */
export const CLICK_SD = 0.8;

export const distance = (a: Point, b: Point): number => Math.hypot(a.x - b.x, a.y - b.y);

/** @param length what lies between the two clicks, in millimetres */
export function planeFromRule(
  a: Point,
  b: Point,
  length: number,
  clickSd = CLICK_SD,
): Result<Plane, InputProblem> {
  const pixels = distance(a, b);
  if (!(length > 0))
    return fail({ pointer: '/length', message: 'the length between the clicks must be above 0' });
  if (pixels < 10)
    return fail({ pointer: '/clicks', message: 'these two clicks are too near to each other to measure by' });
  const mmPerPixel = length / pixels;
  return succeed({
    toMm: (p) => ({ x: p.x * mmPerPixel, y: p.y * mmPerPixel }),
    toPixels: (p) => ({ x: p.x / mmPerPixel, y: p.y / mmPerPixel }),
    mmPerPixel,
    // two clicks, each off by clickSd along the line
    relative: (Math.SQRT2 * clickSd) / pixels,
  });
}

/**
 * @param corners of the card as they lie in the picture, going round in either direction from any corner; which side
 * is the long one is found from the picture
 */
export function planeFromCard(
  corners: readonly Point[],
  size: { readonly width: number; readonly height: number } = CARD,
  clickSd = CLICK_SD,
): Result<Plane, InputProblem> {
  const [a, b, c, d] = corners;
  if (corners.length !== 4 || !a || !b || !c || !d)
    return fail({ pointer: '/corners', message: 'a card has four corners: click them one after the other' });
  if (!isConvex([a, b, c, d]))
    return fail({
      pointer: '/corners',
      message: 'these corners cross over: click them going round the card',
    });
  const alongFirst = distance(a, b) + distance(c, d) >= distance(b, c) + distance(d, a);
  const [w, h] = alongFirst ? [size.width, size.height] : [size.height, size.width];
  const world: Point[] = [
    { x: 0, y: 0 },
    { x: w, y: 0 },
    { x: w, y: h },
    { x: 0, y: h },
  ];
  const toMm = homography([a, b, c, d], world);
  const toPixels = homography(world, [a, b, c, d]);
  if (!toMm || !toPixels)
    return fail({
      pointer: '/corners',
      message: 'these corners lie on one line; click the four of them again',
    });
  const around = distance(a, b) + distance(b, c) + distance(c, d) + distance(d, a);
  return succeed({
    toMm: (p) => applied(toMm, p),
    toPixels: (p) => applied(toPixels, p),
    mmPerPixel: (2 * (w + h)) / around,
    relative: (Math.SQRT2 * clickSd) / (around / 4) / Math.SQRT2,
  });
}

function isConvex(points: readonly Point[]): boolean {
  const turns = points.map((p, i) => {
    const q = points[(i + 1) % points.length] ?? p;
    const r = points[(i + 2) % points.length] ?? p;
    return Math.sign((q.x - p.x) * (r.y - q.y) - (q.y - p.y) * (r.x - q.x));
  });
  return turns.every((t) => t !== 0 && t === turns[0]);
}

type Matrix = readonly number[];
const applied = (m: Matrix, { x, y }: Point): Point => {
  const w = (m[6] ?? 0) * x + (m[7] ?? 0) * y + 1;
  return {
    x: ((m[0] ?? 0) * x + (m[1] ?? 0) * y + (m[2] ?? 0)) / w,
    y: ((m[3] ?? 0) * x + (m[4] ?? 0) * y + (m[5] ?? 0)) / w,
  };
};

/** The projective map that takes four points to four others (direct linear transform with h₃₃ = 1). */
function homography(from: readonly Point[], to: readonly Point[]): Matrix | undefined {
  const rows = from.flatMap(({ x, y }, i) => {
    const { x: u, y: v } = to[i] ?? { x: 0, y: 0 };
    return [
      [x, y, 1, 0, 0, 0, -u * x, -u * y, u],
      [0, 0, 0, x, y, 1, -v * x, -v * y, v],
    ];
  });
  return solve(rows);
}

/** Gaussian elimination with pivoting of rows [A | b]; undefined where A is singular. */
export function solve(rows: readonly (readonly number[])[]): number[] | undefined {
  const m = rows.map((r) => [...r]);
  const n = m.length;
  const at = (r: number, c: number) => m[r]?.[c] ?? 0;
  for (let k = 0; k < n; k++) {
    let pivot = k;
    for (let r = k + 1; r < n; r++) if (Math.abs(at(r, k)) > Math.abs(at(pivot, k))) pivot = r;
    if (Math.abs(at(pivot, k)) < 1e-9) return undefined;
    [m[k], m[pivot]] = [m[pivot] ?? [], m[k] ?? []];
    for (let r = 0; r < n; r++) {
      const row = m[r];
      if (r === k || !row) continue;
      const factor = at(r, k) / at(k, k);
      for (let c = k; c <= n; c++) row[c] = at(r, c) - factor * at(k, c);
    }
  }
  return m.map((row, k) => (row[n] ?? 0) / (row[k] ?? 1));
}

export interface MeasuredLine {
  readonly mm: number;
  /** 95 in 100 of such measurements lie within */
  readonly plusMinus: number;
}

/** A length between two clicks, with what the scale and the two clicks leave open. */
export function measureLine(plane: Plane, a: Point, b: Point, clickSd = CLICK_SD): MeasuredLine {
  const mm = distance(plane.toMm(a), plane.toMm(b));
  const clicks = Math.SQRT2 * clickSd * plane.mmPerPixel;
  return { mm, plusMinus: 1.96 * Math.hypot(mm * plane.relative, clicks) };
}
