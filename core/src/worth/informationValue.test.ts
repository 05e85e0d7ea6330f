import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { askCurve, learnHazard } from './patience.ts';
import {
  decisionOver,
  valueOfSampleInformation,
  valueOfPerfectInformation,
  type Hypothesis,
  type DecisionContext,
} from './informationValue.ts';

/** Buy it where that gains on average, else leave it. */
const buyOrLeave = (gains: readonly number[]) => (weights: ArrayLike<number>) =>
  Math.max(
    0,
    gains.reduce((sum, gain, i) => sum + gain * (weights[i] ?? 0), 0),
  );
const of = (...probabilities: number[]): Hypothesis[] =>
  probabilities.map((probability) => ({ probability, estimate: 100 }));

describe('what knowing is worth', () => {
  test('by hand: 0.3 of +200 and 0.7 of −60 is a gain of 18 now, 60 knowing', () => {
    expect(valueOfPerfectInformation(of(0.3, 0.7), buyOrLeave([200, -60]))).toBeCloseTo(42, 9);
  });
  test('nothing, where one would do the same whatever it is', () => {
    expect(valueOfPerfectInformation(of(0.5, 0.5), buyOrLeave([10, 90]))).toBe(0);
    expect(valueOfPerfectInformation([], buyOrLeave([]))).toBe(0);
  });
});

describe('what a check is worth', () => {
  test('by hand: a sign that eight in ten of the one and one in ten of the other bear', () => {
    // sign: 0.3·0.8·200 − 0.7·0.1·60 = 48 − 4.2 = 43.8, buy; no sign: 0.3·0.2·200 − 0.7·0.9·60 = 12 − 37.8, leave;
    // before: 18
    const table = [
      [0.8, 0.2],
      [0.1, 0.9],
    ];
    expect(valueOfSampleInformation(of(0.3, 0.7), table, buyOrLeave([200, -60]))).toBeCloseTo(25.8, 9);
  });
  test('a sign that all bear alike is worth nothing', () => {
    const table = [
      [0.5, 0.5],
      [0.5, 0.5],
    ];
    expect(valueOfSampleInformation(of(0.3, 0.7), table, buyOrLeave([200, -60]))).toBeCloseTo(0, 9);
  });
  const stake: fc.Arbitrary<DecisionContext> = fc.record({
    hazard: fc.constant(learnHazard([])),
    net: fc.constant((price: number) => 0.9 * price - 1),
    holding: fc.double({ min: 0, max: 2, noNaN: true }),
    cost: fc.option(fc.double({ min: 1, max: 300, noNaN: true }), { nil: undefined }),
  });
  const part = fc.record({
    probability: fc.double({ min: 0.01, max: 1, noNaN: true }),
    estimate: fc.double({ min: 20, max: 900, noNaN: true }),
    seen: fc.double({ min: 0, max: 1, noNaN: true }),
  });
  test('is never below zero and never above what knowing is worth', () => {
    fc.assert(
      fc.property(fc.array(part, { minLength: 2, maxLength: 6 }), stake, (parts, at) => {
        const decide = decisionOver(parts, at);
        const asking = valueOfSampleInformation(
          parts,
          parts.map((p) => [p.seen, 1 - p.seen]),
          decide,
        );
        expect(asking).toBeGreaterThanOrEqual(0);
        expect(asking).toBeLessThanOrEqual(valueOfPerfectInformation(parts, decide) + 1e-9);
      }),
    );
  });
  test('somebody who can still leave loses nothing by what is not worth its price', () => {
    const hazard = learnHazard([]);
    const net = (price: number) => 0.9 * price;
    const parts = [{ estimate: 200 }, { estimate: 50 }];
    const owner = decisionOver(parts, { hazard, net, holding: 0.2, cost: undefined });
    const buyer = decisionOver(parts, { hazard, net, holding: 0.2, cost: 100 });
    expect(buyer([0, 1])).toBe(0);
    expect(buyer([1, 0])).toBeCloseTo(owner([1, 0]) - 100, 9);
  });
  test('with one thing it can be, the decision is the ask that pays best', () => {
    const hazard = learnHazard([]);
    const net = (price: number) => 0.9 * price;
    const decide = decisionOver([{ estimate: 100 }], { hazard, net, holding: 0.2, cost: undefined });
    const { best } = askCurve(100, hazard, net, 0.2);
    expect(decide([1])).toBeGreaterThan(0.98 * best.value);
    expect(decide([1])).toBeLessThan(1.02 * best.value);
  });
});
