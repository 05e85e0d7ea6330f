import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { ageOf, repriceAdvice, type Priced } from './stock.ts';
import { askCurve, learnHazard } from './patience.ts';

const hazard = learnHazard([]);
const net = (price: number) => 0.9 * price;
const { best } = askCurve(100, hazard, net, 0.2);
const piece = (more: Partial<Priced> = {}): Priced => ({
  ask: 110,
  estimate: 100,
  low: 75,
  high: 135,
  best,
  before: undefined,
  weeks: undefined,
  floor: undefined,
  ...more,
});

test('ages by days, each bound to the younger', () => {
  expect([0, 90, 91, 180, 365, 366].map(ageOf)).toEqual([
    'up to 3 months',
    'up to 3 months',
    '3 to 6 months',
    '3 to 6 months',
    '6 to 12 months',
    'more than a year',
  ]);
});

describe('what to re-price', () => {
  test('an ask within the range, not listed, is left alone', () => {
    expect(repriceAdvice(piece(), hazard)).toBeUndefined();
  });
  test('above and below the range', () => {
    expect(repriceAdvice(piece({ ask: 200 }), hazard)?.reasons).toEqual(['above']);
    expect(repriceAdvice(piece({ ask: 60 }), hazard)?.reasons).toEqual(['below']);
  });
  test('what lies outside the range never fits, though the best ask is near it', () => {
    const dear = piece({ ask: 137, best: { ...best, price: 138 } });
    expect(repriceAdvice(dear, hazard)).toEqual({ reasons: ['above'], ask: 135 });
  });
  test('stood so long that it should have sold at its ask', () => {
    // at the estimate one in eight sells a week: after 13 weeks 1 − (7/8)^13 = 82 in 100 have
    expect(repriceAdvice(piece({ ask: 100, weeks: 11 }), hazard)).toBeUndefined();
    expect(repriceAdvice(piece({ ask: 100, weeks: 16 }), hazard)?.reasons).toEqual(['stood-long']);
  });
  test('the estimate moved by more than a tenth since the last look', () => {
    expect(repriceAdvice(piece({ before: 92 }), hazard)).toBeUndefined();
    expect(repriceAdvice(piece({ ask: 90, before: 88 }), hazard)?.reasons).toEqual(['moved']);
  });
  test('no ask at all: the one that pays best', () => {
    expect(repriceAdvice(piece({ ask: undefined }), hazard)).toEqual({
      reasons: ['no-ask'],
      ask: best.price,
    });
  });
  test('never below the floor, and an ask that is near already is left', () => {
    fc.assert(
      fc.property(
        fc.record({
          ask: fc.integer({ min: 20, max: 300 }),
          floor: fc.option(fc.integer({ min: 20, max: 300 }), { nil: undefined }),
          weeks: fc.option(fc.integer({ min: 0, max: 200 }), { nil: undefined }),
        }),
        (more) => {
          const advice = repriceAdvice(piece(more), hazard);
          if (!advice) return;
          expect(advice.ask).toBeGreaterThanOrEqual(more.floor ?? 0);
          // outside the range it is named however near; inside only where another ask is clearly better
          if (more.ask >= 75 && more.ask <= 135)
            expect(Math.abs(more.ask / advice.ask - 1)).toBeGreaterThan(0.05);
          expect(advice.ask).toBeLessThanOrEqual(Math.max(135, more.floor ?? 0));
        },
      ),
    );
  });
});
