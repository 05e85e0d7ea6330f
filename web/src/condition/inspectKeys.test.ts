import { describe, expect, test } from '@jest/globals';
import { DEFECTS, freshInspection, inspectionFor, SEVERITIES } from '@jutbank/core/condition';
import { CONSTRUCTIONS } from '@jutbank/core/reference';
import { findingOf, lookList, onSide, sidesOf, type Draft } from './inspecting.ts';

describe('what the keys say', () => {
  const step = inspectionFor('slipjoint', { blades: 1, tools: 0 })
    .flatMap((s) => s.steps)
    .find((s) => s.sided);
  if (!step) throw new Error('a slipjoint has sided steps');
  const draft: Draft = { step, defect: 'crack', side: undefined };

  test('a side, and the same side again for none', () => {
    const rear = onSide(draft, 'rear');
    expect(findingOf(rear, { severity: 'light' })).toMatchObject({
      side: 'rear',
      severity: 'light',
      measure: null,
    });
    expect(findingOf(onSide(rear, 'rear'), { measure: 3 })).toMatchObject({
      side: null,
      measure: 3,
      severity: null,
    });
    expect(onSide(rear, 'front').side).toBe('front');
  });
  test.each(CONSTRUCTIONS)(
    '%s: no key of a side is a key of a severity, and each side has its own',
    (construction) => {
      const keys = sidesOf(construction).map((s) => s.key);
      expect(new Set([...keys, ...SEVERITIES.map((_, i) => String(i + 1)), 'm', 'w']).size).toBe(
        keys.length + SEVERITIES.length + 2,
      );
    },
  );
  test('a modern folder has a clip side', () => {
    expect(sidesOf('locking-folder').map((s) => s.side)).toContain('clip side');
    expect(sidesOf('slipjoint').map((s) => s.side)).not.toContain('clip side');
  });
  test.each(CONSTRUCTIONS)(
    '%s: a second look asks for the piece, not for what is with it',
    (construction) => {
      const list = lookList(construction, freshInspection(construction), false);
      expect(list.every((l) => l.kind === 'step')).toBe(true);
      expect(
        list.flatMap((l) => (l.kind === 'step' ? l.step.defects : [])).every((d) => DEFECTS.includes(d)),
      ).toBe(true);
    },
  );
});
