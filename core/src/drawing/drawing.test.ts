import { describe, expect, test } from '@jest/globals';
import { besideTheirLike, stampsOfOneText } from './stamp.ts';

describe('stamps that read the same', () => {
  const upright = { id: 'a', lines: ['BECK', 'HALLOW'], lettering: 'upright', place: 'front tang' };
  const slanted = { id: 'b', lines: ['Beck', 'Hallow'], lettering: 'slanted', place: 'front tang' };
  const other = { id: 'c', lines: ['TARNWICK'], place: 'front tang' };
  const dotted = { ...upright, id: 'd', codes: ['dots'] };
  const titles = (code: string) => (code === 'dots' ? 'Year dots' : undefined);

  test('stand side by side, whatever stands between them in the reference', () => {
    expect(besideTheirLike([upright, other, slanted]).map((m) => m.id)).toEqual(['a', 'b', 'c']);
  });
  test('are told apart by what can be seen, each with what it shows', () => {
    expect(stampsOfOneText([upright, other, slanted], titles)).toEqual([
      {
        lines: ['BECK', 'HALLOW'],
        marks: ['a', 'b'],
        by: [{ what: 'lettering', shown: ['upright', 'slanted'] }],
      },
    ]);
    expect(stampsOfOneText([upright, dotted], titles)[0]?.by).toEqual([
      { what: 'signs', shown: ['no signs', 'Year dots'] },
    ]);
  });
  test('where nothing visible differs, that is said too', () => {
    expect(stampsOfOneText([upright, { ...upright, id: 'e' }], titles)[0]?.by).toEqual([]);
    expect(stampsOfOneText([upright, other], titles)).toEqual([]);
  });
});
