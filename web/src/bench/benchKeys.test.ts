import { describe, expect, test } from '@jest/globals';
import type { Certainty, Observation } from '@jutbank/core/bench';
import { benchKeys, type KeyContext } from './benchKeys.ts';
import type { Item } from './items.ts';

const bolster: Item = {
  kind: 'feature',
  id: 'feature bolster',
  feature: {
    id: 'bolster',
    label: 'Bolsters',
    kind: 'category',
    values: [
      { id: 'plain', label: 'Plain' },
      { id: 'grooved', label: 'Grooved' },
    ],
  },
} as unknown as Item;
const lanyard = {
  ...bolster,
  id: 'feature lanyard',
  feature: { id: 'lanyard', label: 'Lanyard', kind: 'category', values: [{ id: 'none', label: 'None' }] },
} as unknown as Item;

function bench(more: Partial<KeyContext> = {}) {
  const did: unknown[] = [];
  const keys = benchKeys({
    items: [bolster, lanyard],
    inHand: bolster,
    observe: (_, o: Observation | undefined) => did.push(o),
    move: (id) => did.push(id),
    undo: () => did.push('undo'),
    certain: (c: Certainty) => did.push(c),
    toMaker: () => did.push('maker'),
    ...more,
  });
  return (key: string) => {
    keys.find((k) => k.key === key)?.run?.();
    return did.at(-1);
  };
}

describe('a key of the bench', () => {
  test('a number takes the answer that bears it', () => {
    const press = bench();
    expect(press('1')).toEqual({ feature: 'bolster', value: 'plain' });
    expect(press('2')).toEqual({ feature: 'bolster', value: 'grooved' });
  });
  test('0 is not there: said as a value where the reference has one for it, else as a state', () => {
    expect(bench()('0')).toEqual({ feature: 'bolster', state: 'not-there' });
    expect(bench({ inHand: lanyard })('0')).toEqual({ feature: 'lanyard', value: 'none' });
  });
  test('- is cannot tell, which is not the same', () => {
    expect(bench()('-')).toEqual({ feature: 'bolster', state: 'cannot-tell' });
  });
  test('q makes the last answer only likely, u unsure', () => {
    const press = bench();
    expect(press('q')).toBe('likely');
    expect(press('u')).toBe('unsure');
  });
  test('the arrows go round, z takes back, m says whose it is', () => {
    const press = bench();
    expect(press('ArrowDown')).toBe('feature lanyard');
    expect(press('ArrowUp')).toBe('feature lanyard');
    expect(press('z')).toBe('undo');
    expect(press('m')).toBe('maker');
  });
  test('with nothing in hand no number answers anything', () => {
    const press = bench({ inHand: undefined });
    expect(press('1')).toBeUndefined();
    expect(press('0')).toBeUndefined();
  });
});
