import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { CONSTRUCTIONS } from '../reference/index.ts';
import { DEFECTS, PARTS, SEVERITIES, type Finding } from './finding.ts';
import { gradeCondition, mainScale, middleOfGrade } from './grade.ts';
import { SCALES } from './rules.ts';

const finding: fc.Arbitrary<Finding> = fc.record({
  part: fc.tuple(fc.constantFrom(...PARTS), fc.constantFrom('', ':1', ':2')).map(([part, n]) => part + n),
  defect: fc.constantFrom(...DEFECTS),
  severity: fc.option(fc.constantFrom(...SEVERITIES)),
  measure: fc.option(fc.integer({ min: 0, max: 60 })),
  count: fc.option(fc.integer({ min: 1, max: 9 })),
});
const question = fc.record({
  construction: fc.constantFrom(...CONSTRUCTIONS),
  findings: fc.array(finding, { maxLength: 8 }),
  age: fc.option(fc.integer({ min: 0, max: 150 })),
});
const rank = (scale: string, grade: string) =>
  SCALES.find((s) => s.id === scale)?.grades.findIndex((g) => g.grade === grade) ?? -1;

describe('grading', () => {
  test('adding a finding never raises the index or a grade on any scale', () => {
    fc.assert(
      fc.property(question, finding, (q, extra) => {
        const before = gradeCondition(q);
        const after = gradeCondition({ ...q, findings: [...q.findings, extra] });
        expect(after.conditionIndex).toBeLessThanOrEqual(before.conditionIndex);
        before.grades.forEach((g, i) =>
          expect(rank(g.scale, after.grades[i]?.grade ?? '')).toBeGreaterThanOrEqual(rank(g.scale, g.grade)),
        );
      }),
    );
  });

  test('the order of findings never matters', () => {
    fc.assert(
      fc.property(question, (q) => {
        const a = gradeCondition(q);
        const b = gradeCondition({ ...q, findings: [...q.findings].reverse() });
        expect(b.conditionIndex).toBe(a.conditionIndex);
        expect(b.grades.map((g) => [g.grade, g.would])).toEqual(a.grades.map((g) => [g.grade, g.would]));
      }),
    );
  });

  test('a piece without findings is the best of every school', () => {
    const { conditionIndex, grades, disclosures } = gradeCondition({
      construction: 'slipjoint',
      findings: [],
    });
    expect(conditionIndex).toBe(100);
    expect(grades.map((g) => g.grade)).toEqual(['mint', 'new', 'new']);
    expect(disclosures).toEqual([]);
  });

  test('a cap says what holds the grade down and what it would be', () => {
    const { grades } = gradeCondition({
      construction: 'slipjoint',
      findings: [{ part: 'blade:1', defect: 'sharpened', severity: 'trace' }],
    });
    const collector = grades.find((g) => g.scale === 'collector');
    expect(collector).toMatchObject({
      grade: 'excellent',
      would: 'mint',
      caps: [{ findingIndex: 0, rule: 'sharpened', to: 'excellent' }],
    });
    expect(collector?.toNextUp).toContain('sharpened');
  });

  test('a replaced blade is fair on the collector scale: parts', () => {
    const { grades } = gradeCondition({
      construction: 'slipjoint',
      findings: [{ part: 'blade:1', defect: 'replaced', severity: 'trace' }],
    });
    expect(grades[0]).toMatchObject({ scale: 'collector', grade: 'fair' });
  });

  test('ten scratches are not ten disasters', () => {
    const scratch: Finding = { part: 'scales', defect: 'scratch', severity: 'light' };
    const one = gradeCondition({ construction: 'slipjoint', findings: [scratch] }).conditionIndex;
    const ten = gradeCondition({
      construction: 'slipjoint',
      findings: Array.from({ length: 10 }, () => scratch),
    }).conditionIndex;
    expect(100 - ten).toBeLessThan(5 * (100 - one));
    expect(
      gradeCondition({ construction: 'slipjoint', findings: [{ ...scratch, count: 10 }] }).conditionIndex,
    ).toBe(ten);
  });

  test('age forgives wear, never damage', () => {
    const grade = (defect: Finding['defect'], age: number) =>
      gradeCondition({
        construction: 'slipjoint',
        age,
        findings: [{ part: 'blade:1', defect, severity: 'heavy' }],
      }).grades.find((g) => g.scale === 'collector')?.from ?? 0;
    expect(grade('stain', 90)).toBeGreaterThan(grade('stain', 2));
    expect(grade('nick', 90)).toBe(grade('nick', 2));
  });

  test('the finish scale reads the share of original finish left', () => {
    const { grades } = gradeCondition({
      construction: 'bayonet',
      findings: [{ part: 'finish', defect: 'finish-loss', measure: 12 }],
    });
    expect(grades.find((g) => g.scale === 'finish')).toMatchObject({ grade: 'very-good', from: 88 });
  });

  test('a measure takes off what stands between the two points of its curve', () => {
    const index = (measure: number) =>
      gradeCondition({
        construction: 'slipjoint',
        findings: [{ part: 'blade:1', defect: 'blade-loss', measure }],
      }).conditionIndex;
    // 2 % lost takes 3 off, 10 % takes 15: half way between them is 9
    expect([index(2), index(6), index(10)]).toEqual([97, 91, 85]);
    expect(index(0)).toBe(100);
    expect(index(95)).toBe(25);
  });

  test('what was measured counts by its measure, what was only judged by its severity, what was both by the worse', () => {
    const index = (finding: Partial<Finding>) =>
      gradeCondition({
        construction: 'slipjoint',
        findings: [{ part: 'blade:1', defect: 'blade-loss', ...finding }],
      }).conditionIndex;
    expect(index({ measure: 2 })).toBe(97);
    expect(index({ severity: 'moderate' })).toBe(85);
    expect(index({ measure: 2, severity: 'moderate' })).toBe(85);
    expect(index({ measure: 25, severity: 'trace' })).toBe(60);
  });

  test('every finding and every missing item is disclosed', () => {
    const { disclosures } = gradeCondition({
      construction: 'fixed',
      findings: [{ part: 'grip', defect: 'crack', measure: 4, side: 'front', note: 'at the pin' }],
      completeness: { sheath: 'none', box: 'service' },
    });
    expect(disclosures).toEqual([
      'Grip: crack, 4 mm, front – at the pin',
      'No sheath',
      'In a service box, not the factory’s',
    ]);
  });
});

test('a grade word stands for the middle of its band', () => {
  expect(middleOfGrade('collector', 'excellent')).toBe(89);
  expect(middleOfGrade('collector', 'mint')).toBe(99);
  expect(middleOfGrade('collector', 'splendid')).toBeUndefined();
});

describe('the school a piece is quoted in', () => {
  test.each([
    ['bayonet', 3, 'finish'],
    ['bayonet', null, 'finish'],
    ['slipjoint', null, 'collector'],
    ['slipjoint', 2, 'collector'],
    ['fixed', null, 'collector'],
    ['fixed', 39, 'user'],
    ['fixed', 40, 'collector'],
    ['locking-folder', null, 'user'],
    ['locking-folder', 39, 'user'],
    ['locking-folder', 40, 'collector'],
    ['multi-tool', 12, 'user'],
    ['balisong', 60, 'collector'],
  ] as const)('a %s of %s years is quoted on the scale “%s”', (construction, age, scale) =>
    expect(mainScale(construction, age)).toBe(scale),
  );
});
