/** Drawings from structure: a mark from its lines, a piece from its construction. */
import { drawOutline, OUTLINE_BOX, type OutlineTraits, type Paint } from '@jutbank/core/drawing';
import type { Construction, Mark } from '@jutbank/core/reference';

const LINE = 12.5;

export function MarkDrawing({
  mark,
  width = 104,
}: {
  mark: Pick<Mark, 'lines' | 'lettering'>;
  width?: number;
}) {
  const height = Math.max(34, mark.lines.length * LINE + 14);
  const slanted = mark.lettering?.includes('slant') || mark.lettering === 'script';
  const longest = Math.max(1, ...mark.lines.map((l) => l.length));
  const size = Math.min(9.4, 118 / longest);
  const arched = mark.lettering === 'arched';
  return (
    <svg
      viewBox={`0 0 104 ${height}`}
      width={width}
      height={(height * width) / 104}
      role="img"
      aria-label={`Stamp: ${mark.lines.join(', ')}`}
    >
      <path
        d={`M4 3h84l12 ${height / 3 - 2}v${height / 3}l-12 ${height / 3 - 4}H4z`}
        fill="var(--plate)"
        stroke="var(--rule)"
      />
      {mark.lines.map((line, i) => (
        <text
          key={i}
          x="47"
          y={height / 2 + (i - (mark.lines.length - 1) / 2) * LINE + 3 - (arched && i === 0 ? 3 : 0)}
          className="stamp"
          textAnchor="middle"
          fontStyle={slanted ? 'italic' : undefined}
          fontSize={size}
          style={{ fontSize: size }}
        >
          {line}
        </text>
      ))}
      {arched && (
        <path
          d={`M12 ${height / 2 + 8}Q47 ${height / 2 - 2} 82 ${height / 2 + 8}`}
          fill="none"
          stroke="var(--rule)"
          strokeDasharray="2 2"
        />
      )}
    </svg>
  );
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
