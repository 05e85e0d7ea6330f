import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { differencesOf, madeByYear, patternByYear, shareOfYears } from './differences.ts';
import type { Pattern, Variant } from './pack.ts';
import { quantityMade } from './quantityMade.ts';
import { betaPoints, scarcityOf } from './scarcity.ts';

const pattern: Pattern = { id: 'jack', maker: 'bh', name: 'Harbour jack', construction: 'slipjoint' };
const variant = (id: string, more: Partial<Variant> = {}): Variant => ({
  id,
  pattern: 'jack',
  name: id,
  kind: 'production',
  ...more,
});

describe('what sets variants apart', () => {
  const ring = variant('ring', { features: { lanyard: ['ring'], scales: ['horn'] }, marks: ['a'] });
  const bar = variant('bar', { features: { lanyard: ['bar'], scales: ['horn'] }, marks: ['a'] });

  test('only what differs', () => {
    expect(differencesOf([ring, bar])).toEqual([
      { kind: 'feature', id: 'lanyard', cells: [['ring'], ['bar']] },
    ]);
  });

  test('a feature that one does not record is an empty cell; a size falls back to the pattern’s', () => {
    const longer = variant('long', {
      features: { scales: ['horn'] },
      measures: { closed: { value: 100 } },
      marks: ['a'],
    });
    expect(differencesOf([ring, longer], { ...pattern, measures: { closed: { value: 98 } } })).toEqual([
      { kind: 'feature', id: 'lanyard', cells: [['ring'], []] },
      { kind: 'measure', id: 'closed', cells: [{ value: 98 }, { value: 100 }] },
    ]);
  });
});

describe('how many were made', () => {
  test.each<[string, Partial<Variant>, number | undefined]>([
    [
      'as stated, whatever the run',
      { made: { quantity: 12, basis: 'documented' }, edition: { run: 10 } },
      12,
    ],
    ['its years together', { made: { basis: 'documented', byYear: { 1931: 200, 1932: 150 } } }, 350],
    ['its numbered run where nothing else is told', { edition: { run: 25 } }, 25],
    [
      'the shares of one split, not of two',
      {
        edition: {
          split: [
            { by: 'hand', of: 'left hand', run: 20 },
            { by: 'hand', of: 'right hand', run: 80 },
            { by: 'finish', of: 'stonewashed', run: 50 },
            { by: 'finish', of: 'satin', run: 50 },
          ],
        },
      },
      100,
    ],
    ['nothing is told', {}, undefined],
  ])('%s', (_, more, quantity) => {
    expect(quantityMade(variant('x', more))).toBe(quantity);
  });
});

describe('production by year', () => {
  test('a window’s shares add up to one', () => {
    expect(shareOfYears('1934-09/1935-02')).toHaveLength(2);
    fc.assert(
      fc.property(fc.integer({ min: 1900, max: 1990 }), fc.integer({ min: 0, max: 20 }), (year, more) => {
        const sum = shareOfYears(`${year}/${year + more}`).reduce((a, s) => a + s.share, 0);
        expect(sum).toBeCloseTo(1);
      }),
    );
    expect(shareOfYears('../1934')).toEqual([]);
  });

  test('told figures win over sharing out; imitations are not the pattern’s production', () => {
    const a = variant('a', { window: '1934/1935', made: { basis: 'documented', quantity: 730 } });
    const b = variant('b', { made: { basis: 'documented', byYear: { '1935': 100 } } });
    const fake = variant('f', { kind: 'counterfeit', made: { basis: 'estimated', byYear: { '1935': 9 } } });
    expect(madeByYear(a)).toEqual([
      { year: 1934, made: 365, told: false },
      { year: 1935, made: 365, told: false },
    ]);
    expect(patternByYear(pattern, [a, b, fake])[1]).toEqual({ year: 1935, made: 465, told: false });
    expect(patternByYear({ ...pattern, madeByYear: { '1935': 500 } }, [a])).toEqual([
      { year: 1935, made: 500, told: true },
    ]);
  });
});

describe('scarcity', () => {
  test('a documented quantity is what was made; fewer are left, as a range', () => {
    const v = variant('v', { window: '1934', made: { basis: 'documented', quantity: 24000 } });
    const found = scarcityOf({ variant: v, pattern, variants: [v], year: 2026 });
    expect(found.made).toMatchObject({ low: 24000, high: 24000 });
    expect(found.left?.low).toBeLessThan(found.left?.likely ?? 0);
    expect(found.left?.high).toBeLessThan(24000);
    expect(found.surviving.restsOn).toContain('92 years');
  });

  test('a form that lasted months: its share of the pattern’s year', () => {
    const v = variant('v', { window: '1934-07/1934-09' });
    const yearly = { ...pattern, madeByYear: { '1934': 36500 } };
    // 92 days of 365
    expect(scarcityOf({ variant: v, pattern: yearly, variants: [v], year: 2026 }).made?.likely).toBeCloseTo(
      9200,
    );
  });

  test('soft edges widen only upwards; nothing to count gives nothing', () => {
    const yearly = { ...pattern, madeByYear: { '1933': 36500, '1934': 36500, '1935': 36500 } };
    const of = (window: string) => {
      const v = variant('v', { window });
      return scarcityOf({ variant: v, pattern: yearly, variants: [v], year: 2026 }).made;
    };
    expect(of('1934-07~/1934-09')?.high).toBeGreaterThan(of('1934-07/1934-09')?.high ?? Infinity);
    expect(of('1934-07~/1934-09')?.low).toBe(of('1934-07/1934-09')?.low);
    const v = variant('v', { window: '1934' });
    expect(scarcityOf({ variant: v, pattern, variants: [v], year: 2026 }).made).toBeUndefined();
  });

  test('the better the condition asked for, the fewer', () => {
    const v = variant('v', { window: '1934', made: { basis: 'documented', quantity: 1000 } });
    const so = (atLeast: number) =>
      scarcityOf({
        variant: v,
        pattern,
        variants: [v],
        year: 2026,
        condition: { atLeast, ofVariant: [50, 70, 90], ofClass: [40, 60, 80, 95] },
      }).leftSo?.likely ?? NaN;
    expect(so(85)).toBeLessThan(so(60));
  });

  test('points of a Beta distribution', () => {
    expect(betaPoints(1, 1, [0.1, 0.5, 0.9]).map((x) => Math.round(x * 100))).toEqual([10, 50, 90]);
  });
});
