/** What there is to look at on a piece: its features, its stamp, its codes, in bench order or most telling first. */
import { subjectKey, type IdentifyAnswer, type Observation } from '@jutbank/core/bench';
import {
  EFFORTS,
  type Code,
  type Construction,
  type Effort,
  type Feature,
  type Mark,
} from '@jutbank/core/reference';
import type { Vocabulary } from '@jutbank/contract/reference';

interface Looked {
  readonly id: string;
  readonly label: string;
  readonly ask: string;
  readonly effort: Effort;
}
export type Item = Looked &
  (
    | { readonly kind: 'feature'; readonly feature: Feature }
    /** the stamp of making: one of these */
    | { readonly kind: 'mark'; readonly marks: readonly Mark[] }
    /** stamps struck when the piece came back: any of these */
    | { readonly kind: 'afterwards'; readonly marks: readonly Mark[] }
    | { readonly kind: 'number'; readonly part: string }
    | { readonly kind: 'code'; readonly code: Code }
  );

export const observedAs = (item: Item, observations: readonly Observation[]): Observation | undefined =>
  observations.find((o) => {
    switch (item.kind) {
      case 'mark':
      case 'afterwards':
        return 'mark' in o && item.marks.some((m) => m.id === o.mark);
      case 'number':
        return 'number' in o && o.part === item.part;
      case 'code':
        return 'code' in o && o.code === item.code.id;
      case 'feature':
        return 'feature' in o && o.feature === item.feature.id;
    }
  });

/** The observations once one is made: it replaces the item's last; stamps struck afterwards stand side by side. */
export function withObserved(
  item: Item,
  made: Observation | undefined,
  observations: readonly Observation[],
): Observation[] {
  const key = item.kind === 'afterwards' && made ? subjectKey(made) : undefined;
  const before =
    key === undefined ? observedAs(item, observations) : observations.find((o) => subjectKey(o) === key);
  const rest = observations.filter((o) => o !== before);
  return made && !(key !== undefined && before) ? [...rest, made] : rest;
}

/** Parts that bear one number when they were issued together. */
const NUMBERED: Partial<Record<Construction, readonly string[]>> = { bayonet: ['blade', 'scabbard', 'frog'] };

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
  const making = vocabulary.marks.filter((m) => m.history == null);
  const afterwards = vocabulary.marks.filter(
    (m) =>
      m.history != null &&
      (m.maker == null || makers.has(m.maker) || observations.some((o) => 'mark' in o && o.mark === m.id)),
  );
  const marks: Item[] = [
    {
      id: 'mark',
      kind: 'mark',
      label: 'Stamp',
      ask: 'Which lettering stands on the tang, blade or ricasso?',
      effort: 'open',
      marks: making,
    },
    {
      id: 'afterwards',
      kind: 'afterwards',
      label: 'Struck afterwards',
      ask: 'Does it bear a stamp of re-issue, re-work or conversion? They are history, not damage.',
      effort: 'loupe',
      marks: afterwards,
    },
  ];
  const numbers = (NUMBERED[construction] ?? []).map((part): Item => ({
    id: `number ${part}`,
    kind: 'number',
    label: `Number on the ${part}`,
    ask: 'Numbers that match say the parts were issued together.',
    effort: 'glance',
    part,
  }));
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
  return [
    ...features,
    ...numbers,
    ...marks.filter((m) => !('marks' in m) || m.marks.length > 0),
    ...codes,
  ].sort((a, b) => EFFORTS.indexOf(a.effort) - EFFORTS.indexOf(b.effort));
}

/** Bits that a sure reading of the item would settle, by the engine's last answer. */
export function bitsOf(item: Item, answer: IdentifyAnswer | undefined): number {
  const check = answer?.nextChecks.find((c) =>
    item.kind === 'mark'
      ? c.mark
      : item.kind === 'code'
        ? c.code === item.code.id
        : item.kind === 'feature' && c.feature === item.feature.id,
  );
  return check?.bits ?? 0;
}

/** Whether a counterfeit that is in play would give itself away there. */
export const tellsOf = (item: Item, answer: IdentifyAnswer | undefined): string | undefined =>
  item.kind === 'feature' ? answer?.nextChecks.find((c) => c.feature === item.feature.id)?.tellOf : undefined;

/** What gives a counterfeit away first, then what settles most. */
export const mostTelling = (items: readonly Item[], answer: IdentifyAnswer | undefined): Item[] =>
  [...items].sort(
    (a, b) =>
      Number(tellsOf(b, answer) !== undefined) - Number(tellsOf(a, answer) !== undefined) ||
      bitsOf(b, answer) - bitsOf(a, answer),
  );
