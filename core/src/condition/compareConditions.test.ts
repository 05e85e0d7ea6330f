import { describe, expect, test } from '@jest/globals';
import { compareConditions } from './compareConditions.ts';
import type { Finding } from './finding.ts';

const crack: Finding = { part: 'scales', defect: 'crack', severity: 'light', measure: 4, side: 'rear' };
const chip: Finding = { part: 'edge', defect: 'chip', severity: 'trace' };
const seen = (findings: Finding[], completeness: Record<string, string> = {}) => ({ findings, completeness });

describe('what came back against what went out', () => {
  test('a piece as it left is unchanged', () =>
    expect(
      compareConditions(seen([crack, chip], { box: 'original' }), seen([chip, crack], { box: 'original' })),
    ).toEqual({
      worse: [],
      better: [],
      items: [],
      unchanged: 2,
    }));
  test('what is new, what grew, what is graver: worse', () =>
    expect(compareConditions(seen([crack]), seen([{ ...crack, measure: 9 }, chip])).worse).toEqual([
      'Scales: crack, light, 9 mm, rear (was: Scales: crack, light, 4 mm, rear)',
      'Edge: chip, trace',
    ]));
  test('what was cleaned away and what is lighter: better, and told', () =>
    expect(compareConditions(seen([crack, { ...chip, severity: 'heavy' }]), seen([chip])).better).toEqual([
      'Scales: crack, light, 4 mm, rear: not found any more',
      'Edge: chip, trace (was: Edge: chip, heavy)',
    ]));
  test('two at one place are not taken for one', () =>
    expect(compareConditions(seen([chip]), seen([chip, chip])).worse).toEqual(['Edge: chip, trace']));
  test('a note written otherwise is no change', () =>
    expect(compareConditions(seen([chip]), seen([{ ...chip, note: 'at the tip' }])).unchanged).toBe(1));
  test('a box that did not come back', () =>
    expect(compareConditions(seen([], { box: 'original' }), seen([], { box: 'none' })).items).toEqual([
      'Box: factory box, now no box',
    ]));
});
