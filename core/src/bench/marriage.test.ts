import { dayOf } from '../dates/index.ts';
import { describe, expect, test } from '@jest/globals';
import { emptyContents, type Feature, type PackContents, type Variant } from '../reference/index.ts';
import { compileReference } from './compile.ts';
import { identify } from './identify.ts';
import type { Observation } from './observation.ts';

const TODAY = dayOf(2026, 11, 1);

const PARTS = ['grip', 'guard', 'pommel', 'frog', 'blade', 'scabbard', 'catch', 'ring'];
const feature = (part: string): Feature => ({
  id: part,
  label: part,
  part,
  kind: 'category',
  swap: 'hard',
  values: ['one', 'two', 'three'].map((id) => ({ id, label: id })),
});
const bayonet = (id: string, values: readonly string[]): Variant => ({
  id,
  pattern: 'long',
  name: id,
  kind: 'service',
  window: '1910/1930',
  made: { quantity: 10_000, basis: 'documented' },
  features: Object.fromEntries(PARTS.map((part, i) => [part, [values[i] ?? 'one']])),
});
const contents: PackContents = {
  ...emptyContents(),
  makers: [{ id: 'arsenal', name: 'Vessmark State Arsenal', active: '1889/1958' }],
  patterns: [{ id: 'long', maker: 'arsenal', name: 'Pattern 1', construction: 'bayonet' }],
  features: PARTS.map(feature),
  variants: [
    bayonet(
      'early',
      PARTS.map(() => 'one'),
    ),
    bayonet(
      'late',
      PARTS.map(() => 'two'),
    ),
    bayonet(
      'trials',
      PARTS.map(() => 'three'),
    ),
  ],
};
const index = compileReference(contents, '1', TODAY);
const seen = (values: readonly string[]): Observation[] =>
  values.flatMap((value, i): Observation[] => (PARTS[i] === undefined ? [] : [{ feature: PARTS[i], value }]));

describe('a piece put together from two', () => {
  test('is told, with the parts that belong to each', () => {
    const answer = identify(index, { observations: seen(PARTS.map((_, i) => (i < 4 ? 'one' : 'two'))) });
    const pieces = answer.putTogether?.pieces ?? [];
    expect(pieces.map((p) => p.variant).sort()).toEqual(['early', 'late']);
    expect([...(pieces.find((p) => p.variant === 'late')?.parts ?? [])].sort()).toEqual([
      'blade',
      'catch',
      'ring',
      'scabbard',
    ]);
    expect(answer.putTogether?.weight).toBeGreaterThan(10);
    expect(answer.attribution.tier).toBe('doubtful');
    expect(answer.attribution.reasons[0]).toContain('two pieces');
  });

  test('is not told of a whole piece, nor of one with a single part exchanged', () => {
    expect(identify(index, { observations: seen(PARTS.map(() => 'one')) }).putTogether).toBeNull();
    const one = identify(index, { observations: seen(PARTS.map((_, i) => (i < 7 ? 'one' : 'two'))) });
    expect(one.putTogether).toBeNull();
    expect(one.candidates[0]).toMatchObject({ variant: 'early' });
  });
});
