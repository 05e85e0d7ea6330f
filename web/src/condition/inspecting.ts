/** The guided inspection as the keys see it: one list of things to look at, and what is said of each. */
import {
  COMPLETENESS,
  inspectionFor,
  ITEMS_OF,
  partInWords,
  stepState,
  type Completeness,
  type Defect,
  type Finding,
  type Inspection,
  type InspectionStep,
  type Severity,
  type StepState,
} from '@jutbank/core/condition';
import type { Construction } from '@jutbank/core/reference';
import type { ConditionBody } from '@jutbank/contract/pieces';
import { sentence } from '../parts/words.ts';

export interface ItemStep {
  readonly id: string;
  readonly item: string;
  readonly ask: string;
  readonly states: readonly string[];
}
export type Looked = { readonly section: string; readonly title: string } & (
  | { readonly kind: 'step'; readonly step: InspectionStep }
  | { readonly kind: 'item'; readonly step: ItemStep }
);

/** @param withItems whether it is asked what is with the piece, after the piece itself */
export function lookList(
  construction: Construction,
  counts: Pick<Inspection, 'blades' | 'tools'>,
  withItems = true,
): Looked[] {
  const steps = inspectionFor(construction, counts).flatMap((section) =>
    section.steps.map((step): Looked => ({ kind: 'step', section: section.id, title: section.title, step })),
  );
  if (!withItems) return steps;
  const items = ITEMS_OF[construction].map((item): Looked => ({
    kind: 'item',
    section: 'with-it',
    title: 'What is with it',
    step: {
      id: `item ${item}`,
      item,
      ask: COMPLETENESS[item].ask,
      states: COMPLETENESS[item].states,
    },
  }));
  return [...steps, ...items];
}

/** What is in hand, the blade by its name where the pattern has one: “Blade 2, pen: edge”. */
export function inHandInWords(looked: Looked, bladeNames: readonly string[]): string {
  if (looked.kind === 'item') return sentence(looked.step.item);
  const { part } = looked.step;
  const [base = part, number] = part.split(':');
  const section = sectionOf(looked, bladeNames);
  if (!ofBlade(looked.section)) return `${section}: ${withName(partInWords(part), number, bladeNames)}`;
  return base === 'blade' ? section : `${section}: ${partInWords(base)}`;
}
/** The section a thing to look at stands in, a blade's with its name. */
export function sectionOf({ section, title }: Looked, bladeNames: readonly string[]): string {
  return ofBlade(section) ? withName(title, section.split(':')[1] ?? '1', bladeNames) : title;
}
const ofBlade = (section: string): boolean => section.split(':')[0] === 'blade';
const withName = (words: string, number: string | undefined, bladeNames: readonly string[]): string => {
  const name = number === undefined ? undefined : bladeNames[Number(number) - 1];
  return name === undefined ? words : `${words}, ${name}`;
};

export type Body = Pick<ConditionBody, 'findings' | 'completeness' | 'inspection'>;
export type Seen = 'found' | StepState | 'said' | undefined;

export const seenOf = (looked: Looked, body: Body): Seen =>
  looked.kind === 'step'
    ? stepState(looked.step, body.inspection, body.findings)
    : body.completeness[looked.step.item] == null
      ? undefined
      : 'said';

/** The first thing nobody looked at yet, from a place onwards and then from the top. */
export function nextOpen(list: readonly Looked[], body: Body, from: number): number | undefined {
  const order = [...list.keys()].map((i) => (i + from) % list.length);
  return order.find((i) => {
    const looked = list[i];
    return looked !== undefined && seenOf(looked, body) === undefined;
  });
}

export const withStep = (body: Body, id: string, state: StepState): Body => ({
  ...body,
  inspection: { ...body.inspection, steps: { ...body.inspection.steps, [id]: state } },
});

/** Everything of a section, or of the piece, that nobody looked at yet is good; what was found stays found. */
export function allGood(body: Body, list: readonly Looked[], section?: string): Body {
  return list
    .filter(
      (l) =>
        (section === undefined || l.section === section) &&
        l.kind === 'step' &&
        seenOf(l, body) === undefined,
    )
    .reduce((so, l) => withStep(so, l.step.id, 'good'), body);
}

export const withItem = (body: Body, item: string, state: string | null): Body => ({
  ...body,
  completeness: { ...body.completeness, [item]: state } as Completeness,
});

/** A finding that is being said: a defect is chosen, how bad it is comes next. */
export interface Draft {
  readonly step: InspectionStep;
  readonly defect: Defect;
  readonly side: string | undefined;
  /** the maker’s own work, apart from aftermarket */
  readonly byMaker?: boolean;
}
export interface SideKey {
  readonly side: string;
  readonly key: string;
}
const CLIPPED: readonly Construction[] = ['locking-folder', 'automatic', 'balisong'];
/** The sides as the trade calls them: modern folders have a clip side, the rest a front and a rear. */
export const sidesOf = (construction: Construction): readonly SideKey[] =>
  CLIPPED.includes(construction)
    ? [
        { side: 'clip side', key: 'c' },
        { side: 'other side', key: 'r' },
        { side: 'both sides', key: 'o' },
      ]
    : [
        { side: 'front', key: 'f' },
        { side: 'rear', key: 'r' },
        { side: 'both', key: 'o' },
      ];
/** The same side chosen again means no side. */
export const onSide = (draft: Draft, side: string): Draft => ({
  ...draft,
  side: draft.side === side ? undefined : side,
});

/** How bad it is: by word or by measure. */
export type HowBad = { readonly severity: Severity } | { readonly measure: number };
export const findingOf = (draft: Draft, bad: HowBad): Finding => ({
  part: draft.step.part,
  defect: draft.defect,
  severity: 'severity' in bad ? bad.severity : null,
  measure: 'measure' in bad ? bad.measure : null,
  side: draft.side ?? null,
  ...(draft.byMaker ? { byMaker: true } : {}),
  note: null,
});
