/** What there is to look at on a piece: its features, its stamp, its codes, in bench order or most telling first. */
import type { IdentifyAnswer, Observation } from '@jutbank/core/bench';
import { EFFORTS, type Code, type Construction, type Effort, type Feature } from '@jutbank/core/reference';
import type { Vocabulary } from '@jutbank/contract/reference';

export type Item =
  | {
      readonly id: string;
      readonly kind: 'feature';
      readonly label: string;
      readonly ask: string;
      readonly effort: Effort;
      readonly feature: Feature;
    }
  | {
      readonly id: string;
      readonly kind: 'mark';
      readonly label: string;
      readonly ask: string;
      readonly effort: Effort;
    }
  | {
      readonly id: string;
      readonly kind: 'code';
      readonly label: string;
      readonly ask: string;
      readonly effort: Effort;
      readonly code: Code;
    };

export const observedAs = (item: Item, observations: readonly Observation[]): Observation | undefined =>
  observations.find((o) =>
    item.kind === 'mark'
      ? 'mark' in o
      : item.kind === 'code'
        ? 'code' in o && o.code === item.code.id
        : 'feature' in o && o.feature === item.feature.id,
  );

/** Codes matter once their maker is in play; a code already read always stays. */
const IN_PLAY = 0.02;

export function itemsFor(
  construction: Construction,
  vocabulary: Vocabulary,
  answer: IdentifyAnswer | undefined,
  observations: readonly Observation[],
): Item[] {
  const makerOf = new Map(vocabulary.patterns.map((p) => [p.id, p.maker]));
  const makers = new Set(
    answer?.candidates.filter((c) => c.probability > IN_PLAY).map((c) => makerOf.get(c.pattern)),
  );
  const features = vocabulary.features
    .filter((f) => f.constructions == null || f.constructions.includes(construction))
    .filter(
      (f) => f.kind === 'measure' || f.kind === 'count' || (f.values?.length ?? 0) > 0 || f.kind === 'text',
    )
    .map((feature): Item => ({
      id: `feature ${feature.id}`,
      kind: 'feature',
      label: feature.label,
      ask: feature.ask ?? '',
      effort: feature.effort ?? 'glance',
      feature,
    }));
  const mark: Item[] =
    vocabulary.marks.length > 0
      ? [
          {
            id: 'mark',
            kind: 'mark',
            label: 'Stamp',
            ask: 'Which lettering stands on the tang, blade or ricasso?',
            effort: 'open',
          },
        ]
      : [];
  const codes = vocabulary.codes
    .filter(
      (code) =>
        code.maker == null ||
        makers.has(code.maker) ||
        observations.some((o) => 'code' in o && o.code === code.id),
    )
    .map((code): Item => ({
      id: `code ${code.id}`,
      kind: 'code',
      label: code.title ?? code.id,
      ask: code.kind === 'date' ? 'Read the signs beside the name.' : 'Read the stamp as it stands.',
      effort: 'loupe',
      code,
    }));
  return [...features, ...mark, ...codes].sort(
    (a, b) => EFFORTS.indexOf(a.effort) - EFFORTS.indexOf(b.effort),
  );
}

/** Bits that a sure reading of the item would settle, by the engine's last answer. */
export function bitsOf(item: Item, answer: IdentifyAnswer | undefined): number {
  const check = answer?.nextChecks.find((c) =>
    item.kind === 'mark'
      ? c.mark
      : item.kind === 'code'
        ? c.code === item.code.id
        : c.feature === item.feature.id,
  );
  return check?.bits ?? 0;
}

export const mostTelling = (items: readonly Item[], answer: IdentifyAnswer | undefined): Item[] =>
  [...items].sort((a, b) => bitsOf(b, answer) - bitsOf(a, answer));
