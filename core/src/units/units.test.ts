import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { formatQuantity, parseQuantity } from './index.ts';

const read = (text: string, dimension: 'length' | 'mass' = 'length') => {
  const parsed = parseQuantity(text, dimension);
  if (!parsed.ok) throw new Error(parsed.error.message);
  return parsed.value;
};

describe('lengths as people type them', () => {
  test.each([
    ['4 3/16', 106.3625, 25.4 / 16],
    ['4-3/16"', 106.3625, 25.4 / 16],
    ['4⅛ in', 104.775, 25.4 / 8],
    ['4.1875in', 106.3625, 0.0001 * 25.4],
    ['106', 106, 1],
    ['106 mm', 106, 1],
    ['10,6 cm', 106, 1],
    ['97.6', 97.6, 0.1],
    ['½ in', 12.7, 12.7],
  ])('%s', (text, mm, resolution) => {
    expect(read(text).value).toBeCloseTo(mm, 6);
    expect(read(text).resolution).toBeCloseTo(resolution, 6);
  });
});

test.each([
  ['6.2 oz', 175.7670433],
  ['410 g', 410],
  ['1 lb 2 oz', 510.29141625],
  ['62', 62],
])('the weight %s', (text, grams) => expect(read(text, 'mass').value).toBeCloseTo(grams, 5));

test.each(['', 'long', '4 3/0', '12 oz', '1..2', '4 3/16 mmm'])('“%s” is not a length', (text) => {
  expect(parseQuantity(text, 'length').ok).toBe(false);
});

test('a nominal fraction is shown as a fraction, not as 106.3625 mm', () => {
  const q = read('4 3/16');
  expect(formatQuantity(q.value, 'length', q.resolution, 'imperial')).toBe('4 3/16 in · 106 mm');
});

test('millimetres typed are millimetres shown', () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 60_000 }), (hundredths) => {
      const text = (hundredths / 100).toFixed(2);
      const q = read(text);
      expect(formatQuantity(q.value, 'length', q.resolution).startsWith(`${text} mm`)).toBe(true);
    }),
  );
});

describe('measures as people say them', () => {
  test.each([
    ['between 3 1/4 and 3 1/2', 85.725, 6.35],
    ['3 1/4 to 3 1/2 in', 85.725, 6.35],
    ['100 to 105', 102.5, 5],
    ['10 – 11 cm', 105, 10],
    ['about 106', 106, 2],
    ['just over 4 in', 4.25 * 25.4, 25.4],
    ['3.1 in', 78.74, 2.54],
  ])('%s', (text, mm, resolution) => {
    expect(read(text).value).toBeCloseTo(mm, 6);
    expect(read(text).resolution).toBeCloseTo(resolution, 6);
    expect(read(text).text).toBe(text);
  });
  test('just under 6 oz is nearer to 6 than to 5½', () => {
    const { value } = read('just under 6 oz', 'mass');
    expect(value / 28.349523125).toBeCloseTo(5.75, 6);
  });
  test.each(['105 to 100', 'between 3 and', 'about about 3 in', 'just under', '3 to 4 oz'])(
    '“%s” is none',
    (text) => expect(parseQuantity(text, 'length').ok).toBe(false),
  );
  test('a bare 3 for a blade’s length is asked about; with a unit, or where it can be, it is not', () => {
    const asked = parseQuantity('3', 'length', { bareFrom: 15 });
    expect(asked.ok ? '' : asked.error.message).toMatch(/3 in or 3 mm/);
    for (const text of ['3 in', '3 mm', '3 1/4', '76'])
      expect(parseQuantity(text, 'length', { bareFrom: 15 }).ok).toBe(true);
    expect(read('3').value).toBe(3);
  });
});

describe('what was read leads, as it was read', () => {
  const shown = (text: string, dimension: 'length' | 'mass') => {
    const q = read(text, dimension);
    return formatQuantity(q.value, dimension, q.resolution);
  };
  test.each([
    ['1.9 oz', 'mass', '1.9 oz · 54 g'],
    ['2 oz', 'mass', '2 oz · 57 g'],
    ['54 g', 'mass', '54 g · 1.9 oz'],
    ['3.1 in', 'length', '3.1 in · 79 mm'],
    ['4.19 in', 'length', '4.19 in · 106.4 mm'],
    ['4 3/16', 'length', '4 3/16 in · 106 mm'],
    ['104.8', 'length', '104.8 mm · 4 1/8 in'],
    ['106', 'length', '106 mm · 4 3/16 in'],
  ] as const)('%s', (text, dimension, words) => expect(shown(text, dimension)).toBe(words));
  test('from a resolution that was kept rounded too', () =>
    expect(formatQuantity(53.8641, 'mass', 2.835)).toBe('1.9 oz · 54 g'));
});
