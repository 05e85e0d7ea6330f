import { describe, expect, test } from '@jest/globals';
import type { Feature, Pattern, Variant } from '../reference/index.ts';
import { countedParts, MOST_BLADES } from './countedParts.ts';

const blades: Feature = { id: 'n', label: 'Blades', part: 'blade', kind: 'count' };
const tools: Feature = { id: 't', label: 'Tools', part: 'tool', kind: 'count' };
const features = [blades, tools];
const whittler: Pattern = {
  id: 'whittler',
  maker: 'm',
  name: 'Whittler',
  construction: 'slipjoint',
  drawing: { blades: [{ role: 'master' }, { role: 'pen' }, { role: 'coping' }] },
};
const threeBlades: Variant = {
  id: 'v',
  pattern: 'whittler',
  name: 'V',
  kind: 'production',
  features: { n: [3] },
};

describe('how many blades and tools there are to look at', () => {
  test('where nobody counted and no form is known, one blade, and that nobody said so', () => {
    expect(countedParts('slipjoint', [], features, {})).toEqual({
      blades: 1,
      tools: 0,
      bladeNames: [],
      by: null,
    });
    expect(countedParts('multi-tool', [], features, {})).toMatchObject({ blades: 1, tools: 2, by: null });
  });
  test('as the form has them, each blade by its name', () => {
    expect(countedParts('slipjoint', [], features, { pattern: whittler, variant: threeBlades })).toEqual({
      blades: 3,
      tools: 0,
      bladeNames: ['master', 'pen', 'coping'],
      by: 'form',
    });
    expect(countedParts('slipjoint', [], features, { pattern: whittler })).toMatchObject({
      blades: 3,
      by: 'form',
    });
  });
  test('what was counted at the bench goes before the form, and names no blade that is not there', () => {
    const seen = countedParts('slipjoint', [{ feature: 'n', value: 2 }], features, {
      pattern: whittler,
      variant: threeBlades,
    });
    expect(seen).toEqual({ blades: 2, tools: 0, bladeNames: ['master', 'pen'], by: 'bench' });
    expect(countedParts('slipjoint', [{ feature: 't', value: 4 }], features, {})).toMatchObject({
      blades: 1,
      tools: 4,
      by: 'bench',
    });
  });
  test('a multi-tool’s blades and tools are counted together, as they open', () => {
    const pattern: Pattern = {
      ...whittler,
      construction: 'multi-tool',
      drawing: { blades: [{ role: 'main' }, { role: 'saw' }] },
    };
    expect(countedParts('multi-tool', [{ feature: 'n', value: 14 }], features, { pattern })).toEqual({
      blades: 2,
      tools: 12,
      bladeNames: ['main', 'saw'],
      by: 'bench',
    });
    expect(countedParts('multi-tool', [{ feature: 'n', value: 1 }], features, { pattern })).toMatchObject({
      blades: 1,
      tools: 0,
    });
  });
  test('cannot be told is no number, and no number is more than an inspection can tell apart', () => {
    expect(countedParts('slipjoint', [{ feature: 'n', state: 'cannot-tell' }], features, {}).by).toBeNull();
    expect(countedParts('slipjoint', [{ feature: 'n', value: 400 }], features, {}).blades).toBe(MOST_BLADES);
    expect(countedParts('slipjoint', [{ feature: 'n', value: 0 }], features, {}).blades).toBe(1);
  });
});
