import { describe, expect, test } from '@jest/globals';
import { CONSTRUCTIONS } from '../reference/index.ts';
import { belongsTo, inspectionFor, notExamined, stepState } from './inspection.ts';
import { DEFECTS, PARTS, type Finding } from './finding.ts';
import { freshInspection } from './inspected.ts';

const steps = (construction: (typeof CONSTRUCTIONS)[number], blades = 1, tools = 0) =>
  inspectionFor(construction, { blades, tools }).flatMap((s) => s.steps);

describe('a guided inspection', () => {
  test.each(CONSTRUCTIONS)('%s: every step has a question, known defects and an id of its own', (c) => {
    const all = steps(c, 3, 2);
    expect(new Set(all.map((s) => s.id)).size).toBe(all.length);
    for (const step of all) {
      expect(step.ask).toMatch(/[?.]$/);
      expect(PARTS).toContain(step.part.split(':')[0]);
      for (const defect of step.defects) expect(DEFECTS).toContain(defect);
    }
  });
  test('goes in the order people work, and asks each construction for its own', () => {
    const titles = (c: (typeof CONSTRUCTIONS)[number]) =>
      inspectionFor(c, freshInspection(c)).map((s) => s.title);
    expect(titles('slipjoint')).toEqual(['Marks', 'Handle', 'Blade', 'Action', 'Play', 'Centring', 'Inside']);
    expect(titles('locking-folder')).toContain('Lock');
    expect(titles('bayonet')).toEqual(['Marks', 'Handle', 'Blade', 'Finish', 'What carries it']);
    expect(titles('multi-tool')).toContain('Tools');
  });
  test('numbers blades and tools only when there are several', () => {
    expect(steps('slipjoint').map((s) => s.part)).toContain('edge');
    const two = inspectionFor('slipjoint', { blades: 2, tools: 0 });
    expect(two.map((s) => s.title)).toContain('Blade 2');
    expect(two.flatMap((s) => s.steps.map((t) => t.part))).toContain('edge:2');
    expect(two.flatMap((s) => s.steps).find((s) => s.id === 'play-side:2')?.ask).toMatch(/^Blade 2: /);
  });
  test('a finding belongs to the step of its part and defect, numbered or not', () => {
    const step = steps('slipjoint').find((s) => s.id === 'edge');
    const nick = (part: string): Finding => ({ part, defect: 'nick', severity: 'light' });
    expect(step && belongsTo(nick('edge'), step)).toBe(true);
    expect(step && belongsTo(nick('edge:1'), step)).toBe(true);
    expect(step && belongsTo(nick('edge:2'), step)).toBe(false);
    expect(step && belongsTo({ part: 'edge', defect: 'rust' }, step)).toBe(false);
  });
  test('what nobody looked at is told apart from what is good and what was found', () => {
    const sections = inspectionFor('bayonet', { blades: 1, tools: 0 });
    const all = sections.flatMap((s) => s.steps);
    const findings: Finding[] = [{ part: 'scabbard', defect: 'dent', severity: 'light' }];
    const inspection = {
      ...freshInspection('bayonet'),
      steps: Object.fromEntries(
        all.map((s) => [s.id, s.id === 'frog' ? ('not-examined' as const) : ('good' as const)]),
      ),
    };
    expect(notExamined(sections, inspection, findings)).toEqual([
      { id: 'carried', section: 'What carries it', steps: [expect.objectContaining({ id: 'frog' })] },
    ]);
    const scabbard = all.find((s) => s.id === 'scabbard');
    expect(scabbard && stepState(scabbard, inspection, findings)).toBe('found');
    expect(notExamined(sections, freshInspection('bayonet'), []).flatMap((s) => s.steps)).toHaveLength(
      all.length,
    );
  });
});
