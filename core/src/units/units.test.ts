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
