import { severityInWords, type Defect, type Severity } from '@jutbank/core/condition';
import { drawSeverity, SEVERITY_BOX } from '@jutbank/core/drawing';

/** How bad a defect is, drawn: to hold the piece against. */
export function SeverityPicture({ defect, severity }: { defect: Defect; severity: Severity }) {
  const { ground, lines, patches } = drawSeverity(defect, severity);
  return (
    <svg
      className="severity"
      viewBox={`0 0 ${SEVERITY_BOX.width} ${SEVERITY_BOX.height}`}
      role="img"
      aria-label={severityInWords(defect, severity)}
    >
      <path d={ground} className="ground" />
      <path d={patches} className="patch" fillRule="evenodd" />
      <path d={lines} className="lines" />
    </svg>
  );
}
