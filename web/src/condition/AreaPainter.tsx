/** The share of a part by painting it on the drawn piece, cell by cell: what is painted lies on that part alone. */
import { useMemo, useRef, useState } from 'react';
import { drawPiece, foundOn, type DrawingRecipe } from '@jutbank/core/drawing';

/** mm of the piece that one cell covers */
const CELL = 2;

/** In cells. */
interface Place {
  readonly x: number;
  readonly y: number;
}
const BRUSH = [-1, 0, 1].flatMap((dx) => [-1, 0, 1].map((dy) => [dx, dy] as const));

export function AreaPainter({
  recipe,
  part,
  onShare,
}: {
  recipe: DrawingRecipe;
  /** of the inspection: 'scales', 'blade:1' */
  part: string;
  /** percent of the part that is painted, to the whole */
  onShare: (percent: number) => void;
}) {
  const drawing = useRef<SVGSVGElement>(null);
  const [painted, setPainted] = useState<ReadonlySet<number>>(new Set());
  const [way, setWay] = useState<'paint' | 'wipe'>();
  const last = useRef<Place>(undefined);
  const whole = useRef<number>(undefined);
  const drawn = useMemo(() => drawPiece(recipe, 'open'), [recipe]);
  const { left, top, widthMm, heightMm } = drawn;
  const columns = Math.ceil(widthMm / CELL);
  const rows = Math.ceil(heightMm / CELL);
  const own = drawn.parts.filter((p) => foundOn(part, p.part));
  // a part that is not drawn is painted on the whole piece
  const onPart = (name: string) => own.length === 0 || own.some((p) => p.part === name);
  const belongs = (i: number): boolean => {
    const svg = drawing.current;
    if (!svg) return false;
    const point = svg.createSVGPoint();
    point.x = left + ((i % columns) + 0.5) * CELL;
    point.y = top + (Math.floor(i / columns) + 0.5) * CELL;
    return [...svg.querySelectorAll<SVGGeometryElement>('path.solid')].some((path) =>
      path.isPointInFill(point),
    );
  };
  const placeOf = (e: { clientX: number; clientY: number }) => {
    const box = drawing.current?.getBoundingClientRect();
    if (!box) return { x: -1, y: -1 };
    return {
      x: (((e.clientX - box.left) / box.width) * widthMm) / CELL,
      y: (((e.clientY - box.top) / box.height) * heightMm) / CELL,
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
        if (cx < 0 || cy < 0 || cx >= columns || cy >= rows) continue;
        const cell = cy * columns + cx;
        if (now === 'wipe') next.delete(cell);
        else if (belongs(cell)) next.add(cell);
      }
    }
    setPainted(next);
    // the outline does not change under the brush: its cells are counted once
    whole.current ??= Array.from({ length: columns * rows }, (_, i) => i).filter(belongs).length;
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
      viewBox={`${left} ${top} ${widthMm} ${heightMm}`}
      role="application"
      aria-label="Paint what is gone on the drawn part"
      onPointerDown={(e) => {
        const place = placeOf(e);
        const now = painted.has(Math.floor(place.y) * columns + Math.floor(place.x)) ? 'wipe' : 'paint';
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
      {drawn.parts.map(({ part: name, shapes }) =>
        shapes.map((shape, i) =>
          shape.kind === 'area' ? (
            <path
              key={`${name} ${i}`}
              d={shape.d}
              className={onPart(name) ? 'solid' : 'other'}
              fillRule="evenodd"
            />
          ) : null,
        ),
      )}
      {[...painted].map((i) => (
        <rect
          key={i}
          x={left + (i % columns) * CELL}
          y={top + Math.floor(i / columns) * CELL}
          width={CELL}
          height={CELL}
        />
      ))}
    </svg>
  );
}
