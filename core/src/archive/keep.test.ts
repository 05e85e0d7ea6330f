import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { keptBackups } from './index.ts';

/** One at 3 in the morning of each of the last days, the newest first. */
const nightly = (days: number) =>
  Array.from({ length: days }, (_, i) =>
    new Date(Date.parse('2026-12-02T03:00:00Z') - i * 86_400_000).toISOString(),
  );
const daysOf = (kept: readonly string[]) => kept.map((at) => at.slice(5, 10));

describe('which backups are kept', () => {
  test('seven days, four weeks, three months of a year of nights', () => {
    expect(daysOf(keptBackups(nightly(365), { daily: 7, weekly: 4, monthly: 3 }))).toEqual([
      '12-02',
      '12-01',
      '11-30',
      '11-29',
      '11-28',
      '11-27',
      '11-26',
      // Sundays of the weeks before, and the last of each month
      '11-22',
      '11-15',
      '10-31',
    ]);
  });
  test('of several on one day the newest', () => {
    const kept = keptBackups(['2026-12-02T03:00:00Z', '2026-12-02T18:00:00Z', '2026-12-01T03:00:00Z'], {
      daily: 2,
      weekly: 0,
      monthly: 0,
    });
    expect(kept).toEqual(['2026-12-02T18:00:00Z', '2026-12-01T03:00:00Z']);
  });
  test('whatever the rule, the newest stays, and no more than the rule asks for', () => {
    const rule = fc.record({ daily: fc.nat(9), weekly: fc.nat(9), monthly: fc.nat(9) });
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 500 }), rule, (days, keep) => {
        const all = nightly(days);
        const kept = keptBackups(all, keep);
        expect(kept[0]).toBe(all[0]);
        expect(kept.length).toBeLessThanOrEqual(Math.max(1, keep.daily + keep.weekly + keep.monthly));
        // what was kept once goes only when its turn has come: what is kept of the kept is the same
        expect(keptBackups(kept, keep)).toEqual(kept);
      }),
    );
  });
});
