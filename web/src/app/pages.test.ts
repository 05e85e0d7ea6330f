import { describe, expect, test } from '@jest/globals';
import { placesFor } from './pages.ts';

const first = (q: string) => placesFor(q)[0]?.to;

describe('a page by what people call it', () => {
  test.each([
    ['rates', '/rates'],
    ['new lot', '/lots'],
    ['grading rules', '/condition-rules'],
    ['letterhead', '/paper-settings'],
    ['add', '/pieces/new'],
    ['password', '/account'],
    ['valuation', '/stock'],
    ['languages', '/listing-settings'],
  ])('%s', (q, to) => expect(first(q)).toBe(to));
  test('a name goes before a word that only stands with another page', () =>
    expect(placesFor('stock').map((p) => p.to)).toEqual(['/stock', '/pieces']));
  test('nothing for nothing, and nothing for a number', () => {
    expect(placesFor('  ')).toEqual([]);
    expect(placesFor('HQ-0042')).toEqual([]);
  });
});
