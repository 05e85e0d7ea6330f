import { describe, expect, test } from '@jest/globals';
import { freshInspection } from '@jutbank/core/condition';
import type { ConditionBody } from '@jutbank/contract/pieces';
import { allGood, inHandInWords, lookList, nextOpen, seenOf, withItem, withStep } from './inspecting.ts';

const fresh: ConditionBody = {
  findings: [],
  completeness: {},
  inspected: false,
  inspection: freshInspection('locking-folder'),
};
const list = lookList('locking-folder', fresh.inspection);

describe('inspecting by keyboard', () => {
  test('what is with it comes last, each item with its states', () => {
    expect(list.slice(-5).map((l) => l.step.id)).toEqual([
      'item box',
      'item papers',
      'item pouch',
      'item removed-parts',
      'item opening-mechanism',
    ]);
    for (const l of list)
      if (l.kind === 'item') {
        expect(l.step.states.length).toBeGreaterThan(2);
        expect(l.step.states[0]).toMatch(/original|included/);
      }
  });
  test('a section is good at one stroke, except where something was found or was not looked at', () => {
    const found: ConditionBody = {
      ...withStep(fresh, 'tip', 'not-examined'),
      inspected: false,
      findings: [{ part: 'edge', defect: 'nick', severity: 'light' }],
    };
    const after = allGood(found, list, 'blade');
    const states = Object.fromEntries(
      list.filter((l) => l.section === 'blade').map((l) => [l.step.id, seenOf(l, after)]),
    );
    expect(states).toMatchObject({ sharpened: 'good', edge: 'found', tip: 'not-examined', surface: 'good' });
    expect(list.filter((l) => l.section !== 'blade').every((l) => seenOf(l, after) === undefined)).toBe(true);
  });
  test('the next thing is the next open one, round to the top, and none when all was said', () => {
    expect(nextOpen(list, fresh, 3)).toBe(3);
    const sections = [...new Set(list.map((l) => l.section))];
    const good = sections.reduce((body, s) => allGood(body, list, s), fresh as Parameters<typeof allGood>[0]);
    const at = nextOpen(list, good, 0);
    expect(list[at ?? -1]?.step.id).toBe('item box');
    const said = list.reduce(
      (body, l) => (l.kind === 'item' ? withItem(body, l.step.item, 'none') : body),
      good,
    );
    expect(nextOpen(list, said, 5)).toBeUndefined();
    expect(nextOpen(list, withItem(said, 'box', null), list.length - 1)).toBe(list.length - 5);
  });
});

describe('what is in hand', () => {
  const two = lookList('slipjoint', { blades: 2, tools: 0 });
  const named = (id: string, names: readonly string[]) => {
    const looked = two.find((l) => l.step.id === id);
    return looked && inHandInWords(looked, names);
  };
  test('says which blade a step is about, by the name its pattern gives it', () => {
    expect(named('edge:2', ['master', 'pen'])).toMatch(/^Blade 2, pen/);
    expect(named('edge:2', [])).toMatch(/^Blade 2(?!,)/);
    expect(named('edge:1', ['master', 'pen'])).toMatch(/^Blade 1, master/);
  });
  test('a part of which there is one takes no blade’s name', () => {
    expect(named('scales-cracks', ['master', 'pen'])).toBe('Handle: scales');
  });
  test('one stroke makes all that is open good, and leaves what was found', () => {
    const fresh = {
      findings: [],
      completeness: {},
      inspection: freshInspection('slipjoint', { blades: 2, tools: 0 }),
    };
    const found = {
      ...fresh,
      findings: [{ part: 'scales', defect: 'crack' as const, severity: 'light' as const }],
    };
    const good = allGood(found, two);
    const [cracks] = two.filter((l) => l.step.id === 'scales-cracks');
    if (!cracks) throw new Error('no such step');
    expect(two.filter((l) => l.kind === 'step' && seenOf(l, good) === undefined)).toEqual([]);
    expect(seenOf(cracks, good)).toBe('found');
  });
});
