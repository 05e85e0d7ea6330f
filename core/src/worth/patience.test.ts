import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { askCurve, judgeOffer, learnHazard, weeklyChance, type Standing } from './patience.ts';

const net = (price: number) => 0.9 * price;

describe('patience', () => {
  test('nothing learned yet: the prior, one in eight a week at the estimate, fewer when more is asked', () => {
    const hazard = learnHazard([]);
    expect(hazard.base).toBeCloseTo(2 / 16, 2);
    expect(weeklyChance(hazard, 1.2)).toBeLessThan(weeklyChance(hazard, 1));
  });
  test('a shop that sells fast learns to ask more', () => {
    const quick = Array.from({ length: 40 }, (): Standing => ({ ratio: 1.1, weeks: 1.5, sold: true }));
    const slow = Array.from({ length: 40 }, (): Standing => ({ ratio: 1.1, weeks: 40, sold: false }));
    const best = (standings: Standing[]) => askCurve(100, learnHazard(standings), net, 0.2).best.ratio;
    expect(best(quick)).toBeGreaterThan(best([]));
    expect(best(slow)).toBeLessThan(best([]));
  });
  test('the longer it may cost to hold, the less is asked', () => {
    const ask = (holding: number) => askCurve(100, learnHazard([]), net, holding).best.price;
    expect(ask(4)).toBeLessThan(ask(0));
  });
});

describe('an offer', () => {
  const { best } = askCurve(100, learnHazard([]), net, 0.2);
  test('at least what waiting is worth is taken; far below it there is nothing to talk about', () => {
    expect(judgeOffer(best.price, best.price, best, net, undefined).advice).toBe('take');
    expect(judgeOffer(10, best.price, best, net, undefined).advice).toBe('wait');
    expect(judgeOffer(0.8 * best.price, best.price, best, net, undefined).advice).toBe('counter');
  });
  test('waiting is never worth more than what is asked: the ask itself is always taken', () => {
    fc.assert(
      fc.property(fc.integer({ min: 20, max: 200 }), (ask) => {
        const at = judgeOffer(ask, ask, best, net, undefined);
        expect(at.advice).toBe('take');
        expect(at.waiting).toBeLessThanOrEqual(net(ask) + 1e-9);
        expect(judgeOffer(1, ask, best, net, undefined).waiting).toBeLessThanOrEqual(net(ask) + 1e-9);
      }),
    );
  });
  test('is never taken below the floor, and a counter lies between offer and ask', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 200 }), fc.integer({ min: 60, max: 200 }), (offer, ask) => {
        const judged = judgeOffer(offer, ask, best, net, 60);
        if (offer < 60) expect(judged.advice).not.toBe('take');
        if (judged.advice !== 'take' && offer <= ask) {
          expect(judged.counter).toBeGreaterThanOrEqual(Math.min(offer, ask));
          expect(judged.counter).toBeLessThanOrEqual(ask);
        }
      }),
    );
  });
});
