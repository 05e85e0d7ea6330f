/** The part of a picture that goes out: a frame of fixed proportions, and a scale bar where the picture has a scale. */

/** Width to height of every picture that goes out. */
export const FRAME_PROPORTIONS = 4 / 3;

/** Fractions of the picture, from the left and from the top. */
export interface Frame {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}
interface Size {
  readonly width: number;
  readonly height: number;
}

/** Least share of a picture’s width that a frame takes: closer, there is nothing to see. */
const LEAST_WIDTH = 0.15;

/** The frame of a width at a place, in the proportions of all frames, kept inside the picture. */
export function frameAt({ width, height }: Size, wanted: { x: number; y: number; width: number }): Frame {
  // height in fractions of the height, for a width in fractions of the width
  const tall = width / FRAME_PROPORTIONS / height;
  const widest = Math.min(1, 1 / tall);
  const w = Math.min(widest, Math.max(LEAST_WIDTH, wanted.width));
  const h = w * tall;
  const within = (at: number, size: number) => Math.min(1 - size, Math.max(0, at));
  return { x: within(wanted.x, w), y: within(wanted.y, h), width: w, height: h };
}

/** The largest frame, in the middle. */
export const wholeFrame = (size: Size): Frame => {
  const { width, height } = frameAt(size, { x: 0, y: 0, width: 1 });
  return { x: (1 - width) / 2, y: (1 - height) / 2, width, height };
};

/** The pixels of a frame. */
export const pixelsOf = (
  { width, height }: Size,
  frame: Frame | null,
): Size & { left: number; top: number } => {
  const of = frame ?? { x: 0, y: 0, width: 1, height: 1 };
  const [left, top] = [Math.round(of.x * width), Math.round(of.y * height)];
  return {
    left,
    top,
    width: Math.max(1, Math.min(width - left, Math.round(of.width * width))),
    height: Math.max(1, Math.min(height - top, Math.round(of.height * height))),
  };
};

/** A point of the picture as it lies in the frame; undefined where the frame leaves it out. */
export function inFrame<P extends { readonly x: number; readonly y: number }>(
  point: P,
  frame: Frame | null,
): P | undefined {
  if (frame === null) return point;
  const [x, y] = [(point.x - frame.x) / frame.width, (point.y - frame.y) / frame.height];
  return x >= 0 && x <= 1 && y >= 0 && y <= 1 ? { ...point, x, y } : undefined;
}

const BARS_MM = [200, 100, 50, 20, 10, 5, 2, 1] as const;
/** A scale bar is at most so much of the width of what is shown. */
const WIDEST_BAR = 0.3;

/** The scale bar for a width in pixels; undefined where even the shortest would not fit. */
export function scaleBar(width: number, mmPerPixel: number): { mm: number; pixels: number } | undefined {
  const mm = BARS_MM.find((length) => length / mmPerPixel <= WIDEST_BAR * width);
  return mm === undefined || !(mmPerPixel > 0) ? undefined : { mm, pixels: mm / mmPerPixel };
}
