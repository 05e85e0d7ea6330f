/** Which it is, as a reading of the sheet: decided, or as far as the evidence goes. */
import type { IdentifyAnswer, ReferenceIndex } from '@jutbank/core/bench';
import type { MadeAfter } from '@jutbank/core/reference';
import type { Readings } from '@jutbank/contract/pieces';
import type { PieceRecord } from './record.ts';

export const MADE_AFTER_WORDS: Readonly<Record<MadeAfter, string>> = {
  reissue: 'A reissue',
  'licensed-copy': 'A licensed copy',
  reproduction: 'A reproduction',
};

/** The one pattern that somebody says it is, before anybody looked closer. */
export const saidToBe = ({ narrowing }: PieceRecord): string | undefined =>
  narrowing?.patterns.length === 1 ? narrowing.patterns[0] : undefined;

export function whichOf(
  index: ReferenceIndex,
  record: PieceRecord,
  answer: IdentifyAnswer,
): Readings['which'] {
  const name = (variant: string | null | undefined, pattern: string | null | undefined) => {
    const row = index.variants.get(variant ?? '');
    if (row) return `${row.pattern.name}, ${row.variant.name}`;
    return index.patterns.get(pattern ?? '')?.name;
  };
  if (record.attribution) {
    const { variant, pattern, tier } = record.attribution;
    const known = record.attribution.engineAnswer.candidates.find((c) => c.variant === variant);
    return {
      tier,
      label: name(variant, pattern) ?? 'Not in the reference',
      probability: known?.probability ?? null,
      decided: true,
      variant: variant ?? null,
      pattern: pattern ?? null,
    };
  }
  const best = answer.candidates[0];
  const { takenInAs } = record.intake;
  if (takenInAs !== null) {
    const after = best && record.observations.length > 0 ? name(null, best.pattern) : undefined;
    return {
      tier: after === undefined ? 'not-enough-seen' : 'type-consistent',
      label: `${MADE_AFTER_WORDS[takenInAs]}${after === undefined ? '' : ` of ${after}`}`,
      probability: null,
      decided: false,
      variant: null,
      pattern: null,
    };
  }
  if (!best || record.observations.length === 0) {
    const pattern = saidToBe(record) ?? null;
    const called = name(null, pattern);
    return {
      tier: 'not-enough-seen',
      label: called === undefined ? 'Not looked at yet' : `Said to be ${called}`,
      probability: null,
      decided: false,
      variant: null,
      pattern,
    };
  }
  if (answer.unlisted > best.probability)
    return {
      tier: answer.attribution.tier,
      label: 'Perhaps not in the reference',
      probability: answer.unlisted,
      decided: false,
      variant: null,
      pattern: null,
    };
  return {
    tier: answer.attribution.tier,
    label: name(best.variant, best.pattern) ?? best.variant,
    probability: best.probability,
    decided: false,
    variant: best.variant,
    pattern: best.pattern ?? null,
  };
}
