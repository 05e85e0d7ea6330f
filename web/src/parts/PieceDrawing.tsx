/** A drawing of the core as SVG: paints and inks from the theme, shapes by how large it is shown. */
import { memo, type KeyboardEvent } from 'react';
import type { Drawing, DrawnPart, Shape } from '@jutbank/core/drawing';
import './pieceDrawing.css';

/** How a part is told from the others on this screen: in hand, not of interest, or unlike another's. */
export type Emphasis = 'lit' | 'faded' | 'differs';

export interface PieceDrawingProps {
  drawing: Drawing;
  /** px; the drawing fills it unless that makes it higher than `height` */
  width: number;
  height?: number;
  /** px per mm where several are drawn to one scale */
  scale?: number;
  /** what it shows in words; the drawing's own where nothing else is said, '' where the words stand beside it */
  label?: string;
  emphasis?: (part: string) => Emphasis | undefined;
  onPart?: (part: string) => void;
  /** names of the parts that can be taken in hand; whoever shows it makes them one stop of the Tab key */
  partLabel?: (part: string) => string | undefined;
}
const EDGE = 1.5;
/** A tool on top of another takes the click first; small parts are reached before the large one they lie on. */
export const PieceDrawing = memo(function PieceDrawing({
  drawing,
  width,
  height,
  scale,
  label = drawing.name,
  emphasis,
  onPart,
  partLabel,
}: PieceDrawingProps) {
  const fitting = (width - 2 * EDGE) / drawing.widthMm;
  const perMm =
    scale ?? Math.min(fitting, height === undefined ? fitting : (height - 2 * EDGE) / drawing.heightMm);
  const edge = EDGE / perMm;
  const box = [
    drawing.left - edge,
    drawing.top - edge,
    drawing.widthMm + 2 * edge,
    drawing.heightMm + 2 * edge,
  ];
  return (
    <svg
      className="piece-drawing"
      width={(drawing.widthMm + 2 * edge) * perMm}
      height={(drawing.heightMm + 2 * edge) * perMm}
      viewBox={box.map((n) => n.toFixed(2)).join(' ')}
      {...(label === '' ? { 'aria-hidden': true } : { role: onPart ? 'group' : 'img', 'aria-label': label })}
    >
      {drawing.parts.map((part) => (
        <PartDrawn
          key={part.part}
          part={part}
          perMm={perMm}
          emphasis={emphasis?.(part.part)}
          onPart={onPart}
          name={partLabel?.(part.part)}
        />
      ))}
    </svg>
  );
});

/** A part of a drawing, in whatever drawing shows it; the svg around it has the class `piece-drawing`. */
export function PartDrawn({
  part,
  perMm,
  emphasis,
  onPart,
  name,
}: {
  part: DrawnPart;
  perMm: number;
  emphasis?: Emphasis | undefined;
  onPart?: ((part: string) => void) | undefined;
  name?: string | undefined;
}) {
  const classes = [
    'part',
    `is-${part.state}`,
    emphasis && `is-${emphasis}`,
    onPart && name !== undefined && 'takes',
  ]
    .filter(Boolean)
    .join(' ');
  const acts =
    onPart && name !== undefined
      ? {
          role: 'button',
          'aria-label': name,
          onClick: () => onPart(part.part),
          onKeyDown: (e: KeyboardEvent) => {
            if (e.key !== 'Enter' && e.key !== ' ') return;
            e.preventDefault();
            onPart(part.part);
          },
        }
      : {};
  return (
    <g className={classes} data-part={part.part} {...acts}>
      {part.shapes.map((shape, i) => (shape.from <= perMm ? <Drawn key={i} shape={shape} /> : null))}
    </g>
  );
}

function Drawn({ shape }: { shape: Shape }) {
  switch (shape.kind) {
    case 'area':
      return (
        <path
          className={`ink-${shape.ink}`}
          d={shape.d}
          fill={`var(--paint-${shape.paint})`}
          fillRule="evenodd"
        />
      );
    case 'lines':
      return <path className={`line ink-${shape.ink}`} d={shape.d} />;
    case 'patches':
      return <path className={`patches tone-${shape.tone}`} d={shape.d} />;
    case 'letters':
      return (
        <text
          className={shape.painted ? 'letters painted' : 'letters'}
          fontSize={shape.size}
          textAnchor="middle"
          transform={`translate(${shape.x.toFixed(2)} ${shape.y.toFixed(2)})${Math.abs(shape.angle) > 0.2 ? ` rotate(${shape.angle.toFixed(1)})` : ''}${shape.slant === 0 ? '' : ` skewX(${shape.slant})`}`}
        >
          {shape.text}
        </text>
      );
  }
}
