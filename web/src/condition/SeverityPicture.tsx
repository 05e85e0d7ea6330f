import { lookOf, severityInWords, type Defect, type Severity } from '@jutbank/core/condition';
import { drawSeverity, SEVERITY_BOX, type CloseUp } from '@jutbank/core/drawing';
import { useId } from 'react';
import { PartDrawn } from '../parts/PieceDrawing.tsx';

const { width, height } = SEVERITY_BOX;
export const SEVERITY_ASPECT = width / height;
/** px for the box's own unit: how much of a part's detail is drawn */
const SHOWN = 1.7;

/** How bad a defect is, drawn: on the very part where that is drawn, else on a plain plate. */
export function SeverityPicture({
  defect,
  severity,
  on,
}: {
  defect: Defect;
  severity: Severity;
  on?: CloseUp | undefined;
}) {
  const clip = useId();
  const { ground, lines, patches } = drawSeverity(defect, severity);
  const look = lookOf(defect);
  // what breaks an edge or stands off is drawn with the edge it breaks
  const part = look === 'notch' || look === 'shift' ? undefined : on;
  const wrong = (
    <>
      <path d={patches} className="patch" fillRule="evenodd" />
      <path d={lines} className="lines" />
    </>
  );
  if (!part)
    return (
      <svg
        className="severity"
        viewBox={`0 0 ${width} ${height}`}
        role="img"
        aria-label={severityInWords(defect, severity)}
      >
        <path d={ground} className="ground" />
        {wrong}
      </svg>
    );
  const { left, top, widthMm, heightMm } = part;
  const perMm = width / widthMm;
  return (
    <svg
      className="severity piece-drawing"
      viewBox={[left, top, widthMm, heightMm].map((n) => n.toFixed(2)).join(' ')}
      role="img"
      aria-label={severityInWords(defect, severity)}
    >
      <clipPath id={clip}>
        <path d={part.surface} />
      </clipPath>
      {part.parts.map((p) => (
        <PartDrawn key={p.part} part={p} perMm={perMm * SHOWN} />
      ))}
      <g clipPath={`url(#${clip})`}>
        <g transform={`translate(${left} ${top}) scale(${widthMm / width})`}>{wrong}</g>
      </g>
    </svg>
  );
}
