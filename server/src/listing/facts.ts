/** What the stored record allows a listing or a certificate to say. */
import type { ReferenceIndex } from '@jutbank/core/bench';
import { mainScale } from '@jutbank/core/condition';
import { spanInWords } from '@jutbank/core/dates';
import type { ListingFacts } from '@jutbank/core/listing';
import { trailText } from '@jutbank/core/provenance';
import { dimensionOfUnit, formatQuantity } from '@jutbank/core/units';
import { gradeRecord, identifyRecord, madeSpan, type PieceRecord } from '../intake/index.ts';

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

export function factsOf(index: ReferenceIndex, record: PieceRecord): ListingFacts {
  const answer = identifyRecord(index, record);
  const made = madeSpan(index, record, answer);
  const grade = gradeRecord(record, made);
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
    measures: record.observations.flatMap((o) => {
      if (!('measure' in o)) return [];
      const feature = index.features.get(o.feature);
      return [
        {
          label: feature?.label ?? o.feature,
          text: formatQuantity(o.measure, dimensionOfUnit(feature?.unit), o.resolution ?? 0.1),
        },
      ];
    }),
    inspected: record.inspected,
    gradeLine:
      record.inspected && main
        ? `Condition: ${main.grade.replace('-', ' ')} on the ${scale} scale (condition index ${grade.conditionIndex} of 100).`
        : undefined,
    disclosures: grade.disclosures,
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
