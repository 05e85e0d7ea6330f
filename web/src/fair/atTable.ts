/** One piece on the table: what is known of it, the question that makes, and the note of what was decided. */
import type { FairNote } from '@jutbank/contract/fair';
import { findingsOf, type Finding, type QuickLook } from '@jutbank/core/condition';
import type { FairJudgement, FairQuestion } from '@jutbank/core/fair';
import { ALTERATIONS, type Alteration } from '@jutbank/core/market';
import type { Money } from '@jutbank/core/money';
import type { Construction } from '@jutbank/core/reference';
import type { Care } from '@jutbank/core/worth';
import type { BagLabel } from './bag.ts';
import type { Chosen, Seen } from './table.ts';

export type WithIt = Readonly<Record<'box' | 'papers' | 'sheath', boolean>>;
export interface OnTable {
  readonly pattern: Chosen | undefined;
  /** the form a person says it is, '' where it is left open */
  readonly variant: string;
  readonly seen: readonly Seen[];
  readonly look: QuickLook;
  readonly withIt: WithIt;
  readonly asked: Money | null;
  readonly care: Care;
  /** what the seller says of it */
  readonly said: string;
}
export const NOTHING_YET: OnTable = {
  pattern: undefined,
  variant: '',
  seen: [],
  look: {},
  withIt: { box: false, papers: false, sheath: false },
  asked: null,
  care: 'even',
  said: '',
};

export const mayHaveSheath = (construction: Construction): boolean =>
  construction === 'fixed' || construction === 'bayonet';

export const observationsOf = ({ seen }: OnTable) => seen.map((one) => one.make);

/** Undefined while nobody says which pattern it is. @param conditionIndex as it was graded, undefined while it is not */
export function questionOf(on: OnTable, conditionIndex: number | undefined): FairQuestion | undefined {
  const { pattern, variant, look, withIt, asked, care } = on;
  if (pattern === undefined || pattern.id === null) return undefined;
  const item = (there: boolean) => (there ? ('original' as const) : ('none' as const));
  return {
    pattern: pattern.id,
    variant: variant === '' ? null : variant,
    observations: observationsOf(on),
    conditionIndex: conditionIndex ?? null,
    box: item(withIt.box),
    papers: item(withIt.papers),
    sheath: mayHaveSheath(pattern.construction) ? item(withIt.sheath) : null,
    alterations: alterationsIn(findingsOf(look)),
    asked,
    care,
  };
}

const alterationsIn = (findings: readonly Finding[]): Alteration[] => [
  ...new Set(
    findings
      .map((f) => f.defect)
      .filter((d): d is Alteration => (ALTERATIONS as readonly string[]).includes(d)),
  ),
];

/** @param judged what was told of just this question; undefined where nothing was */
export function noteOf(
  on: OnTable & { readonly pattern: Chosen },
  decision: FairNote['decision'],
  question: FairQuestion | undefined,
  judged: FairJudgement | undefined,
  bag: BagLabel | undefined,
): FairNote {
  const most = question && judged?.most;
  return {
    key: crypto.randomUUID(),
    notedAt: new Date().toISOString(),
    title: on.pattern.name.trim(),
    construction: on.pattern.construction,
    question: question ? { ...question, observations: null, alterations: [...question.alterations] } : null,
    decision,
    paid: decision === 'bought' ? on.asked : null,
    note: on.said.trim(),
    observations: observationsOf(on),
    ...(most ? { ceiling: most.bid === null ? null : { amount: most.bid, currency: most.currency } } : {}),
    packedAt: bag?.packedAt ?? null,
  };
}
