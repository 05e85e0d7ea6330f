import { describe, expect, test } from '@jest/globals';
import { checkPack } from './checkPack.ts';
import { emptyContents, type DateCode, type PatternNumberCode, type ReferencePack } from './pack.ts';
import { parsePatternNumber } from './parsePatternNumber.ts';
import { readDateCode } from './readDateCode.ts';

const ticks: DateCode = {
  id: 'ticks',
  kind: 'date',
  reads: [
    { id: 'ticks', label: 'Ticks', type: 'count', min: 0, max: 9 },
    { id: 'row', label: 'Row', type: 'choice', values: ['above', 'below'] },
  ],
  rules: [
    { when: { row: 'above' }, year: { base: 1950, plus: 'ticks' } },
    { when: { row: 'below' }, year: { base: 1969, minus: 'ticks' } },
  ],
};
const windows = (reads: Record<string, string | number>, code = ticks) => {
  const read = readDateCode(code, reads);
  return read.ok ? read.value.map((r) => r.window) : read.error;
};

describe('date codes', () => {
  test('the same count under another arrangement is another decade', () => {
    expect(windows({ ticks: 3, row: 'above' })).toEqual(['1953']);
    expect(windows({ ticks: 3, row: 'below' })).toEqual(['1966']);
  });
  test('a read that was not given excludes nothing', () =>
    expect(windows({ ticks: 3 })).toEqual(['1953', '1966']));
  test('a count beyond the rule is named', () =>
    expect(windows({ ticks: 11, row: 'above' })).toMatchObject({ pointer: '/reads/ticks' }));
  test('letters may skip some', () => {
    const letters: DateCode = {
      id: 'l',
      kind: 'date',
      reads: [{ id: 'letter', label: 'Letter', type: 'choice', values: [...'ABCDEFGHJ'] }],
      rules: [{ year: { letters: 'ABCDEFGHJ', base: 1931, read: 'letter' } }],
    };
    expect(windows({ letter: 'J' }, letters)).toEqual(['1939']);
    expect(windows({ letter: 'I' }, letters)).toMatchObject({ pointer: '/reads/letter' });
  });
  test('serial ranges and tables; what no rule covers has no reading', () => {
    const ranges: DateCode = {
      id: 'r',
      kind: 'date',
      reads: [{ id: 'n', label: 'Number', type: 'count' }],
      rules: [
        {
          year: {
            ranges: [
              { from: 1, to: 4200, window: '1931' },
              { from: 4201, to: 9000, window: '1932-01/1932-06' },
            ],
            read: 'n',
          },
        },
      ],
    };
    expect(windows({ n: 4201 }, ranges)).toEqual(['1932-01/1932-06']);
    expect(windows({ n: 9001 }, ranges)).toEqual([]);
    const digits: DateCode = {
      id: 'd',
      kind: 'date',
      reads: [{ id: 'yy', label: 'Year', type: 'count', min: 0, max: 99 }],
      rules: [{ year: { digits: 'yy', century: 1900 } }],
    };
    expect(windows({ yy: 7 }, digits)).toEqual(['1907']);
  });
});

const stamp: PatternNumberCode = {
  id: 'stamp',
  kind: 'pattern-number',
  segments: [
    {
      id: 'handle',
      table: { '3': { feature: 'scales', value: 'horn' }, '7': { feature: 'scales', value: 'fibre' } },
    },
    { id: 'blades', digits: 1, feature: 'blades' },
    { id: 'pattern', digits: '2-3', pattern: true },
    {
      id: 'suffix',
      repeat: true,
      optional: true,
      table: { HS: { feature: 'half-stop', value: 'yes' }, S: { feature: 'steel', value: 'stainless' } },
    },
  ],
};

describe('pattern numbers', () => {
  test('blanks are dropped, letters raised, suffixes repeated', () => {
    expect(parsePatternNumber(stamp, '32 62 hss').parses).toEqual([
      {
        patternNumber: '62',
        implies: [
          { feature: 'scales', value: 'horn' },
          { feature: 'blades', value: 2 },
          { feature: 'half-stop', value: 'yes' },
          { feature: 'steel', value: 'stainless' },
        ],
      },
    ]);
  });
  test.each(['9262', '326', '3262X', ''])('“%s” cannot be used up', (text) =>
    expect(parsePatternNumber(stamp, text).parses).toEqual([]),
  );
});

const pack = (more: Partial<ReferencePack>): ReferencePack => ({
  format: 'jutbank.reference/1',
  id: 'p',
  title: 'P',
  revision: '1',
  makers: [{ id: 'm', name: 'M', active: '1900/1950' }],
  features: [
    {
      id: 'scales',
      label: 'Scales',
      part: 'scales',
      kind: 'category',
      values: [{ id: 'horn', label: 'Horn' }],
    },
  ],
  patterns: [{ id: 'jack', maker: 'm', name: 'Jack', construction: 'slipjoint' }],
  variants: [
    {
      id: 'j1',
      pattern: 'jack',
      name: 'First',
      kind: 'production',
      window: '1910/1920',
      features: { scales: ['horn'] },
    },
  ],
  ...more,
});
const pointers = (p: ReferencePack) => checkPack(p, emptyContents()).errors.map((e) => e.pointer);

describe('what a pack may not say', () => {
  test('a sound pack has neither errors nor warnings', () =>
    expect(checkPack(pack({}), emptyContents())).toEqual({ errors: [], warnings: [] }));
  test('a reference that points nowhere', () =>
    expect(
      pointers(
        pack({ patterns: [{ id: 'jack', maker: 'nobody', name: 'Jack', construction: 'slipjoint' }] }),
      ),
    ).toContain('/patterns/0/maker'));
  test('a value that is not among its feature’s', () =>
    expect(
      pointers(
        pack({
          variants: [
            { id: 'j1', pattern: 'jack', name: 'F', kind: 'production', features: { scales: ['bone'] } },
          ],
        }),
      ),
    ).toEqual(['/variants/0/features/scales/0']));
  test('a window that ends before it begins', () =>
    expect(
      pointers(pack({ windows: [{ id: 'w', feature: 'scales', value: 'horn', window: '1936/1934' }] })),
    ).toEqual(['/windows/0/window']));
  test.each([
    [
      'of fewer points than a form has',
      [
        [0, 0],
        [98, 4],
      ],
      false,
    ],
    [
      'that goes nowhere along the handle',
      [
        [5, 0],
        [5, 8],
        [5, 16],
      ],
      false,
    ],
    [
      'of three points',
      [
        [0, 0],
        [98, 4],
        [40, 12],
      ],
      true,
    ],
  ] as [string, [number, number][], boolean][])('a handle’s outline %s', (_, outline, sound) => {
    const [jack] = pack({}).patterns ?? [];
    const drawn = pack({ patterns: jack ? [{ ...jack, drawing: { handle: { outline } } }] : [] });
    expect(pointers(drawn)).toEqual(sound ? [] : ['/patterns/0/drawing/handle/outline']);
  });
  test('twins that go round in a circle', () => {
    const twin = (id: string, twinOf: string) => ({
      id,
      pattern: 'jack',
      name: id,
      kind: 'commercial-twin' as const,
      twinOf,
    });
    expect(pointers(pack({ variants: [twin('a', 'b'), twin('b', 'a')] }))).toEqual([
      '/variants/0/twinOf',
      '/variants/1/twinOf',
    ]);
  });
  test('conversions that go round in a circle, or come from nowhere', () => {
    const made = (id: string, ...convertedFrom: string[]) => ({
      id,
      pattern: 'jack',
      name: id,
      kind: 'service' as const,
      convertedFrom,
    });
    const circle = pack({ variants: [made('a', 'b'), made('b', 'c', 'd'), made('c'), made('d', 'a')] });
    expect(checkPack(circle, emptyContents()).errors).toContainEqual({
      pointer: '/variants/0/convertedFrom',
      message: 'this goes round in a circle: a → b → d → a',
    });
    expect(pointers(pack({ variants: [made('a', 'nowhere')] }))).toEqual(['/variants/0/convertedFrom/0']);
  });
  test('a stamp of re-work that changes what nobody knows', () =>
    expect(
      pointers(
        pack({
          marks: [{ id: 'r', lines: ['R'], history: { what: 're-work', changes: ['scales', 'soul'] } }],
        }),
      ),
    ).toEqual(['/marks/0/history/changes/1']));
  test('warns of a feature recorded where it does not apply', () => {
    const scales = { id: 'scales', label: 'S', part: 'scales', kind: 'category' as const };
    const bladed = { ...scales, values: [{ id: 'horn', label: 'Horn' }], constructions: ['fixed' as const] };
    expect(checkPack(pack({ features: [bladed] }), emptyContents()).warnings).toEqual([
      'variant j1 records scales, which does not apply to a slipjoint',
    ]);
  });
  test('warns of an annual edition whose number and year do not go together', () => {
    const yearly = (index: number, window: string) => ({
      id: `y${index}`,
      pattern: 'jack',
      name: `Number ${index}`,
      kind: 'limited' as const,
      window,
      edition: { run: 100, index },
    });
    const series = [yearly(1, '1931'), yearly(2, '1932-05'), yearly(3, '1933/1934'), yearly(5, '1936')];
    expect(checkPack(pack({ variants: series }), emptyContents()).warnings).toEqual([
      'variant y5: number 5 of a series that began in 1931 is of 1935, not 1936',
    ]);
  });
  test('a thing that stands twice', () =>
    expect(
      pointers(
        pack({
          makers: [
            { id: 'm', name: 'M' },
            { id: 'm', name: 'M' },
          ],
        }),
      ),
    ).toContain('/makers/1/id'));
  test('warns of a stamp that two rules read differently, and of a variant outside its maker’s years', () => {
    const twice: DateCode = {
      ...ticks,
      rules: [...ticks.rules, { when: { row: 'above' }, year: { base: 1960, plus: 'ticks' } }],
    };
    const { warnings } = checkPack(
      pack({
        codes: [twice],
        variants: [{ id: 'j1', pattern: 'jack', name: 'Late', kind: 'production', window: '1955' }],
      }),
      emptyContents(),
    );
    expect(warnings.join('\n')).toContain('is read as 1950 and as 1960');
    expect(warnings.join('\n')).toContain('lies outside');
  });
});
