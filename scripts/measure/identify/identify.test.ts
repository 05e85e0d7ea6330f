/** The simulator must be right before its figures mean anything; and a small world guards the engine's calibration. */
import { dayOf } from '@jutbank/core/dates';
import { describe, expect, test } from '@jest/globals';
import { compileReference, identify } from '@jutbank/core/bench';
import { random } from '@jutbank/core/random';
import { checkPack, emptyContents } from '@jutbank/core/reference';
import { Oracle } from './oracle.ts';
import { customShare, drawPiece, sharesOf } from './piece.ts';
import { calibrationError, detection, matchingAnswer } from './score.ts';
import { makeWorld } from './world.ts';

const TODAY = dayOf(2026, 11, 1);

const world = makeWorld(4, { makers: 4 });
const index = compileReference(world.contents, '1', TODAY);
const oracle = new Oracle(world);
const luck = random(99);
const pieces = Array.from({ length: 160 }, () => drawPiece(world, luck));

const loss = (p: number | undefined) => -Math.log(Math.max(p ?? 0, 1e-12));

describe('a simulated world', () => {
  test('is a pack that the importer accepts', () => {
    const pack = {
      format: 'jutbank.reference/1' as const,
      id: 'world',
      title: 'World',
      revision: '1',
      ...world.contents,
    };
    expect(checkPack(pack, emptyContents()).errors).toEqual([]);
  });

  test('is the same for the same seed and another for another', () => {
    expect(makeWorld(4, { makers: 4 }).contents).toEqual(world.contents);
    expect(makeWorld(5, { makers: 4 }).contents).not.toEqual(world.contents);
  });

  test('shares out what turns up, counterfeits by where it was found', () => {
    const fakes = (found: 'online' | 'specialist-dealer') =>
      sharesOf(world, found).reduce(
        (sum, share, i) => sum + (world.truths[i]?.variant.kind === 'counterfeit' ? share : 0),
        0,
      );
    expect(sharesOf(world, 'fair').reduce((a, b) => a + b, 0)).toBeCloseTo(1);
    expect(fakes('online')).toBeGreaterThan(fakes('specialist-dealer'));
  });

  test('uses up old stock: old and new halve the carry-over', () => {
    const custom = { values: ['ring', 'bar'], since: [-Infinity, 100], carryOver: 6 };
    const bar = [99, 100, 105, 106].map((month) => customShare(custom, custom.since, 'bar', month));
    expect(bar).toEqual([0, 0.5, 0.5, 1]);
  });
});

describe('the oracle', () => {
  test('shares its belief out, all of it', () => {
    for (const piece of pieces.slice(0, 20)) {
      const posterior = oracle.posterior(piece.observations, piece.found);
      expect(posterior.reduce((a, b) => a + b, 0)).toBeCloseTo(1);
      expect(Math.min(...posterior)).toBeGreaterThanOrEqual(0);
    }
  });

  test('says before anything is seen what turns up', () => {
    const posterior = oracle.posterior([], 'online');
    expect(posterior.at(-1)).toBeCloseTo(0.05);
  });

  test('is calibrated: what it says at p happens about that often', () => {
    const answers = pieces.map((piece) => {
      const probabilities = oracle.posterior(piece.observations, piece.found);
      return { probabilities, at: piece.truth ?? probabilities.length - 1 };
    });
    expect(calibrationError(answers)).toBeLessThan(0.12);
  });
});

describe('the scores', () => {
  test('calibration error is nothing for an honest coin and half for a boaster', () => {
    const said = (p: number, right: number[]) =>
      right.map((at) => ({ probabilities: Float64Array.of(p, 1 - p), at }));
    expect(calibrationError(said(0.75, [0, 0, 0, 1]))).toBeCloseTo(0);
    expect(calibrationError(said(1, [0, 1]))).toBeCloseTo(0.5);
  });

  test('detection is one when every true case stands above every false one', () => {
    const cases = [0.9, 0.8, 0.2, 0.1].map((p) => ({ p, is: p > 0.5 }));
    expect(detection(cases)).toBe(1);
    expect(detection(cases.map((c) => ({ ...c, is: !c.is })))).toBe(0);
  });
});

test('the engine comes near the best possible answer, and leaves counting far behind', () => {
  let engine = 0;
  let best = 0;
  let counting = 0;
  for (const { observations, found, truth } of pieces) {
    const answer = identify(index, { observations, found, limit: 100 });
    const of = (variant: string | undefined) =>
      answer.candidates.find((c) => c.variant === variant)?.probability;
    engine += loss(truth === undefined ? answer.unlisted : of(world.truths[truth]?.variant.id));
    best += loss(oracle.posterior(observations, found)[truth ?? world.truths.length]);
    counting += loss(matchingAnswer(index, observations, 0.8)[truth ?? world.truths.length]);
  }
  expect(engine / best).toBeLessThan(1.2);
  expect(counting / engine).toBeGreaterThan(1.3);
});
