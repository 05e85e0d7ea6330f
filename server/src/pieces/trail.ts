/** What the trail of a stored piece is held against. */
import type { ReferenceIndex } from '@jutbank/core/bench';
import { edtfInWords, type Span } from '@jutbank/core/dates';
import { checkClaim, claimInWords, type SeenOfPiece, type TrailContext } from '@jutbank/core/provenance';
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
): TrailContext {
  const seen = seenOf(index, record, made);
  return {
    gapYears: record.trailSettings.gapYears,
    acquired: record.intake.acquired,
    bodies: record.trailSettings.bodies,
    contradicted: record.claims.flatMap(({ title, kind, dated, claim }) => {
      const { verdict, because } = checkClaim(claim, seen);
      if (verdict !== 'contradicts') return [];
      const document = `A ${kind.replaceAll('-', ' ')}${dated === null ? '' : ` of ${edtfInWords(dated)}`}`;
      if (publicly && claim.kind === 'owner')
        return [`${document} names another owner than the record does.`];
      return [`${publicly ? document : title} says ${claimInWords(claim, seen.featureInWords)}; ${because}.`];
    }),
  };
}
