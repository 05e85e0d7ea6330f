import { expect, test } from '@jest/globals';
import { missingNext, stageOf, stockNumber, type PieceProgress } from './stage.ts';

const done: PieceProgress = {
  hasSource: true,
  hasPrice: true,
  hasPicture: true,
  attributed: true,
  inspected: true,
  priced: true,
  custodyEvents: 1,
  published: false,
  sold: false,
  givenBack: false,
};

test('a piece stands at the first stage that still wants something', () => {
  expect(stageOf({ ...done, hasPicture: false, attributed: false })).toBe('intake');
  expect(missingNext('intake', { ...done, hasPicture: false, hasPrice: false })).toBe(
    'Record its price, a picture',
  );
  expect(stageOf({ ...done, attributed: false })).toBe('bench');
  expect(stageOf({ ...done, inspected: false })).toBe('condition');
  expect(stageOf({ ...done, priced: false })).toBe('worth');
  expect(stageOf({ ...done, custodyEvents: 0 })).toBe('trail');
  expect(stageOf(done)).toBe('listing');
  expect(stageOf({ ...done, published: true })).toBe('listed');
  expect(stageOf({ ...done, sold: true })).toBe('sold');
});

test('stock numbers follow the shop’s scheme', () => {
  expect(stockNumber('HQ-{0000}', 412)).toBe('HQ-0412');
  expect(stockNumber('HQ-{00}/26', 412)).toBe('HQ-412/26');
  expect(stockNumber('HQ', 1)).toBeUndefined();
});
