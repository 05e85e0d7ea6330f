import { describe, expect, test } from '@jest/globals';
import { dayOf } from '../dates/index.ts';
import { emptyContents, type PackContents } from '../reference/index.ts';
import { compileReference } from './compile.ts';
import { searchReference } from './search.ts';

const TODAY = dayOf(2026, 11, 1);

const contents: PackContents = {
  ...emptyContents(),
  makers: [{ id: 'bh', name: 'Brackenholt Cutlery', active: '1908/1994' }],
  features: [
    {
      id: 'bolsters',
      label: 'Bolsters',
      part: 'bolster',
      kind: 'category',
      values: [{ id: 'grooved', label: 'Grooved' }],
    },
    {
      id: 'scales',
      label: 'Scales',
      part: 'scales',
      kind: 'category',
      values: [{ id: 'horn', label: 'Horn' }],
    },
  ],
  patterns: [
    { id: 'jack', maker: 'bh', name: 'Harbour jack', number: '62', construction: 'slipjoint' },
    { id: 'petrel', maker: 'bh', name: 'Petrel', construction: 'locking-folder' },
  ],
  marks: [{ id: 'three', maker: 'bh', lines: ['BRACKENHOLT', 'NORHAM'] }],
  codes: [
    {
      id: 'stamp',
      maker: 'bh',
      kind: 'pattern-number',
      title: 'Pattern stamp',
      segments: [
        { id: 'handle', table: { '3': { feature: 'scales', value: 'horn' } } },
        { id: 'pattern', digits: 2, pattern: true },
      ],
    },
    { id: 'serial', maker: 'bh', kind: 'serial', pattern: 'petrel', format: '^PT-(\\d{4})$', number: 1 },
  ],
  variants: [
    {
      id: 'early',
      pattern: 'jack',
      name: 'First form',
      kind: 'production',
      window: '1910/1934',
      features: { bolsters: ['grooved'] },
    },
    { id: 'late', pattern: 'jack', name: 'Second form', kind: 'production', window: '1935/1950' },
  ],
};
const index = compileReference(contents, '1', TODAY);
const found = (q: string) => searchReference(index, q).map((h) => `${h.kind} ${h.id}`);

describe('finding by whatever is known', () => {
  test.each([
    ['?RACK?NHOLT', ['maker bh', 'mark three']],
    ['harbour', ['pattern jack', 'variant early', 'variant late']],
    ['jack harbour', ['pattern jack', 'variant early', 'variant late']],
    ['brackenholt jack', ['pattern jack']],
    ['362', ['pattern jack']],
    ['PT-0412', ['pattern petrel']],
    ['grooved', ['variant early']],
    ['1942', ['variant late']],
    ['1934', ['variant early']],
    ['nothing like it', []],
  ])('%s', (q, hits) => {
    expect(found(q)).toEqual(hits);
  });

  test('what is typed is never a regular expression', () => {
    expect(found('(.*')).toEqual([]);
  });
});
