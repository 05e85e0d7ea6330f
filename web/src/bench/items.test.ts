import { describe, expect, test } from '@jest/globals';
import type { IdentifyAnswer, NextCheck, Observation } from '@jutbank/core/bench';
import type { Vocabulary } from '@jutbank/contract/reference';
import { bitsOf, itemsFor, mostTelling, observedAs } from './items.ts';

const vocabulary: Vocabulary = {
  revision: '1',
  makers: [],
  patterns: [{ id: 'jack', maker: 'bh', name: 'Jack', construction: 'slipjoint', variants: 3, form: null }],
  features: [
    { id: 'weight', label: 'Weight', part: 'whole', kind: 'measure', unit: 'g', effort: 'gauge' },
    {
      id: 'scales',
      label: 'Scales',
      part: 'scales',
      kind: 'category',
      values: [{ id: 'horn', label: 'Horn' }],
      effort: 'glance',
    },
    {
      id: 'lock',
      label: 'Lock',
      part: 'lock',
      kind: 'category',
      values: [{ id: 'back', label: 'Back' }],
      constructions: ['locking-folder'],
    },
    { id: 'silent', label: 'Silent', part: 'x', kind: 'category', values: [] },
  ],
  marks: [{ id: 'm', lines: ['BH'] }],
  codes: [{ id: 'ticks', maker: 'bh', kind: 'date', title: 'Ticks', reads: [], rules: [] }],
  sources: [],
};
const answer = (probability: number, checks: Partial<NextCheck>[] = []): IdentifyAnswer =>
  ({
    candidates: [{ variant: 'v', pattern: 'jack', probability, evidence: [], exchanged: [] }],
    nextChecks: checks,
  }) as unknown as IdentifyAnswer;
const ids = (a: IdentifyAnswer | undefined, seen: Observation[] = []) =>
  itemsFor('slipjoint', vocabulary, a, seen).map((i) => i.id);

describe('what there is to look at', () => {
  test('in the order of effort, only what applies to the construction and can be answered', () => {
    expect(ids(undefined)).toEqual(['feature scales', 'mark', 'feature weight']);
  });
  test('a code appears once its maker is in play, and stays once it was read', () => {
    expect(ids(answer(0.5))).toContain('code ticks');
    expect(ids(answer(0.001))).not.toContain('code ticks');
    expect(ids(answer(0.001), [{ code: 'ticks', reads: { n: 1 } }])).toContain('code ticks');
  });
  test('most telling first, by the bits of the last answer', () => {
    const a = answer(0.5, [
      { feature: 'weight', bits: 0.9 },
      { mark: true, bits: 0.4 },
    ]);
    const items = mostTelling(itemsFor('slipjoint', vocabulary, a, []), a);
    expect(items.slice(0, 2).map((i) => i.id)).toEqual(['feature weight', 'mark']);
    expect(items.map((i) => bitsOf(i, a))).toEqual([0.9, 0.4, 0, 0]);
  });
  test('each item finds its own observation', () => {
    const seen: Observation[] = [{ feature: 'scales', value: 'horn' }, { mark: 'm' }];
    const found = itemsFor('slipjoint', vocabulary, undefined, seen).map((i) => observedAs(i, seen));
    expect(found).toEqual([seen[0], seen[1], undefined]);
  });
});
