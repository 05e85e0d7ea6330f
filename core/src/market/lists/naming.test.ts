import { describe, expect, test } from '@jest/globals';
import { type ListMapping, nameKey, namesSaid, type NamesKnown } from '../../lists/index.ts';
import { rowReader } from './mapping.ts';

const known: NamesKnown = {
  patterns: [
    { id: 'harbour-jack', name: 'Harbour jack', maker: 'Brackenholt Cutlery', number: 'H-4210' },
    { id: 'harbour-jack-large', name: 'Large harbour jack', maker: 'Brackenholt Cutlery' },
    { id: 'petrel', name: 'Petrel', maker: 'Corvane Knifeworks' },
  ],
  variants: [
    { id: 'hj-first', pattern: 'harbour-jack', name: 'Trade, first form' },
    { id: 'hj-second', pattern: 'harbour-jack', name: 'Trade, second form' },
    { id: 'pt-first', pattern: 'petrel', name: 'First series' },
  ],
};
const mapping: ListMapping = {
  columns: { Model: 'pattern', Version: 'variant' },
  dateOrder: 'ymd',
  decimalComma: false,
  fixed: {},
};
const said = (...rows: [string, string?][]) =>
  namesSaid(
    mapping,
    rows.map(([Model, Version = '']) => ({ Model, Version })),
    known,
  );

describe('names of somebody’s list', () => {
  test('ids of the reference need no meaning', () => {
    expect(said(['harbour-jack', 'hj-first'], ['petrel'])).toEqual([]);
  });
  test('the very name, the maker’s name before it, its number: whatever the case and the accents', () => {
    const guesses = said(['HARBOUR  JACK'], ['Brackenholt Cutlery Harbour jack'], ['h 4210'], ['Pétrel']);
    expect(guesses.map((n) => n.guess)).toEqual(['harbour-jack', 'harbour-jack', 'harbour-jack', 'petrel']);
  });
  test('among other words the longest name counts; what fits nothing is left open', () => {
    expect(said(['old large harbour jack, ring'])[0]?.guess).toBe('harbour-jack-large');
    expect(said(['Corkscrew knife'])[0]?.guess).toBeNull();
  });
  test('a form is looked for within its pattern only', () => {
    const [form] = said(['Petrel', 'first series']).filter((n) => n.column === 'variant');
    expect(form).toMatchObject({
      pattern: 'petrel',
      guess: 'pt-first',
      key: nameKey('first series', 'petrel'),
    });
    const other = said(['Harbour jack', 'first series']).find((n) => n.column === 'variant');
    expect(other?.guess).toBeNull();
  });
  test('each name once, those in most rows first', () => {
    const list = said(['Petrel'], ['Harbour jack'], ['harbour jack']);
    expect(list.map((n) => [n.said, n.rows])).toEqual([
      ['Harbour jack', 2],
      ['Petrel', 1],
    ]);
  });
});

describe('rows read by their names', () => {
  const named: ListMapping = {
    ...mapping,
    names: {
      pattern: { [nameKey('The jack')]: 'harbour-jack', [nameKey('Unknown')]: '' },
      variant: { [nameKey('2nd', 'harbour-jack')]: 'hj-second', [nameKey('odd', 'harbour-jack')]: '' },
    },
  };
  test('become ids, and what they called it stays as a note', () => {
    expect(rowReader(named)({ Model: 'The Jack', Version: '2nd' })).toEqual({
      pattern: 'harbour-jack',
      'pattern as listed': 'The Jack',
      variant: 'hj-second',
      'variant as listed': '2nd',
    });
  });
  test('a form that means none of ours is not told; a pattern that means none stays, to be refused by name', () => {
    expect(rowReader(named)({ Model: 'The jack', Version: 'odd' })).not.toHaveProperty('variant');
    expect(rowReader(named)({ Model: 'Unknown' })).toEqual({ pattern: 'Unknown' });
  });
  test('without names rows are as before', () => {
    expect(rowReader(mapping)({ Model: 'x', Version: 'y' })).toEqual({ pattern: 'x', variant: 'y' });
  });
});
