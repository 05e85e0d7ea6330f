import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { dealPictures, picturesByName } from './dealPictures.ts';

const pieces = [1, 2, 11].map((n) => ({ id: `p${n}`, stockNumber: `HQ-00${String(n).padStart(2, '0')}` }));

describe('pictures dealt to pieces', () => {
  test('in the order a camera counts them, so many to each', () => {
    expect(dealPictures(['img_10.jpg', 'img_9.jpg', 'img_11.jpg'], pieces, 1)).toEqual(['p2', 'p1', 'p11']);
    expect(dealPictures(['a1.jpg', 'a2.jpg', 'a3.jpg', 'a4.jpg'], pieces, 2)).toEqual([
      'p1',
      'p1',
      'p2',
      'p2',
    ]);
  });
  test('a name that carries a stock number goes before the order, and its piece takes no others', () => {
    expect(dealPictures(['x.jpg', 'HQ-0001 mark.jpg', 'hq 0001_b.JPG', 'y.jpg'], pieces, 1)).toEqual([
      'p2',
      'p1',
      'p1',
      'p11',
    ]);
  });
  test('HQ-0011 is not HQ-001, and a longer number is another', () => {
    const two = [
      { id: 'one', stockNumber: 'HQ-1' },
      { id: 'eleven', stockNumber: 'HQ-11' },
    ];
    expect(dealPictures(['HQ-11.jpg', 'HQ-1.jpg'], two, 1)).toEqual(['eleven', 'one']);
    expect(dealPictures(['HQ-113.jpg'], two, 1)).toEqual(['one']);
  });
  test('a number finds any piece; in turn only some are dealt to', () => {
    expect(dealPictures(['a.jpg', 'HQ-0001.jpg', 'b.jpg'], pieces, 1, pieces.slice(1))).toEqual([
      'p2',
      'p1',
      'p11',
    ]);
  });
  test('what is left over is nobody’s', () => {
    expect(dealPictures(['1', '2', '3', '4'], pieces, 1)).toEqual(['p1', 'p2', 'p11', null]);
    expect(dealPictures(['1'], [], 1)).toEqual([null]);
  });
  test('whatever the names are, each has one answer and no unnumbered piece more than its share', () => {
    fc.assert(
      fc.property(
        fc.array(fc.string(), { maxLength: 30 }),
        fc.integer({ min: 1, max: 5 }),
        (names, perPiece) => {
          const bare = pieces.map(({ id }) => ({ id, stockNumber: '—' }));
          const dealt = dealPictures(names, bare, perPiece);
          return (
            dealt.length === names.length &&
            bare.every(({ id }) => dealt.filter((to) => to === id).length <= perPiece)
          );
        },
      ),
    );
  });
});

describe('by their names', () => {
  const pieces = [
    { id: 'a', stockNumber: 'A-12', files: ['Jack left.JPG', 'pair'] },
    { id: 'b', stockNumber: 'A-120', files: ['pair.jpg'] },
    { id: 'c', stockNumber: '7' },
  ];
  test.each([
    ['jack left.jpg', ['a']],
    ['jack left.jpeg', ['a']],
    ['Pair.png', ['a', 'b']],
    ['a12 tang.jpg', ['a']],
    ['A-120_2.jpg', ['b']],
    ['IMG_0007.jpg', []],
    ['7.jpg', ['c']],
    ['7b.jpg', ['c']],
    ['17.jpg', []],
    ['IMG_7.jpg', []],
    ['7 of 9.jpg', ['c']],
  ])('“%s” shows %j', (name, owners) => expect(picturesByName([name], pieces)).toEqual([owners]));
  test('nine hundred pictures of five hundred pieces are told apart at once', () => {
    const many = Array.from({ length: 500 }, (_, i) => ({ id: `p${i}`, stockNumber: `HQ-${i + 1}` }));
    const names = Array.from({ length: 900 }, (_, i) => `hq ${(i % 500) + 1} view ${i}.jpg`);
    const started = performance.now();
    expect(picturesByName(names, many).every(([owner], i) => owner === `p${i % 500}`)).toBe(true);
    expect(performance.now() - started).toBeLessThan(500);
  });
});
