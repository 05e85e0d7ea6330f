import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { agreementOf, defectsThatDiffer } from './agreement.ts';

describe('agreement of two graders', () => {
  test('by hand: four pieces on three grades, one apart by one grade', () => {
    // seen disagreement (0+0+0+¼)/4 = 0.0625; expected from the margins (2,1,1) and (2,2,0)
    // Σ w·a·b/16 = [2·2·0 + 2·2·¼ + 1·2·¼ + 1·2·0 + 1·2·1 + 1·2·¼]/16 = 4/16; kappa = 1 − 0.0625/0.25
    const pairs = [
      [0, 0],
      [0, 0],
      [1, 1],
      [2, 1],
    ] as const;
    expect(agreementOf(pairs, 3)).toEqual({ pieces: 4, same: 0.75, kappa: 1 - 0.0625 / 0.25 });
  });
  test('is one where all agree, unknown where one grade was used throughout or too few were graded', () => {
    expect(agreementOf([[0, 0], [3, 3]], 7).kappa).toBe(1); // prettier-ignore
    expect(agreementOf([[2, 2], [2, 2]], 7).kappa).toBeUndefined(); // prettier-ignore
    expect(agreementOf([[2, 2]], 7).kappa).toBeUndefined();
  });
  test('never exceeds one, and does not care who was first', () => {
    const grade = fc.integer({ min: 0, max: 6 });
    fc.assert(
      fc.property(fc.array(fc.tuple(grade, grade), { maxLength: 30 }), (pairs) => {
        const kappa = agreementOf(pairs, 7).kappa ?? 0;
        expect(kappa).toBeLessThanOrEqual(1);
        const turned = pairs.map(([a, b]) => [b, a] as const);
        expect(agreementOf(turned, 7).kappa ?? 0).toBeCloseTo(kappa, 12);
      }),
    );
  });
  test('names the defects they differ on, most often first, once a piece whatever the place', () => {
    const crack = { part: 'scales', defect: 'crack' as const };
    const stain = (part: string) => ({ part, defect: 'stain' as const });
    expect(
      defectsThatDiffer([
        [[crack, stain('blade:1'), stain('blade:2')], [stain('blade:2')]],
        [[crack], []],
        [[], [stain('blade')]],
        [[crack], [crack]],
      ]),
    ).toEqual([
      { part: 'scales', defect: 'crack', onlyFirst: 2, onlySecond: 0, both: 1 },
      { part: 'blade', defect: 'stain', onlyFirst: 0, onlySecond: 1, both: 1 },
    ]);
  });
});
