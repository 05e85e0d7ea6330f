/**
 * Blade from ground: Lab channels, uneven light taken off, Otsu's threshold on the stronger channel, the largest
 * piece with its holes filled, and its contour between the pixels.
 */
import { solve, type Point } from './plane.ts';

export interface Raster {
  readonly width: number;
  readonly height: number;
  /** RGBA, row by row */
  readonly data: Uint8ClampedArray;
}
export interface Region {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}
/** Told now and then; answers nothing, whoever waits ends the worker. */
export type Progress = (share: number, doing: string) => void;

const LINEAR = Float32Array.from({ length: 256 }, (_, v) => {
  const c = v / 255;
  return c <= 0.04045 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4;
});
const cubeRoot = (t: number) => (t > 0.008856 ? Math.cbrt(t) : 7.787 * t + 16 / 116);

/** CIE L*, a*, b* (D65) of a region, three planes. */
export function labOf(raster: Raster, region: Region): [Float32Array, Float32Array, Float32Array] {
  const { width, height } = region;
  const planes = [0, 1, 2].map(() => new Float32Array(width * height));
  const [L, A, B] = planes as [Float32Array, Float32Array, Float32Array];
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const at = 4 * ((region.y + y) * raster.width + region.x + x);
      const r = LINEAR[raster.data[at] ?? 0] ?? 0;
      const g = LINEAR[raster.data[at + 1] ?? 0] ?? 0;
      const b = LINEAR[raster.data[at + 2] ?? 0] ?? 0;
      const fx = cubeRoot((0.4124 * r + 0.3576 * g + 0.1805 * b) / 0.95047);
      const fy = cubeRoot(0.2126 * r + 0.7152 * g + 0.0722 * b);
      const fz = cubeRoot((0.0193 * r + 0.1192 * g + 0.9505 * b) / 1.08883);
      const i = y * width + x;
      L[i] = 116 * fy - 16;
      A[i] = 500 * (fx - fy);
      B[i] = 200 * (fy - fz);
    }
  return [L, A, B];
}

/** Mean over (2r+1)² pixels by running sums, rows then columns. */
export function blurred(plane: Float32Array, width: number, height: number, r: number): Float32Array {
  const pass = (from: Float32Array, n: number, lines: number, step: number, stride: number) => {
    const to = new Float32Array(from.length);
    for (let line = 0; line < lines; line++) {
      const start = line * stride;
      let sum = 0;
      for (let k = -r; k <= r; k++) sum += from[start + Math.min(n - 1, Math.max(0, k)) * step] ?? 0;
      for (let k = 0; k < n; k++) {
        to[start + k * step] = sum / (2 * r + 1);
        sum += from[start + Math.min(n - 1, k + r + 1) * step] ?? 0;
        sum -= from[start + Math.max(0, k - r) * step] ?? 0;
      }
    }
    return to;
  };
  return pass(pass(plane, width, height, 1, width), height, width, width, 1);
}

/**
 * Takes off how the light falls: a surface of second degree through the pixels of the ground. The first time the
 * ground is the rim of the region, then what a first threshold called ground.
 */
function levelled(
  plane: Float32Array,
  width: number,
  height: number,
  isGround: (i: number, x: number, y: number) => boolean,
): Float32Array {
  const terms = (x: number, y: number) => {
    const u = (2 * x) / width - 1;
    const v = (2 * y) / height - 1;
    return [1, u, v, u * u, u * v, v * v];
  };
  const sums = Array.from({ length: 6 }, () => new Array<number>(7).fill(0));
  const step = Math.max(1, Math.floor(Math.sqrt((width * height) / 40_000)));
  for (let y = 0; y < height; y += step)
    for (let x = 0; x < width; x += step) {
      const i = y * width + x;
      if (!isGround(i, x, y)) continue;
      const t = terms(x, y);
      for (let r = 0; r < 6; r++) {
        const row = sums[r];
        if (!row) continue;
        for (let c = 0; c < 6; c++) row[c] = (row[c] ?? 0) + (t[r] ?? 0) * (t[c] ?? 0);
        row[6] = (row[6] ?? 0) + (t[r] ?? 0) * (plane[i] ?? 0);
      }
    }
  const surface = solve(sums);
  if (!surface) return plane;
  const [s0 = 0, s1 = 0, s2 = 0, s3 = 0, s4 = 0, s5 = 0] = surface;
  const out = new Float32Array(plane.length);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const i = y * width + x;
      const u = (2 * x) / width - 1;
      const v = (2 * y) / height - 1;
      out[i] = (plane[i] ?? 0) - (s0 + u * (s1 + s3 * u + s4 * v) + v * (s2 + s5 * v));
    }
  return out;
}

const BINS = 256;
/** Otsu's threshold: the cut that leaves the two sides most apart; `strength` is the share of variance it explains. */
export function otsu(plane: Float32Array): { threshold: number; strength: number } {
  let low = Infinity;
  let high = -Infinity;
  for (const v of plane) {
    if (v < low) low = v;
    if (v > high) high = v;
  }
  if (!(high > low)) return { threshold: low, strength: 0 };
  const scale = (BINS - 1) / (high - low);
  const counts = new Float64Array(BINS);
  for (const v of plane) {
    const bin = Math.round((v - low) * scale);
    counts[bin] = (counts[bin] ?? 0) + 1;
  }
  const n = plane.length;
  let sum = 0;
  let squares = 0;
  counts.forEach((c, i) => {
    sum += c * i;
    squares += c * i * i;
  });
  const mean = sum / n;
  const variance = squares / n - mean * mean;
  let below = 0;
  let sumBelow = 0;
  let best = { threshold: low, between: 0 };
  for (let i = 0; i < BINS - 1; i++) {
    below += counts[i] ?? 0;
    sumBelow += i * (counts[i] ?? 0);
    if (below === 0 || below === n) continue;
    const apart = sumBelow / below - (sum - sumBelow) / (n - below);
    const between = (below / n) * (1 - below / n) * apart * apart;
    if (between > best.between) best = { threshold: low + (i + 0.5) / scale, between };
  }
  return { threshold: best.threshold, strength: variance > 0 ? best.between / variance : 0 };
}

export interface Segmented {
  /** closed, in pixels of the whole picture */
  readonly contour: Point[];
  /** how clearly blade and ground differ, 0–1 */
  readonly strength: number;
}

/**
 * @param avoid places, in pixels of the whole picture, that lie on something else: the rule or the card
 * @returns undefined where nothing stands out from the ground
 */
export function segment(
  raster: Raster,
  region: Region,
  progress: Progress = () => undefined,
  avoid: readonly Point[] = [],
): Segmented | undefined {
  const { width, height } = region;
  const rim = Math.max(2, Math.round(0.02 * Math.min(width, height)));
  const onRim = (_: number, x: number, y: number) =>
    x < rim || y < rim || x >= width - rim || y >= height - rim;
  progress(0.05, 'colours');
  const lab = labOf(raster, region).map((plane) => blurred(plane, width, height, 1));
  progress(0.3, 'light');
  const channels = lab.map((plane) => {
    // the ground is what deviates little; both lighter and darker blades stand out of it
    let level = levelled(plane, width, height, onRim);
    for (let round = 0; round < 2; round++) {
      const { threshold } = otsu(level.map(Math.abs));
      const seen = level;
      level = levelled(plane, width, height, (i) => Math.abs(seen[i] ?? 0) < threshold);
    }
    return { level: level.map(Math.abs), ...otsu(level.map(Math.abs)) };
  });
  const strongest = channels.reduce((a, b) => (contrast(b) > contrast(a) ? b : a));
  if (contrast(strongest) < 0.3) return undefined;
  progress(0.6, 'outline');
  const elsewhere = avoid.flatMap((p) => {
    const [x, y] = [Math.round(p.x - region.x), Math.round(p.y - region.y)];
    return x >= 0 && y >= 0 && x < width && y < height ? [y * width + x] : [];
  });
  const mask = largest(strongest.level, strongest.threshold, width, height, elsewhere);
  if (!mask) return undefined;
  fillHoles(mask, width, height);
  const field = new Float32Array(strongest.level.length);
  // outside the piece and inside its filled holes the field is put where it belongs
  for (let i = 0; i < field.length; i++) {
    const value = (strongest.level[i] ?? 0) - strongest.threshold;
    field[i] = mask[i] ? Math.max(value, 1e-3) : Math.min(value, -1e-3);
  }
  progress(0.8, 'contour');
  const contour = smoothed(contourOf(field, width, height));
  return {
    contour: contour.map((p) => ({ x: p.x + region.x, y: p.y + region.y })),
    strength: strongest.strength,
  };
}

/** What a channel offers: how well it parts, and by how much in steps the eye can see. */
const contrast = ({ strength, threshold }: { strength: number; threshold: number }) =>
  strength * Math.min(1, threshold / 4);

/** 1 inside the largest connected piece above the threshold; undefined when that is next to nothing. */
function largest(
  plane: Float32Array,
  threshold: number,
  width: number,
  height: number,
  elsewhere: readonly number[],
): Uint8Array | undefined {
  const label = new Int32Array(plane.length);
  const stack = new Int32Array(plane.length);
  const sizes = [0];
  let next = 0;
  for (let start = 0; start < plane.length; start++) {
    if (label[start] || (plane[start] ?? 0) <= threshold) continue;
    next++;
    let top = 0;
    let size = 0;
    stack[top++] = start;
    label[start] = next;
    while (top > 0) {
      const i = stack[--top] ?? 0;
      size++;
      const x = i % width;
      for (const j of [x > 0 ? i - 1 : -1, x < width - 1 ? i + 1 : -1, i - width, i + width]) {
        if (j < 0 || j >= plane.length || label[j] || (plane[j] ?? 0) <= threshold) continue;
        label[j] = next;
        stack[top++] = j;
      }
    }
    sizes.push(size);
  }
  for (const i of elsewhere) sizes[label[i] ?? 0] = 0;
  const best = sizes.reduce((most, size, l) => (l > 0 && size > most.size ? { label: l, size } : most), {
    label: 0,
    size: 0,
  });
  if (best.size < 0.004 * width * height) return undefined;
  return Uint8Array.from(label, (l) => (l === best.label ? 1 : 0));
}

/** Whatever cannot be reached from the rim is inside. */
function fillHoles(mask: Uint8Array, width: number, height: number): void {
  const outside = new Uint8Array(mask.length);
  const stack: number[] = [];
  const put = (i: number) => {
    if (mask[i] || outside[i]) return;
    outside[i] = 1;
    stack.push(i);
  };
  for (let x = 0; x < width; x++) {
    put(x);
    put((height - 1) * width + x);
  }
  for (let y = 0; y < height; y++) {
    put(y * width);
    put(y * width + width - 1);
  }
  for (let i = stack.pop(); i !== undefined; i = stack.pop()) {
    const x = i % width;
    if (x > 0) put(i - 1);
    if (x < width - 1) put(i + 1);
    if (i >= width) put(i - width);
    if (i < mask.length - width) put(i + width);
  }
  for (let i = 0; i < mask.length; i++) if (!outside[i]) mask[i] = 1;
}

/** The longest closed line at height 0 of the field, between the pixels (marching squares, followed as a chain). */
function contourOf(field: Float32Array, width: number, height: number): Point[] {
  const value = (x: number, y: number) =>
    x < 0 || y < 0 || x >= width || y >= height ? -1 : (field[y * width + x] ?? -1);
  const across = (a: number, b: number) => a / (a - b);
  // each crossed grid edge has a number: horizontal edges first, then vertical ones
  const next = new Map<number, number>();
  const where = new Map<number, Point>();
  const horizontal = (x: number, y: number) => (y + 1) * (width + 2) + x + 1;
  const vertical = (x: number, y: number) => -horizontal(x, y);
  for (let y = -1; y < height; y++)
    for (let x = -1; x < width; x++) {
      const [a, b, c, d] = [value(x, y), value(x + 1, y), value(x + 1, y + 1), value(x, y + 1)];
      const kind = (a > 0 ? 8 : 0) + (b > 0 ? 4 : 0) + (c > 0 ? 2 : 0) + (d > 0 ? 1 : 0);
      if (kind === 0 || kind === 15) continue;
      const edges = {
        top: [horizontal(x, y), { x: x + across(a, b), y }] as const,
        right: [vertical(x + 1, y), { x: x + 1, y: y + across(b, c) }] as const,
        bottom: [horizontal(x, y + 1), { x: x + across(d, c), y: y + 1 }] as const,
        left: [vertical(x, y), { x, y: y + across(a, d) }] as const,
      };
      for (const [from, to] of WAYS[kind] ?? []) {
        next.set(edges[from][0], edges[to][0]);
        where.set(edges[from][0], edges[from][1]);
        where.set(edges[to][0], edges[to][1]);
      }
    }
  let best: Point[] = [];
  while (next.size > 0) {
    const start = next.keys().next().value;
    if (start === undefined) break;
    const line: Point[] = [];
    for (let at: number | undefined = start; at !== undefined;) {
      const p = where.get(at);
      if (p) line.push(p);
      const to = next.get(at);
      next.delete(at);
      at = to;
      if (at === start) break;
    }
    if (line.length > best.length) best = line;
  }
  return best;
}
type Edge = 'top' | 'right' | 'bottom' | 'left';
/** With the inside on the right hand, from which edge to which the line runs. */
const WAYS: Readonly<Record<number, readonly (readonly [Edge, Edge])[]>> = {
  1: [['bottom', 'left']],
  2: [['right', 'bottom']],
  3: [['right', 'left']],
  4: [['top', 'right']],
  5: [
    ['top', 'left'],
    ['bottom', 'right'],
  ],
  6: [['top', 'bottom']],
  7: [['top', 'left']],
  8: [['left', 'top']],
  9: [['bottom', 'top']],
  10: [
    ['left', 'bottom'],
    ['right', 'top'],
  ],
  11: [['right', 'top']],
  12: [['left', 'right']],
  13: [['bottom', 'right']],
  14: [['left', 'bottom']],
};

/** A moving mean over three points of a closed line: more would round the tip off. */
function smoothed(line: readonly Point[]): Point[] {
  const n = line.length;
  if (n < 12) return [...line];
  return line.map((p, i) => {
    const [before, after] = [line[(i + n - 1) % n] ?? p, line[(i + 1) % n] ?? p];
    return { x: (before.x + p.x + after.x) / 3, y: (before.y + p.y + after.y) / 3 };
  });
}
