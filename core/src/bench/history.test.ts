import { dayOf } from '../dates/index.ts';
import { describe, expect, test } from '@jest/globals';
import { emptyContents, type PackContents, type Variant } from '../reference/index.ts';
import { compileReference } from './compile.ts';
import { identify } from './identify.ts';
import type { Observation } from './observation.ts';

const TODAY = dayOf(2026, 11, 1);

const category = (id: string, part: string, values: string[]) => ({
  id,
  label: id,
  part,
  kind: 'category' as const,
  swap: 'hard' as const,
  values: values.map((v) => ({ id: v, label: v })),
});
const issued = (id: string, window: string, features: Record<string, string[]>): Variant => ({
  id,
  pattern: 'long',
  name: id,
  kind: 'service',
  window,
  made: { quantity: 10_000, basis: 'documented' },
  marks: ['wheel'],
  features,
});
const contents: PackContents = {
  ...emptyContents(),
  sources: [{ id: 'register', title: 'Register', kind: 'factory-record', reliability: 0.95 }],
  makers: [{ id: 'arsenal', name: 'Arsenal', active: '1880/1960' }],
  patterns: [{ id: 'long', maker: 'arsenal', name: 'Pattern 1', construction: 'bayonet' }],
  features: [
    category('finish', 'blade', ['blued', 'phosphated']),
    category('grip', 'grip', ['walnut', 'resin']),
    category('ring', 'guard', ['full', 'half']),
    category('drag', 'scabbard', ['ball', 'disc']),
  ],
  marks: [
    { id: 'wheel', maker: 'arsenal', place: 'ricasso', lines: ['WHEEL'], window: '1880/1960' },
    {
      id: 'rework',
      maker: 'arsenal',
      place: 'ricasso',
      lines: ['R'],
      window: '1946/1951',
      source: 'register',
      page: '88',
      history: { what: 're-work', changes: ['finish', 'grip'] },
    },
    {
      id: 'cut',
      maker: 'arsenal',
      place: 'guard',
      lines: ['K'],
      window: '1934/1939',
      history: { what: 'conversion' },
    },
  ],
  windows: [
    { id: 'w1', maker: 'arsenal', feature: 'grip', value: 'resin', window: '1944/1960', source: 'register' },
    { id: 'w2', maker: 'arsenal', feature: 'ring', value: 'full', window: '1880/1942', source: 'register' },
  ],
  variants: [
    issued('early', '1920/1942', { finish: ['blued'], grip: ['walnut'], ring: ['full'], drag: ['ball'] }),
    issued('late', '1944/1960', { finish: ['phosphated'], grip: ['resin'], ring: ['half'], drag: ['disc'] }),
    {
      ...issued('short', '1934/1939', { finish: ['blued'], grip: ['walnut'], ring: ['half'] }),
      marks: ['wheel', 'cut'],
      convertedFrom: ['early'],
    },
  ],
};
const index = compileReference(contents, '1', TODAY);
const ask = (observations: Observation[]) => identify(index, { observations, limit: 10 });
const p = (answer: ReturnType<typeof ask>, variant: string) =>
  answer.candidates.find((c) => c.variant === variant)?.probability ?? 0;

const reworked: Observation[] = [
  { mark: 'wheel' },
  { feature: 'finish', value: 'phosphated' },
  { feature: 'grip', value: 'resin' },
  { feature: 'ring', value: 'full' },
];

describe('what happened afterwards', () => {
  test('a stamp of re-work explains what it changed: the piece is the early one, nothing was exchanged', () => {
    const before = ask(reworked);
    const after = ask([...reworked, { mark: 'rework' }]);
    expect(p(before, 'early')).toBeLessThan(0.5);
    expect(p(after, 'early')).toBeGreaterThan(0.9);
    expect(after.candidates[0]?.exchanged).toEqual([]);
    expect(after.history).toEqual([
      expect.objectContaining({
        what: 're-work',
        because: { mark: 'rework' },
        window: '1946/1951',
        changed: ['finish', 'grip'],
        source: 'register',
        page: '88',
      }),
    ]);
  });
  test('what was changed no longer dates the making, and the stamp bounds it only from above', () => {
    const before = ask(reworked);
    const after = ask([...reworked, { mark: 'rework' }]);
    expect(before.dating.conflicts).not.toEqual([]);
    expect(after.dating.conflicts).toEqual([]);
    expect(after.dating.core).toBe('1920/1942');
    const only = ask([{ mark: 'rework' }]);
    expect(only.dating.ceiling[0]).toMatchObject({ because: { mark: 'rework' }, date: '1951' });
    expect(only.dating.floor[0]?.because).not.toEqual({ mark: 'rework' });
  });
  test('the stamp of making is still asked for once a stamp of re-work was read', () => {
    const twoMakers = compileReference(
      {
        ...contents,
        makers: [...contents.makers, { id: 'other', name: 'Other' }],
        patterns: [
          ...contents.patterns,
          { id: 'copy', maker: 'other', name: 'Copy', construction: 'bayonet' },
        ],
        marks: [...contents.marks, { id: 'star', maker: 'other', place: 'ricasso', lines: ['STAR'] }],
        variants: [
          ...contents.variants,
          { ...issued('copy', '1920/1942', {}), pattern: 'copy', marks: ['star'] },
        ],
      },
      '2',
      TODAY,
    );
    const asked = (o: Observation[]) =>
      identify(twoMakers, { observations: o }).nextChecks.some((c) => c.mark === true);
    expect(asked([{ feature: 'ring', value: 'full' }])).toBe(true);
    expect(asked([{ mark: 'wheel' }])).toBe(false);
  });
  test('a converted variant tells what it was made from', () => {
    const answer = ask([
      { mark: 'wheel' },
      { mark: 'cut' },
      { feature: 'finish', value: 'blued' },
      { feature: 'ring', value: 'half' },
    ]);
    expect(answer.candidates[0]?.variant).toBe('short');
    const from = [{ variant: 'early', pattern: 'long' }];
    expect(answer.history).toEqual([
      expect.objectContaining({ what: 'conversion', because: { mark: 'cut' }, window: '1934/1939', from }),
    ]);
    const unstamped = ask([
      { mark: 'wheel' },
      { feature: 'finish', value: 'blued' },
      { feature: 'ring', value: 'half' },
    ]);
    expect(unstamped.history).toEqual([
      expect.objectContaining({ what: 'conversion', because: { variant: 'short' }, from }),
    ]);
  });
});

describe('numbers on the parts', () => {
  const seen: Observation[] = [
    { mark: 'wheel' },
    { feature: 'finish', value: 'blued' },
    { feature: 'ring', value: 'full' },
    { feature: 'drag', value: 'disc' },
  ];
  test('match whatever the spaces and the letters’ size; one alone is held against nothing', () => {
    expect(ask([{ part: 'scabbard', number: 'a 44-17' }]).numbers?.verdict).toBe('one-only');
    const two = ask([
      { part: 'scabbard', number: 'a 44-17' },
      { part: 'blade', number: 'A4417' },
    ]);
    expect(two.numbers).toEqual({
      verdict: 'matching',
      parts: [
        { part: 'blade', number: 'A4417', agrees: true },
        { part: 'scabbard', number: 'a 44-17', agrees: true },
      ],
    });
  });
  test('that differ tell a scabbard from another piece: it no longer speaks against the blade', () => {
    const number = (scabbard: string) =>
      ask([...seen, { part: 'blade', number: 'A1' }, { part: 'scabbard', number: scabbard }]);
    const plain = p(ask(seen), 'early');
    expect(number('B2').numbers?.verdict).toBe('differing');
    expect(p(number('B2'), 'early')).toBeGreaterThan(plain);
    expect(p(number('A1'), 'early')).toBeLessThan(plain);
    expect(number('B2').candidates[0]?.exchanged).toContain('scabbard');
  });
});
