/** A photograph at a scale, with what was outlined on it; dragged over, it tells within which part to look. */
import type { Point, Region } from '@jutbank/core/imaging';
import { useState, type PointerEvent } from 'react';
import { across, type Scaled } from './scaled.ts';

/** px of the picture that a drag has to reach to mean a part of it and not a slip */
const LEAST_PART = 20;

export function Photograph({
  picture,
  perMm,
  within,
  outline,
  onWithin,
}: {
  picture: Scaled;
  /** px on the screen for a millimetre */
  perMm: number;
  /** the part in which to look, px of the picture */
  within: Region | undefined;
  /** what was found, px of the picture */
  outline: readonly Point[] | undefined;
  /** absent where a drag means something else */
  onWithin?: (part: Region | undefined) => void;
}) {
  const [from, setFrom] = useState<Point>();
  const [to, setTo] = useState<Point>();
  const at = (e: PointerEvent): Point => {
    const box = e.currentTarget.getBoundingClientRect();
    return {
      x: Math.round(((e.clientX - box.left) / box.width) * picture.width),
      y: Math.round(((e.clientY - box.top) / box.height) * picture.height),
    };
  };
  const drop = () => {
    setFrom(undefined);
    setTo(undefined);
  };
  const part = from && to ? between(from, to) : within;
  return (
    <div
      className="photograph"
      style={{ width: across(picture) * perMm }}
      onPointerDown={(e) => {
        if (!onWithin) return;
        e.currentTarget.setPointerCapture(e.pointerId);
        setFrom(at(e));
      }}
      onPointerMove={(e) => from && setTo(at(e))}
      onPointerUp={() => {
        if (from && to) {
          const dragged = between(from, to);
          onWithin?.(Math.min(dragged.width, dragged.height) < LEAST_PART ? undefined : dragged);
        }
        drop();
      }}
      // a finger that goes up or down scrolls instead
      onPointerCancel={drop}
    >
      <img
        src={`/api/v1/pictures/${picture.hash}/full`}
        alt={picture.caption || 'Picture of the piece'}
        draggable={false}
      />
      <svg viewBox={`0 0 ${picture.width} ${picture.height}`} aria-hidden>
        {part && <rect {...part} className="regionline" />}
        {outline && (
          <polygon points={outline.map((p) => `${p.x},${p.y}`).join(' ')} className="outlineline" />
        )}
      </svg>
    </div>
  );
}

const between = (a: Point, b: Point): Region => ({
  x: Math.min(a.x, b.x),
  y: Math.min(a.y, b.y),
  width: Math.abs(a.x - b.x),
  height: Math.abs(a.y - b.y),
});
