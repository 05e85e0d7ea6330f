/** The share of a surface by painting it on the drawn outline, cell by cell. */
import { useRef, useState } from 'react';
import { drawOutline, OUTLINE_BOX } from '@jutbank/core/drawing';
import type { Construction } from '@jutbank/core/reference';

const CELL = 2;
const COLUMNS = OUTLINE_BOX.width / CELL;
const ROWS = OUTLINE_BOX.height / CELL;

export function AreaPainter({
  construction,
  onShare,
}: {
  construction: Construction;
  /** percent of the outline that is painted, to the whole */
  onShare: (percent: number) => void;
}) {
  const drawing = useRef<SVGSVGElement>(null);
  const [painted, setPainted] = useState<ReadonlySet<number>>(new Set());
  const [way, setWay] = useState<'paint' | 'wipe'>();
  const shapes = drawOutline(construction);
  const belongs = (i: number): boolean => {
    const svg = drawing.current;
    if (!svg) return false;
    const point = svg.createSVGPoint();
    point.x = ((i % COLUMNS) + 0.5) * CELL;
    point.y = (Math.floor(i / COLUMNS) + 0.5) * CELL;
    return [...svg.querySelectorAll<SVGGeometryElement>('path.solid')].some((path) =>
      path.isPointInFill(point),
    );
  };
  const cellAt = (e: { clientX: number; clientY: number }): number | undefined => {
    const box = drawing.current?.getBoundingClientRect();
    if (!box) return undefined;
    const x = Math.floor((((e.clientX - box.left) / box.width) * OUTLINE_BOX.width) / CELL);
    const y = Math.floor((((e.clientY - box.top) / box.height) * OUTLINE_BOX.height) / CELL);
    return x >= 0 && y >= 0 && x < COLUMNS && y < ROWS ? y * COLUMNS + x : undefined;
  };
  const put = (cell: number | undefined, now: 'paint' | 'wipe') => {
    if (cell === undefined || !belongs(cell) || painted.has(cell) === (now === 'paint')) return;
    const next = new Set(painted);
    if (now === 'paint') next.add(cell);
    else next.delete(cell);
    setPainted(next);
    const whole = Array.from({ length: COLUMNS * ROWS }, (_, i) => i).filter(belongs).length;
    onShare(Math.round((100 * next.size) / Math.max(1, whole)));
  };
  return (
    <svg
      ref={drawing}
      className="painter"
      viewBox={`0 0 ${OUTLINE_BOX.width} ${OUTLINE_BOX.height}`}
      role="application"
      aria-label="Paint what is gone on the outline"
      onPointerDown={(e) => {
        const cell = cellAt(e);
        const now = cell !== undefined && painted.has(cell) ? 'wipe' : 'paint';
        setWay(now);
        put(cell, now);
      }}
      onPointerMove={(e) => way && put(cellAt(e), way)}
      onPointerUp={() => setWay(undefined)}
      onPointerLeave={() => setWay(undefined)}
    >
      {shapes.map((shape) => (
        <path key={shape.d} d={shape.d} className={shape.fill === 'none' ? 'line' : 'solid'} />
      ))}
      {[...painted].map((i) => (
        <rect
          key={i}
          x={(i % COLUMNS) * CELL}
          y={Math.floor(i / COLUMNS) * CELL}
          width={CELL}
          height={CELL}
        />
      ))}
    </svg>
  );
}
