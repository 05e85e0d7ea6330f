/** What the stored record allows a listing or a certificate to say. */
import { included } from '@jutbank/core/condition';
import { spanInWords } from '@jutbank/core/dates';
import { extentOfInspection, statementsOf } from '@jutbank/core/pieces';
import type { ListingFacts } from '@jutbank/core/listing';
import { trailText } from '@jutbank/core/provenance';
import { factsForStatements, type RecordContext } from './statements.ts';
import type { Assessment } from './assess.ts';
import type { PieceRecord } from './record.ts';

export function factsOf(record: PieceRecord, assessment: Assessment, beside: RecordContext): ListingFacts {
  const { index, made, grade, scale } = assessment;
  const known = factsForStatements(record, assessment, beside);
  const row = known.claimed;
  const pattern = row?.pattern ?? index.patterns.get(record.attribution?.pattern ?? '');
  const main = grade.grades.find((g) => g.scale === scale);
  return {
    tier: known.tier,
    makerName: index.makers.get(pattern?.maker ?? '')?.name,
    patternName: pattern?.name,
    variantName: row?.variant.name,
    issuedTo: row?.variant.issuedTo ?? undefined,
    construction: record.intake.construction,
    made: made ? spanInWords(made) : undefined,
    extent: extentOfInspection(known),
    sealed: known.sealed,
    overruled: assessment.overruled,
    statements: statementsOf(known),
    gradeLine:
      record.inspected && main
        ? `Condition: ${main.grade.replace('-', ' ')} on the ${scale} scale (condition index ${grade.conditionIndex} of 100).`
        : undefined,
    refuted: index.contents.stories.flatMap((story) =>
      story.verdict === 'refuted' &&
      ((story.variant != null && story.variant === row?.variant.id) ||
        (story.pattern != null && story.pattern === pattern?.id) ||
        (story.maker != null && story.maker === pattern?.maker))
        ? [{ told: story.told, because: story.because ?? undefined }]
        : [],
    ),
    included: included(record.completeness),
    provenance: record.custody.length > 0 ? trailText(record.custody) : undefined,
    isReplica: row?.variant.kind === 'reproduction' || row?.variant.kind === 'counterfeit',
    isLicensed: row?.variant.kind === 'licensed-copy',
  };
}
