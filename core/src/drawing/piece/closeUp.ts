/** One part of a drawing from near: to show on the very part what a defect of it looks like. */
import { around } from '../geometry/path.ts';
import type { Drawing, DrawnPart } from './sheet.ts';
import { foundOn } from './spoken.ts';

export interface CloseUp {
  readonly parts: readonly DrawnPart[];
  /** the surface of them, as path data: what lies on them is clipped by it */
  readonly surface: string;
  /** what is looked at, mm of the drawing */
  readonly left: number;
  readonly top: number;
  readonly widthMm: number;
  readonly heightMm: number;
}

/** By how much what is looked at is higher than the part. */
const MARGIN = 1.25;

/**
 * @param part of the inspection: 'scales', 'blade:2'
 * @param aspect width of what is looked at by its height
 * @returns undefined where the part is not drawn, or has no surface
 */
export function closeUp(drawing: Drawing, part: string, aspect: number): CloseUp | undefined {
  const parts = drawing.parts.filter((p) => foundOn(part, p.part));
  const surface = parts
    .flatMap((p) =>
      p.shapes.flatMap((shape) => (shape.kind === 'area' && shape.ink !== 'lost' ? [shape.d] : [])),
    )
    .join('');
  if (surface === '') return undefined;
  const box = around(parts.map((p) => p.box));
  // a long part is looked at where its middle is
  const heightMm = MARGIN * (box.bottom - box.top);
  const widthMm = heightMm * aspect;
  return {
    parts,
    surface,
    left: (box.left + box.right - widthMm) / 2,
    top: (box.top + box.bottom - heightMm) / 2,
    widthMm,
    heightMm,
  };
}
