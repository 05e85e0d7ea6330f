import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { CONSTRUCTIONS } from '../reference/index.ts';
import { DEFECTS, PARTS, type Finding } from './finding.ts';
import { freshInspection } from './inspected.ts';
import { inspectionFor } from './inspection.ts';
import { reportOrder } from './report.ts';

const nick: Finding = { part: 'edge', defect: 'nick', severity: 'light' };

describe('the order of a report', () => {
  test('says what was found, what was good and what nobody looked at, section by section', () => {
    const inspection = {
      ...freshInspection('slipjoint'),
      steps: { tip: 'good' as const, surface: 'not-examined' as const },
    };
    const order = reportOrder('slipjoint', inspection, [nick]);
    expect(order.sections).toEqual([
      { id: 'blade', title: 'Blade', findings: [nick], nothingFound: ['tip'] },
    ]);
    expect(order.elsewhere).toEqual([]);
    expect(order.notExamined.find((m) => m.section === 'Blade')?.parts).toContain('blade');
    expect(order.notExamined.map((m) => m.section)).toContain('Handle');
  });
  test('a finding that no step of the construction asks for is told all the same', () => {
    const frog: Finding = { part: 'frog', defect: 'crack', severity: 'heavy' };
    expect(reportOrder('slipjoint', freshInspection('slipjoint'), [frog]).elsewhere).toEqual([frog]);
  });
  test('every finding stands in exactly one place, whatever was found', () => {
    const finding = fc.record({
      part: fc.oneof(fc.constantFrom(...PARTS), fc.constantFrom('blade:2', 'edge:1', 'tool:2')),
      defect: fc.constantFrom(...DEFECTS),
      severity: fc.constant('light' as const),
    });
    fc.assert(
      fc.property(
        fc.constantFrom(...CONSTRUCTIONS),
        fc.integer({ min: 1, max: 3 }),
        fc.array(finding, { maxLength: 12 }),
        (construction, blades, findings) => {
          const inspection = { ...freshInspection(construction), blades };
          const { sections, elsewhere } = reportOrder(construction, inspection, findings);
          const told = [...sections.flatMap((s) => s.findings), ...elsewhere];
          expect(told).toHaveLength(findings.length);
          expect(new Set(told)).toEqual(new Set(findings));
        },
      ),
    );
  });
  test('a section of which everything is good is told as such', () => {
    const steps = inspectionFor('bayonet', { blades: 1, tools: 0 })
      .flatMap((s) => s.steps)
      .map((s) => [s.id, 'good' as const] as const);
    const order = reportOrder(
      'bayonet',
      { ...freshInspection('bayonet'), steps: Object.fromEntries(steps) },
      [],
    );
    expect(order.notExamined).toEqual([]);
    expect(order.sections.map((s) => s.title)).toContain('Finish');
  });
});
