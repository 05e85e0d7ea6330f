/** What the stored record allows a listing or a certificate to say. */
import type { IdentifyAnswer, ReferenceIndex } from '@jutbank/core/bench';
import { mainScale, treatmentInWords, type RuleSet } from '@jutbank/core/condition';
import { edtfInWords, spanInWords } from '@jutbank/core/dates';
import type { ListingFacts } from '@jutbank/core/listing';
import { trailText } from '@jutbank/core/provenance';
import { measuresInWords, gradeRecord, identifyRecord, madeSpan, type PieceRecord } from '../intake/index.ts';

const INCLUDED: Record<string, Record<string, string>> = {
  box: { original: 'factory box', service: 'service box', later: 'a later box' },
  papers: { original: 'papers', later: 'later papers' },
  sheath: {
    original: 'its sheath',
    period: 'a sheath of the period',
    reproduction: 'a reproduction sheath',
    later: 'a later sheath',
  },
  scabbard: {
    original: 'its scabbard',
    period: 'a scabbard of the period',
    reproduction: 'a reproduction scabbard',
  },
  frog: { original: 'its frog', period: 'a frog of the period' },
};

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

export function factsOf(index: ReferenceIndex, record: PieceRecord, rules: RuleSet): ListingFacts {
  const answer = identifyRecord(index, record);
  const made = madeSpan(index, record, answer);
  const grade = gradeRecord(record, made, rules);
  const decided = record.attribution;
  const row = index.variants.get(decided?.variant ?? '');
  const pattern = row?.pattern ?? index.patterns.get(decided?.pattern ?? '');
  const scale = mainScale(record.intake.construction);
  const main = grade.grades.find((g) => g.scale === scale);
  return {
    tier: decided?.tier ?? answer.attribution.tier,
    makerName: index.makers.get(pattern?.maker ?? '')?.name,
    patternName: pattern?.name,
    variantName: row?.variant.name,
    issuedTo: row?.variant.issuedTo ?? undefined,
    construction: record.intake.construction,
    made: made ? spanInWords(made) : undefined,
    measures: measuresInWords(index, record),
    inspected: record.inspected,
    gradeLine:
      record.inspected && main
        ? `Condition: ${main.grade.replace('-', ' ')} on the ${scale} scale (condition index ${grade.conditionIndex} of 100).`
        : undefined,
    disclosures: [...grade.disclosures, ...record.treatments.map(treatmentInWords)],
    history: historyLines(index, answer, row?.variant.id),
    refuted: index.contents.stories.flatMap((story) =>
      story.verdict === 'refuted' &&
      ((story.variant != null && story.variant === row?.variant.id) ||
        (story.pattern != null && story.pattern === pattern?.id) ||
        (story.maker != null && story.maker === pattern?.maker))
        ? [{ told: story.told, because: story.because ?? undefined }]
        : [],
    ),
    included: Object.entries(record.completeness).flatMap(([item, state]) => {
      const words = INCLUDED[item]?.[state ?? ''];
      return words ? [words] : [];
    }),
    provenance: record.custody.length > 0 ? trailText(record.custody) : undefined,
    unproved:
      decided?.tier === 'confirmed' ? [] : (decided?.engineAnswer.attribution.cannotBeProvedBecause ?? []),
    isReplica: row?.variant.kind === 'reproduction' || row?.variant.kind === 'counterfeit',
  };
}
