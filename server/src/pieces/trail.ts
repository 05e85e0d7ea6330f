/** What the trail of a stored piece is held against. */
import type { ReferenceIndex } from '@jutbank/core/bench';
import { edtfInWords, type Span } from '@jutbank/core/dates';
import { checkClaim, claimInWords, type SeenOfPiece, type TrailContext } from '@jutbank/core/provenance';
import { ENGLISH } from '@jutbank/core/words';
import type { PieceRecord } from './record.ts';

/** What documents’ claims are set against. */
export const seenOf = (index: ReferenceIndex, record: PieceRecord, made: Span | undefined): SeenOfPiece => ({
  observations: record.observations,
  custody: record.custody,
  made,
  featureInWords: (id, value) => {
    const feature = index.features.get(id);
    const word = feature?.values?.find((v) => v.id === value)?.label ?? String(value);
    return `${(feature?.label ?? id).toLowerCase()} ${word.toLowerCase()}`;
  },
});

/** @param publicly names nobody: neither whom a document is by, nor whom it tells of */
export function trailContextOf(
  index: ReferenceIndex,
  record: PieceRecord,
  made: Span | undefined,
  publicly = false,
  words = ENGLISH,
): TrailContext {
  const seen = seenOf(index, record, made);
  return {
    words,
    gapYears: record.trailSettings.gapYears,
    acquired: record.intake.acquired,
    bodies: record.trailSettings.bodies,
    contradicted: record.claims.flatMap(({ title, kind, dated, claim }) => {
      const { verdict, because } = checkClaim(claim, seen, words);
      if (verdict !== 'contradicts') return [];
      const named = words.say(`document.${kind}`);
      const document =
        dated === null
          ? named
          : words.say('claims.dated', { document: named, date: edtfInWords(dated, words) });
      if (publicly && claim.kind === 'owner') return [words.say('claims.otherOwner', { document })];
      const says = claimInWords(claim, seen.featureInWords, words);
      return [words.say('claims.says', { document: publicly ? document : title, claim: says, because })];
    }),
  };
}
