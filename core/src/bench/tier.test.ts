import { describe, expect, test } from '@jest/globals';
import { dayOf } from '../dates/index.ts';
import { emptyContents, type DatedWindow, type PackContents, type Variant } from '../reference/index.ts';
import { compileReference } from './compile.ts';
import { identify } from './identify.ts';
import type { Observation } from './observation.ts';

const TODAY = dayOf(2026, 11, 1);
const category = (id: string, ...values: string[]) => ({
  id,
  label: id,
  part: id,
  kind: 'category' as const,
  swap: 'never' as const,
  values: values.map((v) => ({ id: v, label: v })),
});
const form = (id: string, features: Record<string, string[]>, more: Partial<Variant> = {}): Variant => ({
  id,
  pattern: 'net-knife',
  name: id,
  kind: 'production',
  window: '1930/1960',
  made: { quantity: 20_000, basis: 'documented' },
  features,
  ...more,
});
/** Two forms of one pattern, of which the first alone bears the eel stamp; and a numbered run that was imitated. */
const reference: PackContents = {
  ...emptyContents(),
  sources: [
    { id: 'ledger', title: 'Works ledger', kind: 'factory-record', reliability: 0.97 },
    { id: 'talk', title: 'Told at a fair', kind: 'hearsay', reliability: 0.4 },
  ],
  makers: [{ id: 'eel', name: 'Eel Works', active: '1900/..' }],
  patterns: [
    { id: 'net-knife', maker: 'eel', name: 'Net knife', construction: 'slipjoint' },
    { id: 'skiff', maker: 'eel', name: 'Skiff', construction: 'locking-folder' },
  ],
  features: [
    category('scales', 'horn', 'bone'),
    category('bolster', 'plain', 'grooved'),
    category('spring', 'plain', 'fluted'),
    category('shield', 'bar', 'oval'),
    category('screws', 'slotted', 'star'),
    category('pin', 'iron', 'brass'),
  ],
  marks: [
    { id: 'eel-stamp', maker: 'eel', place: 'tang', lines: ['EEL'] },
    { id: 'plain-stamp', maker: 'eel', place: 'tang', lines: ['EEL WORKS'] },
  ],
  variants: [
    form(
      'eel-form',
      { scales: ['horn'], bolster: ['grooved'], spring: ['fluted'], shield: ['bar'] },
      { marks: ['eel-stamp'] },
    ),
    form(
      'plain-form',
      { scales: ['bone'], bolster: ['plain'], spring: ['plain'], shield: ['oval'] },
      { marks: ['plain-stamp'] },
    ),
    form(
      'skiff-run',
      { screws: ['star'] },
      { pattern: 'skiff', kind: 'limited', window: '2015', made: { quantity: 400, basis: 'documented' } },
    ),
    form(
      'skiff-copy',
      { screws: ['star', 'slotted'] },
      {
        pattern: 'skiff',
        kind: 'counterfeit',
        twinOf: 'skiff-run',
        window: '2018/..',
        made: { quantity: 4000, basis: 'estimated' },
        tells: ['the screws'],
      },
    ),
  ],
};
const ask = (observations: Observation[], contents: PackContents = reference, pattern?: string) =>
  identify(compileReference(contents, '1', TODAY), {
    observations,
    within: pattern === undefined ? {} : { patterns: [pattern] },
    limit: 10,
  });
const SEEN: Observation[] = [
  { feature: 'scales', value: 'horn' },
  { feature: 'bolster', value: 'grooved' },
  { feature: 'spring', value: 'fluted' },
  { feature: 'shield', value: 'bar' },
];

describe('confirmed', () => {
  test('is never said without a mark, code or number that only it bears, however likely it is', () => {
    const answer = ask(SEEN, reference, 'net-knife');
    expect(answer.candidates[0]).toMatchObject({ variant: 'eel-form' });
    expect(answer.candidates[0]?.probability).toBeGreaterThan(0.95);
    expect(answer.attribution.tier).toBe('probable');
    expect(answer.attribution.cannotBeProvedBecause.length).toBeGreaterThan(0);
  });
  test('is said once that mark was read, and names it', () => {
    const { attribution } = ask([...SEEN, { mark: 'eel-stamp' }], reference, 'net-knife');
    expect(attribution.tier).toBe('confirmed');
    expect(attribution.reasons.join(' ')).toContain('EEL');
  });
  test('a mark that another form bears too proves nothing', () => {
    const shared = {
      ...reference,
      variants: reference.variants.map((v) =>
        v.pattern === 'net-knife' ? { ...v, marks: ['eel-stamp'] } : v,
      ),
    };
    expect(ask([...SEEN, { mark: 'eel-stamp' }], shared, 'net-knife').attribution.tier).not.toBe('confirmed');
  });
});

describe('a counterfeit that explains it as well', () => {
  test('makes it doubtful, and is named as the reason', () => {
    const { attribution, candidates } = ask(
      [{ feature: 'screws', value: 'slotted', certainty: 'likely' }],
      reference,
      'skiff',
    );
    expect(candidates[0]?.variant).toBe('skiff-run');
    expect(candidates.find((c) => c.variant === 'skiff-copy')?.probability).toBeGreaterThan(0.15);
    expect(['doubtful', 'rejected']).toContain(attribution.tier);
    expect(attribution.reasons.join(' ')).toMatch(/counterfeit/i);
  });
});

describe('two sources that cannot both be right', () => {
  const dated = (first: string, second: string): PackContents => {
    const window = (id: string, source: string): DatedWindow => ({
      id,
      maker: 'eel',
      feature: 'pin',
      value: 'brass',
      window: source === 'ledger' ? '1931/1935' : '1951/1955',
      source,
    });
    return { ...reference, windows: [window('w1', first), window('w2', second)] };
  };
  const yearsOf = (contents: PackContents) =>
    ask([{ feature: 'pin', value: 'brass' }], contents, 'net-knife').dating;
  test.each([
    ['ledger', 'talk'],
    ['talk', 'ledger'],
  ])('the more reliable one dates the piece, whichever was written first (%s, %s)', (first, second) => {
    const { years, disputed } = yearsOf(dated(first, second));
    const within = (from: number, to: number) =>
      years.filter((y) => y.year >= from && y.year <= to).reduce((sum, y) => sum + y.probability, 0);
    expect(within(1931, 1935)).toBeGreaterThan(1.5 * within(1951, 1955));
    expect(disputed[0]).toMatchObject({ strict: '1931/1935' });
  });
  test('how reliable they are is what counts: turned round, the other one dates it', () => {
    const turned = {
      ...dated('ledger', 'talk'),
      sources: reference.sources.map((s) => ({ ...s, reliability: s.id === 'talk' ? 0.97 : 0.4 })),
    };
    expect(yearsOf(turned).disputed[0]).toMatchObject({ strict: '1951/1955' });
  });
});
