/** How much of a lot's cost has come back: a rule whose middle stop is the cost. */
export function RecoveryBar({ share }: { share: number | null }) {
  if (share === null) return <span className="soft">it cost nothing</span>;
  const words = `${Math.round(share * 100)} % of the cost has come back`;
  return (
    <svg className="recovery" viewBox="0 0 200 14" role="img" aria-label={words} preserveAspectRatio="none">
      <line x1="0" y1="13" x2="200" y2="13" className="axis" />
      <rect
        x="0"
        y="4"
        width={Math.min(200, share * 100)}
        height="9"
        className={share >= 1 ? 'even' : 'part'}
      />
      <line x1="100" y1="0" x2="100" y2="14" className="stop" />
    </svg>
  );
}
