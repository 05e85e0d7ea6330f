/** The few signs of our controls, drawn with the same thin lines as everything else. */

/** Where a field opens. */
export function Downward({ className }: { className?: string }) {
  return (
    <svg className={className} width={9} height={6} viewBox="0 0 9 6" aria-hidden="true">
      <path d="M0.5 0.5 4.5 5 8.5 0.5" fill="none" stroke="currentColor" strokeWidth={1.3} />
    </svg>
  );
}

/** A box to tick; the tick is a stroke, as a pencil makes it. */
export function Box({ ticked = false }: { ticked?: boolean }) {
  return (
    <svg width={16} height={16} viewBox="0 0 16 16" aria-hidden="true">
      <rect
        x={1}
        y={1}
        width={14}
        height={14}
        fill="none"
        stroke="currentColor"
        strokeWidth={ticked ? 1.6 : 1}
      />
      {ticked && <path d="M3.5 8.2 6.8 11.6 12.6 4.2" fill="none" stroke="currentColor" strokeWidth={2} />}
    </svg>
  );
}
