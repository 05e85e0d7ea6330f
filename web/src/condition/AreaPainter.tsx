/** The share of a surface by painting it on the drawn outline, cell by cell. */
import { useRef, useState } from 'react';
import { drawOutline, OUTLINE_BOX } from '@jutbank/core/drawing';
import type { Construction } from '@jutbank/core/reference';

const CELL = 2;
const COLUMNS = OUTLINE_BOX.width / CELL;
const ROWS = OUTLINE_BOX.height / CELL;

/** In cells. */
interface Place {
  readonly x: number;
  readonly y: number;
}
const BRUSH = [-1, 0, 1].flatMap((dx) => [-1, 0, 1].map((dy) => [dx, dy] as const));

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
  const last = useRef<Place>(undefined);
  const whole = useRef<number>(undefined);
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
  const placeOf = (e: { clientX: number; clientY: number }) => {
    const box = drawing.current?.getBoundingClientRect();
    if (!box) return { x: -1, y: -1 };
    return {
      x: (((e.clientX - box.left) / box.width) * OUTLINE_BOX.width) / CELL,
      y: (((e.clientY - box.top) / box.height) * OUTLINE_BOX.height) / CELL,
    };
  };
  /** Everything a brush of three cells covers on its way: a quick hand leaves no gaps. */
  const stroke = (from: Place, to: Place, now: 'paint' | 'wipe') => {
    const next = new Set(painted);
    const steps = Math.max(1, Math.ceil(Math.hypot(to.x - from.x, to.y - from.y)));
    for (let k = 0; k <= steps; k++) {
      const x = Math.floor(from.x + ((to.x - from.x) * k) / steps);
      const y = Math.floor(from.y + ((to.y - from.y) * k) / steps);
      for (const [dx, dy] of BRUSH) {
        const [cx, cy] = [x + dx, y + dy];
        if (cx < 0 || cy < 0 || cx >= COLUMNS || cy >= ROWS) continue;
        const cell = cy * COLUMNS + cx;
        if (now === 'wipe') next.delete(cell);
        else if (belongs(cell)) next.add(cell);
      }
    }
    setPainted(next);
    // the outline does not change under the brush: its cells are counted once
    whole.current ??= Array.from({ length: COLUMNS * ROWS }, (_, i) => i).filter(belongs).length;
    onShare(Math.round((100 * next.size) / Math.max(1, whole.current)));
  };
  const end = () => {
    last.current = undefined;
    setWay(undefined);
  };
  return (
    <svg
      ref={drawing}
      className="painter"
      viewBox={`0 0 ${OUTLINE_BOX.width} ${OUTLINE_BOX.height}`}
      role="application"
      aria-label="Paint what is gone on the outline"
      onPointerDown={(e) => {
        const place = placeOf(e);
        const now = painted.has(Math.floor(place.y) * COLUMNS + Math.floor(place.x)) ? 'wipe' : 'paint';
        setWay(now);
        last.current = place;
        stroke(place, place, now);
      }}
      onPointerMove={(e) => {
        if (!way || !last.current) return;
        const place = placeOf(e);
        stroke(last.current, place, way);
        last.current = place;
      }}
      onPointerUp={end}
      onPointerLeave={end}
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
