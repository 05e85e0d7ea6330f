/** What the stored record allows a listing or a certificate to say. */
import type { IdentifyAnswer, ReferenceIndex } from '@jutbank/core/bench';
import { included } from '@jutbank/core/condition';
import { edtfInWords, spanInWords } from '@jutbank/core/dates';
import { extentOfInspection, statementsOf } from '@jutbank/core/pieces';
import type { ListingFacts } from '@jutbank/core/listing';
import { trailText } from '@jutbank/core/provenance';
import { factsForStatements, type RecordContext } from './statements.ts';
import { measuresInWords } from './readers.ts';
import type { Assessment } from './assess.ts';
import type { PieceRecord } from './record.ts';

const DONE = { 're-issue': 'Issued again', 're-work': 'Re-worked', conversion: 'Converted' } as const;

/** What happened to the piece after it was made, a sentence for each. */
function historyLines(
  index: ReferenceIndex,
  answer: IdentifyAnswer,
  attributed: string | undefined,
): string[] {
  // what only follows from being a variant is said of that variant only
  const told = answer.history.filter((e) => !('variant' in e.because) || e.because.variant === attributed);
  const events = told.map((event) => {
    const from = event.from.map((f) => index.variants.get(f.variant)?.variant.name ?? f.variant);
    const changed = event.changed.map((id) => (index.features.get(id)?.label ?? id).toLowerCase());
    return [
      DONE[event.what],
      from.length > 0 && `from ${from.join(' or ')}`,
      event.window !== null && edtfInWords(event.window),
      changed.length > 0 && `(${changed.join(', ')} changed)`,
    ]
      .filter((part) => part !== false)
      .join(' ');
  });
  const { numbers } = answer;
  const parts = numbers?.parts.map((p) => p.part).join(', ') ?? '';
  if (numbers?.verdict === 'matching') events.push(`The numbers on ${parts} match`);
  if (numbers?.verdict === 'differing') events.push(`The numbers on ${parts} differ`);
  return events;
}

export function factsOf(record: PieceRecord, assessment: Assessment, beside: RecordContext): ListingFacts {
  const { index, answer, made, grade, scale } = assessment;
  const known = factsForStatements(record, assessment, beside);
  const statements = statementsOf(known);
  const decided = record.attribution;
  const row = known.claimed;
  const pattern = row?.pattern ?? index.patterns.get(decided?.pattern ?? '');
  const main = grade.grades.find((g) => g.scale === scale);
  return {
    tier: known.tier,
    makerName: index.makers.get(pattern?.maker ?? '')?.name,
    patternName: pattern?.name,
    variantName: row?.variant.name,
    issuedTo: row?.variant.issuedTo ?? undefined,
    construction: record.intake.construction,
    made: made ? spanInWords(made) : undefined,
    measures: measuresInWords(index, record),
    extent: extentOfInspection(known),
    sealed: known.sealed,
    overruled: assessment.overruled,
    faults: record.findings.length,
    gradeLine:
      record.inspected && main
        ? `Condition: ${main.grade.replace('-', ' ')} on the ${scale} scale (condition index ${grade.conditionIndex} of 100).`
        : undefined,
    disclosures: statements.filter((s) => s.disclose).map((s) => s.text),
    features: statements.filter((s) => s.kind === 'feature').map((s) => s.text),
    history: historyLines(index, answer, row?.variant.id),
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
    unproved:
      decided?.tier === 'confirmed' ? [] : (decided?.engineAnswer.attribution.cannotBeProvedBecause ?? []),
    isReplica: row?.variant.kind === 'reproduction' || row?.variant.kind === 'counterfeit',
    isLicensed: row?.variant.kind === 'licensed-copy',
  };
}
