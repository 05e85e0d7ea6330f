import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import {
  CONSTRUCTIONS,
  type Code,
  type Feature,
  type Mark,
  type Pattern,
  type Variant,
} from '../../reference/index.ts';
import {
  drawPiece,
  featuresOfPart,
  foundOn,
  partDrawnInWords,
  readStyles,
  recipeOfPiece,
  recipeOfRecords,
  stampOf,
  VIEWS,
  type Records,
} from './index.ts';

const feature = (
  id: string,
  label: string,
  values: readonly string[],
  more: Partial<Feature> = {},
): Feature => ({
  id,
  label,
  part: 'scales',
  kind: 'category',
  values: values.map((v) => ({ id: v.toLowerCase().replaceAll(' ', '-'), label: v })),
  ...more,
});
const measure = (id: string, label: string): Feature => ({
  id,
  label,
  part: 'whole',
  kind: 'measure',
  unit: 'mm',
});

describe('a pack that says nothing of drawings is drawn from its words', () => {
  test.each([
    ['Handle material', 'Red jigged bone', { scales: 'jigged', tint: 'red' }],
    ['Scales', 'Stag', { scales: 'stag' }],
    ['Covers', 'Smooth white bone', { scales: 'smooth', tint: 'pale' }],
    ['Handle slabs', 'Rosewood', { scales: 'wood', tint: 'red' }],
    ['Bolsters', 'Threaded', { bolster: 'threaded' }],
    ['Shield', 'Crest', { shield: 'crest' }],
    ['Badge', 'None', { shield: 'none' }],
    ['Bail', 'None', { lanyard: 'none' }],
    ['Nail nick', 'Long pull', { pull: 'long' }],
    ['Pull', 'Match striker', { pull: 'match' }],
    ['Blade form', 'Long clip', { 'blade-form': 'long-clip' }],
    ['Blade finish', 'Blued', { finish: 'blued' }],
    ['Weather', 'Rain', {}],
  ])('%s: %s', (label, value, styles) => {
    const one = feature(label.toLowerCase().replaceAll(' ', '-'), label, [value]);
    expect(readStyles(one, one.values?.[0]?.id ?? '', 'slipjoint')).toEqual(styles);
  });
  test('what the pack says goes before its words, and a word is not guessed beside it', () => {
    const one = feature('bolsters', 'Bolsters', ['Grooved', 'Ribbed']);
    const told: Feature = {
      ...one,
      values: (one.values ?? []).map((v) =>
        v.id === 'grooved' ? { ...v, draws: { bolster: 'fluted' } } : v,
      ),
    };
    expect(readStyles(told, 'grooved', 'slipjoint')).toEqual({ bolster: 'fluted' });
    expect(readStyles(told, 'ribbed', 'slipjoint')).toEqual({});
  });
  test('styles and slots that are not known, or not of the construction, are not drawn', () => {
    const odd = feature('x', 'X', ['A'], {
      values: [
        {
          id: 'a',
          label: 'A',
          draws: { bolster: 'gilded', wings: 'two', guard: 'both', constructor: 'ring' },
        },
      ],
    });
    const pattern: Pattern = { id: 'p', maker: 'm', name: 'P', construction: 'slipjoint' };
    const recipe = recipeOfRecords({
      pattern,
      variant: { name: 'V', features: { x: ['a'] } },
      features: [odd],
    });
    expect(recipe.styles.bolster).toBe('plain');
    expect(recipe.known).toEqual({});
  });
});

describe('measures by what they are called', () => {
  const features = [
    measure('len-1', 'Length, closed'),
    measure('len-2', 'Length of blade'),
    measure('len-3', 'Length over all'),
  ];
  test('a folder takes its closed length, a straight knife the rest of its length over all', () => {
    const folder: Records['pattern'] = {
      name: 'P',
      construction: 'slipjoint',
      measures: { 'len-1': { value: 101 }, 'len-2': { value: 72 } },
    };
    expect(recipeOfRecords({ pattern: folder, features })).toMatchObject({
      handleLength: 101,
      handleState: 'recorded',
      blades: [{ length: 72 }],
    });
    const straight: Records['pattern'] = {
      name: 'P',
      construction: 'fixed',
      measures: { 'len-2': { value: 120 }, 'len-3': { value: 235 } },
    };
    expect(recipeOfRecords({ pattern: straight, features }).handleLength).toBe(115);
  });
  test('a variant’s own measure goes before its pattern’s; a share of one can be told', () => {
    const pattern: Records['pattern'] = {
      name: 'P',
      construction: 'slipjoint',
      measures: { 'len-1': { value: 101 }, 'len-2': { value: 70 } },
      drawing: {
        blades: [
          { role: 'master', shape: 'clip', length: { of: 'len-2' } },
          { role: 'pen', shape: 'pen', length: { of: 'len-2', share: 0.7 } },
        ],
      },
    };
    const variant: Pick<Variant, 'name' | 'measures'> = { name: 'V', measures: { 'len-1': { value: 99 } } };
    const recipe = recipeOfRecords({ pattern, variant, features });
    expect(recipe.handleLength).toBe(99);
    expect(recipe.blades.map((b) => [b.form, Math.round(b.length)])).toEqual([
      ['clip', 70],
      ['pen', 49],
    ]);
  });
});

test('whatever is written into a pack, a drawing is finite, light and made in no time', () => {
  const features = [
    measure('closed-length', 'Closed length'),
    measure('blade-length', 'Blade length'),
    feature('scales', 'Scales', ['Horn', 'Carbon']),
    { ...feature('n', 'Blades', []), kind: 'count' as const, part: 'blade' },
  ];
  const size = fc.oneof(fc.double({ min: 1e-9, max: 1e9, noNaN: true }), fc.constantFrom(0.0001, 1e9, 98));
  fc.assert(
    fc.property(
      fc.constantFrom(...CONSTRUCTIONS),
      size,
      size,
      fc.option(size, { nil: undefined }),
      fc.integer({ min: 0, max: 1e6 }),
      fc.constantFrom(...VIEWS),
      (construction, closed, blade, height, count, view) => {
        const recipe = recipeOfRecords({
          pattern: {
            name: 'P',
            construction,
            measures: { 'closed-length': { value: closed }, 'blade-length': { value: blade } },
            drawing: {
              handle: { height: height ?? null },
              blades: [{ role: 'master', shape: 'clip', height: height ?? null }],
            },
          },
          variant: { name: 'V', features: { scales: ['horn'], n: [count] } },
          features,
        });
        // The processor's time, not the clock's: a busy machine's pauses are not the drawing's.
        const before = process.cpuUsage();
        const drawing = drawPiece(recipe, view);
        const text = JSON.stringify(drawing.parts);
        const { user, system } = process.cpuUsage(before);
        return (
          user + system < 500_000 &&
          text.length < 120_000 &&
          !/NaN|Infinity|null/.test(text) &&
          drawing.widthMm > 0 &&
          drawing.widthMm < 3000
        );
      },
    ),
    { numRuns: 150 },
  );
});

describe('a piece as far as it was looked at', () => {
  const bolsters = feature('bolsters', 'Bolsters', ['Plain', 'Grooved']);
  const shield = feature('shield', 'Shield', ['Bar', 'None']);
  const closed = measure('closed-length', 'Closed length');
  const records: Records = {
    pattern: { name: 'Jack', construction: 'slipjoint', measures: { 'closed-length': { value: 100 } } },
    variant: { name: 'First', features: { bolsters: ['plain'], shield: ['bar'] } },
    features: [bolsters, shield, closed],
  };
  test('what nobody looked at is drawn as the form has it, and assumed', () => {
    const recipe = recipeOfPiece(records, {});
    expect(recipe.styles).toMatchObject({ bolster: 'plain', shield: 'bar' });
    expect(recipe.known).toEqual({});
    expect(recipe).toMatchObject({ handleLength: 100, handleState: 'assumed' });
  });
  test('what was seen goes before the form; what is measured is drawn so long', () => {
    const recipe = recipeOfPiece(records, {
      bolsters: { value: 'grooved', state: 'differs' },
      shield: { state: 'not-there' },
      'closed-length': { measure: 104.2, state: 'measured' },
    });
    expect(recipe.styles).toMatchObject({ bolster: 'grooved', shield: 'none' });
    expect(recipe.known).toEqual({ bolster: 'differs', shield: 'not-there' });
    expect(recipe).toMatchObject({ handleLength: 104.2, handleState: 'measured' });
  });
  test('a part leads to the features that decide it', () => {
    expect(featuresOfPart('bolster:rear', records.features, 'slipjoint').map((f) => f.id)).toEqual([
      'bolsters',
    ]);
    expect(featuresOfPart('shield', records.features, 'slipjoint').map((f) => f.id)).toEqual(['shield']);
    expect(featuresOfPart('lanyard', records.features, 'slipjoint')).toEqual([]);
  });
});

describe('stamps of the reference', () => {
  const mark: Mark = { id: 'm', lines: ['BECK', 'HALLOW'], lettering: 'slanted-block', codes: ['ticks'] };
  const code: Code = {
    id: 'ticks',
    kind: 'date',
    title: 'Year rings',
    reads: [
      { id: 'n', label: 'Rings', type: 'count' },
      { id: 'row', label: 'Row', type: 'choice', values: ['above-name'] },
    ],
    rules: [],
  };
  test('carry the signs of their code where its rules put them, in the form it is called by', () => {
    expect(stampOf(mark, [code])).toMatchObject({
      lettering: 'slanted',
      signs: { count: 3, form: 'ring', where: 'above' },
    });
    expect(stampOf(mark, [code], { count: 7, where: 'left of the name' }).signs).toEqual({
      count: 7,
      form: 'ring',
      where: 'before',
    });
    expect(stampOf(mark).signs).toBeUndefined();
  });
});

test('findings lie on drawn parts by the names of the inspection', () => {
  expect(foundOn('edge:2', 'blade:2')).toBe(true);
  expect(foundOn('edge:2', 'blade:1')).toBe(false);
  expect(foundOn('bolster', 'bolster:rear')).toBe(true);
  expect(foundOn('pin', 'pins')).toBe(true);
  expect(foundOn('scales', 'shield')).toBe(false);
  expect(partDrawnInWords('bolster:rear')).toBe('rear bolster');
  expect(partDrawnInWords('blade:2')).toBe('second blade');
});
