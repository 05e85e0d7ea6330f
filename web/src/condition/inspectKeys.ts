/** The keys of the inspection: numbers choose, a letter for each side, one stroke for a whole section. */
import { useMemo } from 'react';
import { defectInWords, SEVERITIES, type Defect } from '@jutbank/core/condition';
import type { Construction } from '@jutbank/core/reference';
import { sentence } from '../parts/words.ts';
import {
  allGood,
  nextOpen,
  onSide,
  sidesOf,
  withItem,
  withStep,
  type Body,
  type Draft,
  type HowBad,
  type Looked,
} from './inspecting.ts';

/** Work that somebody did to it: the maker’s own stands apart from aftermarket. */
export const ALTERED: readonly Defect[] = ['replaced', 'refinished', 'repaired', 'reground', 'polished'];

interface KeyContext {
  readonly construction: Construction;
  readonly looked: Looked | undefined;
  readonly list: readonly Looked[];
  readonly at: number | undefined;
  readonly body: Body;
  readonly draft: Draft | undefined;
  readonly may: boolean;
  readonly setDraft: (draft: Draft | undefined) => void;
  readonly say: (next: Body) => void;
  readonly add: (bad: HowBad) => void;
  readonly go: (to: number | undefined) => void;
  readonly undo: () => void;
}

export function useInspectKeys(context: KeyContext) {
  const { construction, looked, list, at, body, draft, may, setDraft, say, add, go, undo } = context;
  return useMemo(() => {
    const step = (by: number) => at !== undefined && go((at + by + list.length) % list.length);
    const move = [
      { key: 'ArrowDown', does: 'Next thing to look at', run: () => step(1) },
      { key: 'ArrowUp', does: 'The one before', run: () => step(-1) },
    ];
    if (!looked || !may) return move;
    if (draft)
      return [
        ...SEVERITIES.map((severity, i) => ({
          key: String(i + 1),
          does: sentence(severity),
          run: () => add({ severity }),
        })),
        ...(draft.step.sided
          ? sidesOf(construction).map(({ side, key }) => ({
              key,
              does: side.startsWith('both') ? 'On both sides' : `On the ${side}`,
              run: () => setDraft(onSide(draft, side)),
            }))
          : []),
        ...(ALTERED.includes(draft.defect)
          ? [
              {
                key: 'w',
                does: 'The maker’s own work',
                run: () => setDraft({ ...draft, byMaker: !draft.byMaker }),
              },
            ]
          : []),
        { key: 'm', does: 'Type a measure', run: () => document.getElementById('howmuch')?.focus() },
        { key: 'Escape', does: 'Another defect', run: () => setDraft(undefined) },
      ];
    const choices =
      looked.kind === 'item'
        ? looked.step.states.map((state) => ({
            does: sentence(state),
            run: () => say(withItem(body, looked.step.item, state)),
          }))
        : looked.step.defects.map((defect) => ({
            does: sentence(defectInWords(defect)),
            run: () => setDraft({ step: looked.step, defect, side: undefined }),
          }));
    return [
      ...choices.slice(0, 9).map((c, i) => ({ key: String(i + 1), ...c })),
      ...(looked.kind === 'step'
        ? [
            { key: '0', does: 'Good', run: () => say(withStep(body, looked.step.id, 'good')) },
            {
              key: '-',
              does: 'Not examined',
              run: () => say(withStep(body, looked.step.id, 'not-examined')),
            },
            {
              key: 'g',
              does: 'All of the section good',
              run: () => say(allGood(body, list, looked.section)),
            },
            { key: 'a', does: 'All that is open is good: as new', run: () => say(allGood(body, list)) },
          ]
        : []),
      {
        key: 'Enter',
        does: 'Go on to what is open',
        run: () => at !== undefined && go(nextOpen(list, body, at + 1)),
      },
      { key: 'z', does: 'Undo', run: undo },
      ...move,
    ];
  }, [add, at, body, construction, draft, go, list, looked, may, say, setDraft, undo]);
}
