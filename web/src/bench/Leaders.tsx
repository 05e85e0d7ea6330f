/** Words about parts of a drawing, above and below it, each with a line to its part; no two of them meet. */
import type { ReactNode } from 'react';
import type { Drawing } from '@jutbank/core/drawing';

export interface Label {
  readonly id: string;
  readonly text: string;
  /** mm in the drawing */
  readonly at: Readonly<{ x: number; y: number }>;
  readonly tone: 'plain' | 'hand' | 'warn';
}
const LANE = 19;
const LETTER = 6.6;
const GAP = 16;

interface Placed extends Label {
  readonly x: number;
  readonly width: number;
  readonly lane: number;
  readonly above: boolean;
}
/** Left to right, above and below in turn, each in the lane nearest the drawing that is free. */
function placed(labels: readonly Label[], leftMm: number, perMm: number, width: number): Placed[] {
  const ends: Record<'above' | 'below', number[]> = { above: [], below: [] };
  return [...labels]
    .sort((a, b) => a.at.x - b.at.x)
    .map((label, i): Placed => {
      const above = i % 2 === 0;
      const lanes = ends[above ? 'above' : 'below'];
      const wide = label.text.length * LETTER;
      const x = Math.max(0, Math.min((label.at.x - leftMm) * perMm - 8, width - wide));
      const free = lanes.findIndex((end) => end + GAP < x);
      const lane = free === -1 ? lanes.length : free;
      lanes[lane] = x + wide;
      return { ...label, x, width: wide, lane, above };
    });
}

export function Leaders({
  labels,
  frame,
  perMm,
  children,
}: {
  labels: readonly Label[];
  frame: Pick<Drawing, 'left' | 'top' | 'widthMm' | 'heightMm'>;
  perMm: number;
  children: ReactNode;
}) {
  const width = frame.widthMm * perMm;
  const height = frame.heightMm * perMm;
  const words = placed(labels, frame.left, perMm, width);
  const lanes = (above: boolean) =>
    Math.max(0, ...words.filter((w) => w.above === above).map((w) => w.lane + 1));
  const [up, down] = [lanes(true) * LANE, lanes(false) * LANE];
  const yOf = (w: Placed) => (w.above ? up - w.lane * LANE - 6 : up + height + w.lane * LANE + 14);
  return (
    <div className="leaders" style={{ paddingTop: up, paddingBottom: down }}>
      {children}
      <svg className="lines" width={width} height={height + up + down} aria-hidden>
        {words.map((w) => {
          const x = (w.at.x - frame.left) * perMm;
          const y = up + (w.at.y - frame.top) * perMm;
          return (
            <g key={w.id} className={`tone-${w.tone}`}>
              <path d={`M${x.toFixed(1)} ${y.toFixed(1)}V${(yOf(w) + (w.above ? 4 : -12)).toFixed(1)}`} />
              <circle cx={x} cy={y} r={2.2} />
              <text x={w.x} y={yOf(w)}>
                {w.text}
              </text>
            </g>
          );
        })}
      </svg>
    </div>
  );
}
