import { expect, test } from '@jest/globals';
import { readFigure } from './Figure.tsx';

test('a decimal comma is a point; nothing is nothing', () => {
  expect(readFigure('2,5', 'number')).toBe(2.5);
  expect(readFigure('  ', 'number')).toBeNull();
  expect(readFigure('0', 'number')).toBe(0);
});
test('money stays text, to the cent', () => {
  expect(readFigure('0,30', 'amount')).toBe('0.30');
  expect(readFigure('1234.10', 'amount')).toBe('1234.10');
});
test('what is no number is kept as typed, for the server to tell', () => {
  expect(readFigure('much', 'number')).toBe('much');
  expect(readFigure('8 %', 'number')).toBe('8 %');
});
