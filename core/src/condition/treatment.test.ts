import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { DEFECTS, PARTS, SEVERITIES, type Finding } from './finding.ts';
import { gradeCondition } from './grade.ts';
import { TREATMENT_PLANS, treatmentOptions } from './treatment.ts';

const option = (findings: Finding[], kind: string, completeness = {}) =>
  treatmentOptions({ construction: 'slipjoint', findings, completeness }).find((o) => o.plan?.kind === kind);

describe('leave it or treat it', () => {
  test('leaving it is always there, first, and changes nothing', () => {
    const finding = fc.record({
      part: fc.constantFrom(...PARTS),
      defect: fc.constantFrom(...DEFECTS),
      severity: fc.constantFrom(...SEVERITIES),
    });
    fc.assert(
      fc.property(fc.array(finding, { maxLength: 6 }), (findings) => {
        const question = { construction: 'slipjoint' as const, findings };
        const [leave, ...others] = treatmentOptions(question);
        expect(leave?.plan).toBeUndefined();
        expect(leave?.done.grade).toEqual(gradeCondition({ ...question, completeness: {} }));
        for (const o of others) {
          expect(o.removes.length + Object.keys(o.done.completeness).length).toBeGreaterThan(0);
          const between = [o.done, o.failed ?? o.done].map((x) => x.grade.conditionIndex);
          expect(o.expectedIndex).toBeGreaterThanOrEqual(Math.min(...between) - 1e-9);
          expect(o.expectedIndex).toBeLessThanOrEqual(Math.max(...between) + 1e-9);
        }
      }),
    );
  });
  test('polishing takes the stains and leaves a shine that has to be said', () => {
    const stains: Finding[] = [
      { part: 'blade:1', defect: 'stain', severity: 'light' },
      { part: 'blade:2', defect: 'stain', severity: 'trace' },
      { part: 'scales', defect: 'scratch', severity: 'light' },
    ];
    const polish = option(stains, 'polish');
    expect(polish?.removes).toEqual([0, 1]);
    expect(polish?.adds.map((f) => [f.part, f.defect])).toEqual([
      ['blade:1', 'polished'],
      ['blade:2', 'polished'],
    ]);
    expect(polish?.newDisclosures).toHaveLength(2);
    const once = option(stains.slice(0, 1), 'polish');
    const collector = once?.done.grade.grades.find((g) => g.scale === 'collector');
    expect(collector?.caps[0]?.says).toContain('cleaned to shine');
    expect(polish?.expectedIndex).toBeLessThan(option(stains, 'polish')?.done.grade.conditionIndex ?? 0);
  });
  test('taking off grease gives its share back and is reversible', () => {
    const dirty: Finding[] = [{ part: 'liner', defect: 'residue', severity: 'heavy' }];
    const clean = option(dirty, 'degrease');
    expect(clean?.done.grade.conditionIndex).toBe(100);
    expect(clean?.plan?.reversible).toBe(true);
    expect(clean?.failed?.findings).toHaveLength(2);
  });
  test('a blade sharpened once is not said to be sharpened twice', () => {
    const findings: Finding[] = [
      { part: 'edge', defect: 'dull', severity: 'light' },
      { part: 'edge', defect: 'sharpened', severity: 'light' },
    ];
    expect(option(findings, 'sharpen')?.adds).toEqual([]);
  });
  test('a sheath is offered only where there is none', () => {
    expect(option([], 'supply-sheath', { sheath: 'original' })).toBeUndefined();
    expect(option([], 'supply-sheath', { sheath: 'none' })?.done.completeness).toEqual({
      sheath: 'reproduction',
    });
  });
  test('what can hurt says so', () => {
    for (const plan of TREATMENT_PLANS)
      if (['remove-rust', 'polish', 'refinish', 'stabilise', 'degrease'].includes(plan.kind))
        expect(plan.cautions.join(' ')).toMatch(/glove|mask|ventilate|fresh air|goggles/i);
  });
});
