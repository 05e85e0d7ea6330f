import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { checkRules } from './checkRules.ts';
import {
  documentOf,
  INDEX_RULES,
  RULE_IDS,
  SCALES,
  SHIPPED_RULES,
  withDocument,
  type BySeverity,
  type IndexRules,
  type ScaleRules,
} from './rules.ts';
import { gradeCondition } from './grade.ts';
import { SEVERITIES } from './finding.ts';

const collector = SCALES.find((s) => s.id === 'collector') as ScaleRules;
const said = (document: IndexRules | ScaleRules) =>
  checkRules(document).map((p) => `${p.pointer} ${p.message}`);

describe('a rule document', () => {
  test.each(RULE_IDS)('%s as shipped is sound', (id) => {
    const document = documentOf(SHIPPED_RULES, id);
    expect(document && checkRules(document)).toEqual([]);
  });
  test('by which worse would cost less is refused with the rule named', () => {
    const deductions = INDEX_RULES.deductions.map((rule) =>
      rule.defect === 'stain' ? { ...rule, bySeverity: { ...rule.bySeverity, severe: 0.001 } } : rule,
    );
    const at = deductions.findIndex((r) => r.defect === 'stain');
    expect(said({ ...INDEX_RULES, deductions })).toEqual([
      `/deductions/${at}/bySeverity/severe by the rule for “stain” severe (0.001) would cost less than heavy (0.09)`,
    ]);
  });
  test('by which a finding would give something back is refused', () => {
    const [first, ...rest] = INDEX_RULES.deductions;
    if (!first) throw new Error('no rule');
    const better = { ...first, bySeverity: { ...first.bySeverity, trace: -0.1 } };
    expect(said({ ...INDEX_RULES, deductions: [better, ...rest] })[0]).toContain(
      `the rule for “${first.defect}”, trace, takes -0.1`,
    );
    expect(said({ ...INDEX_RULES, repeats: -0.2 })[0]).toContain('/repeats');
  });
  test('by which a longer crack would cost less is refused', () => {
    const crack = {
      defect: 'crack' as const,
      bySeverity: { trace: 0, light: 0, moderate: 0, heavy: 0, severe: 0 },
      byMeasure: [[0, 0.2] as const, [5, 0.1] as const, [5, 0.3] as const],
    };
    expect(said({ ...INDEX_RULES, deductions: [crack, crack] })).toEqual([
      '/deductions/0/byMeasure/1/1 by the rule for “crack” more (5) would cost less than 0',
      '/deductions/0/byMeasure/2/0 the rule for “crack” must name rising measures',
      '/deductions/1 the rule for “crack” on every other part stands twice',
      '/deductions/1/byMeasure/1/1 by the rule for “crack” more (5) would cost less than 0',
      '/deductions/1/byMeasure/2/0 the rule for “crack” must name rising measures',
    ]);
  });
  test('whose scale is out of order, or caps at no grade of it, is refused', () => {
    const grades = [
      { grade: 'mint', from: 90 },
      { grade: 'good', from: 95 },
      { grade: 'good', from: 2 },
    ];
    expect(said({ ...collector, grades, caps: collector.caps.slice(0, 1) })).toEqual([
      '/grades/1/from “good” must begin below “mint”, best grade first',
      '/grades/2/grade “good” stands twice',
      '/grades/2/from the last grade begins at 0',
      '/caps/0/to the cap “carried” caps at “near-mint”, which is no grade of this scale',
    ]);
  });
  test('that judges age harder is refused', () =>
    expect(said({ ...collector, ageAllowance: [[0, 0.5] as const, [50, 0.9] as const] })).toEqual([
      '/ageAllowance/1/1 an older piece is not judged harder',
    ]));
  test('that is sound never lets a further finding raise the index, whatever its numbers', () => {
    const table = fc
      .array(fc.double({ min: 0, max: 0.98, noNaN: true }), { minLength: 5, maxLength: 5 })
      .map((costs) => [...costs].sort((a, b) => a - b))
      .map(
        (costs) => Object.fromEntries(SEVERITIES.map((s, i) => [s, costs[i] ?? 0])) as unknown as BySeverity,
      );
    const finding = fc.record({
      part: fc.constantFrom('blade', 'scales', 'blade:2'),
      defect: fc.constantFrom('stain' as const, 'crack' as const),
      severity: fc.constantFrom(...SEVERITIES),
      count: fc.integer({ min: 1, max: 20 }),
    });
    fc.assert(
      fc.property(
        table,
        table,
        fc.double({ min: 0, max: 1, noNaN: true }),
        fc.array(finding, { maxLength: 6 }),
        finding,
        (stain, crack, repeats, findings, extra) => {
          const index = {
            ...INDEX_RULES,
            repeats,
            deductions: [
              { defect: 'stain' as const, bySeverity: stain },
              { defect: 'crack' as const, bySeverity: crack },
            ],
          } satisfies IndexRules;
          expect(checkRules(index)).toEqual([]);
          const rules = withDocument(SHIPPED_RULES, index);
          const grade = (list: typeof findings) =>
            gradeCondition({ construction: 'fixed', findings: list }, rules).conditionIndex;
          expect(grade([...findings, extra])).toBeLessThanOrEqual(grade(findings));
        },
      ),
    );
  });
  test('put in the place of its namesake grades by its own numbers, and says its version', () => {
    const strict = { ...collector, version: 'shop-2', grades: collector.grades.map((g) => ({ ...g })) };
    const before = gradeCondition({ construction: 'slipjoint', findings: [] });
    const after = gradeCondition(
      { construction: 'slipjoint', findings: [] },
      withDocument(SHIPPED_RULES, strict),
    );
    expect(before.grades[0]?.rules).toBe('collector/2');
    expect(after.grades[0]?.rules).toBe('collector/shop-2');
  });
});
