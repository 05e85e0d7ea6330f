/** Confidence in the order in which steel takes colour when tempered: a word, a shape, and only then a colour. */
import type { Tier } from '@jutbank/core/bench';

interface Look {
  readonly word: string;
  readonly filled: number;
  readonly colour: string;
}
export const TIER_LOOK: Readonly<Record<Tier, Look>> = {
  confirmed: { word: 'Confirmed', filled: 5, colour: 'var(--blue)' },
  probable: { word: 'Probable', filled: 4, colour: 'var(--purple)' },
  'type-consistent': { word: 'Type-consistent', filled: 3, colour: 'var(--purple)' },
  doubtful: { word: 'Doubtful', filled: 2, colour: 'var(--bronze)' },
  rejected: { word: 'Rejected', filled: 1, colour: 'var(--warn)' },
  'not-enough-seen': { word: 'Not enough seen', filled: 1, colour: 'var(--greyblue)' },
};

/** How a single candidate's weight is said. */
export function weightLook(probability: number): Look {
  if (probability >= 0.95) return { word: 'nearly certain', filled: 5, colour: 'var(--blue)' };
  if (probability >= 0.8) return { word: 'very likely', filled: 4, colour: 'var(--purple)' };
  if (probability >= 0.5) return { word: 'leads', filled: 3, colour: 'var(--purple)' };
  if (probability >= 0.2) return { word: 'possible', filled: 2, colour: 'var(--bronze)' };
  return { word: 'unlikely', filled: 1, colour: 'var(--straw)' };
}

export function TierMarks({ filled, colour }: { filled: number; colour: string }) {
  return (
    <svg width="38" height="12" viewBox="0 0 38 12" aria-hidden="true" style={{ flex: 'none' }}>
      {[0, 1, 2, 3, 4].map((i) => (
        <path
          key={i}
          d={`M${1 + i * 7} 11l4 -10h3l-4 10z`}
          fill={i < filled ? colour : 'none'}
          stroke={colour}
          strokeWidth="0.9"
        />
      ))}
    </svg>
  );
}

export function TierBadge({ tier }: { tier: Tier }) {
  const look = TIER_LOOK[tier];
  return (
    <>
      <TierMarks filled={look.filled} colour={look.colour} />
      {look.word}
    </>
  );
}

/** `58 in 100`, never a false digit. */
export const inHundred = (p: number): string =>
  p > 0.995 && p < 1 ? 'over 99 in 100' : p < 0.005 ? 'under 1 in 100' : `${Math.round(p * 100)} in 100`;
