/** Drawings from structure: a mark from its lines, a piece from its construction. */
import { useId } from 'react';
import { drawOutline, letteringOf, OUTLINE_BOX, type OutlineTraits, type Paint } from '@jutbank/core/drawing';
import type { Construction, Mark } from '@jutbank/core/reference';
import { inWords } from './words.ts';
import './drawn.css';

const LINE = 12.5;
const PLATE = { width: 104, text: 47, left: 10, right: 84 };
const SLANT_DEGREES = -16;

/** Signs counted beside the lettering, where their arrangement puts them. */
export interface CountedSigns {
  readonly count: number;
  /** as the code's arrangement says it: above, below, before, after the name */
  readonly where: string;
}

type Stamp = Pick<Mark, 'lines' | 'lettering'>;
export function MarkDrawing({
  mark,
  width = 104,
  signs,
}: {
  mark: Stamp;
  width?: number;
  signs?: CountedSigns | undefined;
}) {
  const id = useId();
  const letters = letteringOf(mark);
  const room = signs && /above|below|under|over/.test(signs.where) ? 9 : 0;
  const arch = letters === 'arched' ? 7 : 0;
  const height = Math.max(34, mark.lines.length * LINE + 14) + room + arch;
  const longest = Math.max(1, ...mark.lines.map((l) => l.length));
  const size = Math.min(letters === 'script' ? 13 : 9.4, (letters === 'script' ? 150 : 118) / longest);
  const shift = (signs && /above|over/.test(signs.where) ? room / 2 : -room / 2) + arch / 2;
  const lineAt = (i: number) => height / 2 + (i - (mark.lines.length - 1) / 2) * LINE + 3 + shift;
  return (
    <svg
      viewBox={`0 0 ${PLATE.width} ${height}`}
      width={width}
      height={(height * width) / PLATE.width}
      role="img"
      aria-label={`Stamp, ${letters}: ${mark.lines.join(', ')}${signs ? `; ${signs.count} signs ${inWords(signs.where).toLowerCase()}` : ''}`}
    >
      <path
        d={`M4 3h84l12 ${height / 3 - 2}v${height / 3}l-12 ${height / 3 - 4}H4z`}
        fill="var(--plate)"
        stroke="var(--rule)"
      />
      {mark.lines.map((line, i) => {
        const y = lineAt(i);
        const className = letters === 'script' ? 'stamp script' : 'stamp';
        if (letters === 'arched' && i === 0)
          return (
            <g key={i}>
              <path
                id={`${id}arc`}
                d={`M${PLATE.left} ${y + 4}Q${PLATE.text} ${y - 13} ${PLATE.right} ${y + 4}`}
                fill="none"
              />
              <text className={className} fontSize={size} textAnchor="middle">
                <textPath href={`#${id}arc`} startOffset="50%">
                  {line}
                </textPath>
              </text>
            </g>
          );
        return (
          <text
            key={i}
            x={PLATE.text}
            y={y}
            className={className}
            textAnchor="middle"
            fontSize={size}
            {...(letters === 'slanted'
              ? {
                  transform: `translate(${PLATE.text} ${y}) skewX(${SLANT_DEGREES}) translate(${-PLATE.text} ${-y})`,
                }
              : {})}
          >
            {line}
          </text>
        );
      })}
      {signs && <Signs signs={signs} height={height} lines={mark.lines.length} middle={height / 2 + shift} />}
    </svg>
  );
}

/** The counted signs as short strokes: in a row above or below, in a column before or after. */
function Signs({
  signs,
  height,
  lines,
  middle,
}: {
  signs: CountedSigns;
  height: number;
  lines: number;
  middle: number;
}) {
  const n = Math.min(signs.count, 14);
  const beside = /left|before|front/.test(signs.where)
    ? PLATE.left - 2
    : /right|after|behind|beside/.test(signs.where)
      ? PLATE.right + 2
      : undefined;
  const y = /above|over/.test(signs.where) ? 7 : height - 12;
  const strokes = Array.from({ length: n }, (_, i) => {
    if (beside === undefined) return `M${PLATE.text + (i - (n - 1) / 2) * 5} ${y}v5`;
    const step = Math.min(4, (lines * LINE + 6) / Math.max(1, n));
    return `M${beside} ${middle + (i - (n - 1) / 2) * step}h5`;
  });
  return <path d={strokes.join('')} stroke="var(--ink)" strokeWidth="1.4" fill="none" />;
}

const PAINT: Record<Paint, string> = {
  handle: 'var(--greyblue)',
  metal: 'var(--plate)',
  blade: 'var(--hair)',
  line: 'var(--ink)',
  none: 'none',
};

export function Outline({
  construction,
  traits,
  width = 78,
}: {
  construction: Construction;
  traits?: OutlineTraits;
  width?: number;
}) {
  return (
    <svg
      viewBox={`0 0 ${OUTLINE_BOX.width} ${OUTLINE_BOX.height}`}
      width={width}
      role="img"
      aria-label={`Outline of a ${construction}`}
    >
      {drawOutline(construction, traits).map((shape) => (
        <path
          key={shape.d}
          d={shape.d}
          fill={PAINT[shape.fill]}
          fillOpacity={shape.fill === 'handle' ? 0.55 : 1}
          stroke="var(--ink)"
          strokeWidth="0.9"
        />
      ))}
    </svg>
  );
}
