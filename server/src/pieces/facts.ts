/** What the stored record allows a listing or a certificate to say. */
import { included } from '@jutbank/core/condition';
import { spanInWords } from '@jutbank/core/dates';
import { extentOfInspection, statementsOf } from '@jutbank/core/pieces';
import type { ReferenceIndex } from '@jutbank/core/bench';
import type { ListingFacts } from '@jutbank/core/listing';
import { formatMoney } from '@jutbank/core/money';
import { ENGLISH } from '@jutbank/core/words';
import { trailText } from '@jutbank/core/provenance';
import { factsForStatements, type RecordContext } from './statements.ts';
import type { Assessment } from './assess.ts';
import type { PieceRecord } from './record.ts';

/** @param words the facts are told in these, and a text that is written of them too */
export function factsOf(
  record: PieceRecord,
  assessment: Assessment,
  beside: RecordContext,
  words = ENGLISH,
): ListingFacts {
  const { index, made, grade, scale } = assessment;
  const known = factsForStatements(record, assessment, beside, words);
  const row = known.claimed;
  const pattern = row?.pattern ?? index.patterns.get(record.attribution?.pattern ?? '');
  const main = grade.grades.find((g) => g.scale === scale);
  return {
    words,
    tier: known.tier,
    makerName: index.makers.get(pattern?.maker ?? '')?.name,
    patternName: pattern?.name,
    variantName: row?.variant.name,
    issuedTo: row?.variant.issuedTo ?? undefined,
    construction: record.intake.construction,
    bladeLength: longestBlade(record, index),
    materials: materialsOf(record, index),
    postage: (record.postage?.quotes ?? []).map(({ zone, price, carrier, service }) => ({
      zone,
      price: words.figure(formatMoney(price)),
      by: `${carrier}, ${service}`,
    })),
    made: made ? spanInWords(made, words) : undefined,
    extent: extentOfInspection(known),
    sealed: known.sealed,
    overruled: assessment.overruled,
    statements: statementsOf(known, words),
    gradeLine:
      record.inspected && main
        ? words.say('listing.grade', {
            grade: words.name('grade', main.grade),
            scale: words.name('scale', scale),
            index: words.figure(String(grade.conditionIndex)),
          })
        : undefined,
    refuted: index.contents.stories.flatMap((story) =>
      story.verdict === 'refuted' &&
      ((story.variant != null && story.variant === row?.variant.id) ||
        (story.pattern != null && story.pattern === pattern?.id) ||
        (story.maker != null && story.maker === pattern?.maker))
        ? [{ told: story.told, because: story.because ?? undefined }]
        : [],
    ),
    included: included(record.completeness, words),
    provenance: record.custody.length > 0 ? trailText(record.custody, words) : undefined,
    isReplica:
      record.intake.takenInAs === 'reproduction' ||
      row?.variant.kind === 'reproduction' ||
      row?.variant.kind === 'counterfeit',
    isLicensed: record.intake.takenInAs === 'licensed-copy' || row?.variant.kind === 'licensed-copy',
  };
}

/** mm, of the sizes that were taken of blades. */
function longestBlade({ observations }: PieceRecord, index: ReferenceIndex): number | undefined {
  const lengths = observations.flatMap((o) => {
    const feature = 'measure' in o ? index.features.get(o.feature) : undefined;
    return 'measure' in o &&
      feature?.unit === 'mm' &&
      /blade/i.test(feature.label) &&
      /length/i.test(feature.label)
      ? [o.measure]
      : [];
  });
  return lengths.length > 0 ? Math.max(...lengths) : undefined;
}

/** Every value that was seen, as the reference names it: what is protected is looked for among all of them. */
const materialsOf = ({ observations }: PieceRecord, index: ReferenceIndex): string[] =>
  observations.flatMap((o) => {
    if ('other' in o) return [o.other];
    const value =
      'value' in o ? index.features.get(o.feature)?.values?.find((v) => v.id === o.value) : undefined;
    return value ? [value.label] : [];
  });
