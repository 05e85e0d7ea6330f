/** Blade outlines by shape, in millimetres: the tang end at x = 0, the spine above, the edge towards greater y. */
export const BLADE_SHAPES = ['spear', 'clip', 'sheepfoot', 'straight'] as const;
export type BladeShape = (typeof BLADE_SHAPES)[number];

export interface BladeSize {
  readonly shape: BladeShape;
  readonly length: number;
  /** greatest height */
  readonly height: number;
}
/** What use took away: from the tip, along the edge, off the spine; all in millimetres. */
export interface BladeWear {
  readonly tip: number;
  readonly edge: number;
  readonly spine: number;
}
export const UNWORN: BladeWear = { tip: 0, edge: 0, spine: 0 };

/** Spine and edge of a blade at a place along it; undefined beyond its ends. */
export function bladeAt(
  size: BladeSize,
  wear: BladeWear,
  x: number,
): { spine: number; edge: number } | undefined {
  const { shape, length, height } = size;
  if (x < 0 || x > length - wear.tip) return undefined;
  const t = x / length;
  // the tang is narrower; its shoulder is where the grind begins
  const tang = t < 0.05 ? 0.82 + 0.18 * (t / 0.05) : 1;
  const after = (from: number) => Math.max(0, (t - from) / (1 - from));
  const point = 0.62 * height;
  let spine = 0;
  let edge = height * tang;
  switch (shape) {
    case 'spear':
      spine = (height - point) * 1.2 * after(0.6) ** 2 * 0.9;
      edge -= (height * tang - point) * after(0.35) ** 2.2;
      break;
    case 'clip':
      spine = point * 0.9 * after(0.58) ** 1.4;
      edge -= (height * tang - point) * after(0.45) ** 2.4;
      break;
    case 'sheepfoot':
      spine = height * 0.97 * after(0.7) ** 1.9;
      break;
    case 'straight':
      spine = point * after(0.85) ** 1.2;
      edge -= (height * tang - point) * after(0.8) ** 1.6;
      break;
  }
  const stoned = wear.edge * (t < 0.06 ? t / 0.06 : 1);
  const filed = wear.spine * (t < 0.3 ? 0 : (t - 0.3) / 0.7);
  const [top, bottom] = [spine + filed, edge - stoned];
  return bottom > top ? { spine: top, edge: bottom } : undefined;
}

/** The closed outline, spine first, with `n` points on either side. */
export function bladeOutline(size: BladeSize, wear: BladeWear = UNWORN, n = 120): { x: number; y: number }[] {
  const long = size.length - wear.tip;
  const at = Array.from({ length: n }, (_, i) => (i * long) / (n - 1)).flatMap((x) => {
    const there = bladeAt(size, wear, x);
    return there ? [{ x, ...there }] : [];
  });
  return [
    ...at.map(({ x, spine }) => ({ x, y: spine })),
    ...at.reverse().map(({ x, edge }) => ({ x, y: edge })),
  ];
}
