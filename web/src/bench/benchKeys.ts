/** The keys of the bench: a number an answer, and the few things one says of an answer. */
import type { Certainty, Observation } from '@jutbank/core/bench';
import type { Shortcut } from '../base/shortcuts.ts';
import { choicesOf } from './choices.ts';
import type { Item } from './items.ts';

export interface KeyContext {
  readonly items: readonly Item[];
  readonly inHand: Item | undefined;
  readonly observe: (item: Item, o: Observation | undefined) => void;
  readonly move: (id: string) => void;
  readonly undo: () => void;
  readonly certain: (c: Certainty) => void;
  readonly toMaker: () => void;
}

/** What each key of the bench does to what is in hand. */
export function benchKeys({ items, inHand, observe, move, undo, certain, toMaker }: KeyContext): Shortcut[] {
  const choices = inHand ? choicesOf(inHand) : [];
  const feature = inHand?.kind === 'feature' ? inHand.feature : undefined;
  const at = items.findIndex((item) => item.id === inHand?.id);
  const step = (by: number) => {
    const next = items[(at + by + items.length) % Math.max(1, items.length)];
    if (next) move(next.id);
  };
  const numbers = Array.from({ length: 9 }, (_, i) => ({
    key: String(i + 1),
    does: choices[i]?.label ?? '',
    run: () => {
      const choice = choices[i];
      if (choice && inHand) observe(inHand, choice.make);
    },
  })).filter((k) => k.does !== '');
  return [
    ...numbers,
    {
      key: '0',
      does: 'Not there',
      run: () =>
        inHand &&
        feature &&
        observe(
          inHand,
          feature.values?.some((v) => v.id === 'none')
            ? { feature: feature.id, value: 'none' }
            : { feature: feature.id, state: 'not-there' },
        ),
    },
    {
      key: '-',
      does: 'Cannot tell',
      run: () => inHand && feature && observe(inHand, { feature: feature.id, state: 'cannot-tell' }),
    },
    { key: 'ArrowDown', does: 'Next thing to look at', run: () => step(1) },
    { key: 'ArrowUp', does: 'The one before', run: () => step(-1) },
    { key: 'q', does: 'The last answer is only likely', run: () => certain('likely') },
    { key: 'u', does: 'The last answer is unsure', run: () => certain('unsure') },
    { key: 'm', does: 'Say whose it is', run: toMaker },
    { key: 'z', does: 'Undo', run: undo },
  ];
}
