import { describe, expect, test } from '@jest/globals';
import { codeDoubts, codeTable, ruleOverlaps } from './codeTable.ts';
import type { DateCode } from './pack.ts';

const ticks: DateCode = {
  id: 'ticks',
  kind: 'date',
  reads: [
    { id: 'ticks', label: 'Ticks', type: 'count', min: 0, max: 9 },
    { id: 'row', label: 'Row', type: 'choice', values: ['above', 'below'] },
  ],
  rules: [
    { when: { row: 'above' }, year: { base: 1950, plus: 'ticks' } },
    { when: { row: 'below' }, year: { base: 1969, minus: 'ticks' } },
  ],
};

describe('the table of a code', () => {
  test('has every stamp once, with its year', () => {
    const table = codeTable(ticks) ?? [];
    expect(table).toHaveLength(20);
    expect(table.find((r) => r.reads['ticks'] === 3 && r.reads['row'] === 'above')?.windows).toEqual([
      '1953',
    ]);
    expect(table.find((r) => r.reads['ticks'] === 3 && r.reads['row'] === 'below')?.windows).toEqual([
      '1966',
    ]);
  });

  test('is not written out for more stamps than anybody reads', () => {
    const wide = {
      ...ticks,
      reads: [...ticks.reads, { id: 'n', label: 'N', type: 'count' as const, max: 5000 }],
    };
    expect(
      codeTable({ ...wide, reads: [...wide.reads, { id: 'm', label: 'M', type: 'count', max: 900 }] }),
    ).toBeUndefined();
  });
});

describe('doubts about a code', () => {
  test('none about one that covers every stamp once, within its era', () => {
    expect(codeDoubts(ticks, ['1948/1970'])).toEqual([]);
  });

  test('a stamp that two rules read differently', () => {
    const double = {
      ...ticks,
      rules: [...ticks.rules, { when: { row: 'above' }, year: { base: 1980, plus: 'ticks' } }],
    };
    expect(codeDoubts(double, [])[0]).toMatchObject({
      kind: 'double',
      text: expect.stringContaining('1950 and as 1980'),
    });
    expect(ruleOverlaps(double)).toHaveLength(5);
  });

  test('a stamp no rule reads', () => {
    const gaps = codeDoubts({ ...ticks, rules: ticks.rules.slice(0, 1) }, []);
    expect(gaps[0]).toEqual({ kind: 'gap', text: 'Ticks 0, Row below: no rule reads it' });
    expect(gaps.at(-1)?.text).toBe('and 5 more like it');
  });

  test('a year in which no stamp that carries it was used', () => {
    const early = codeDoubts(ticks, ['1955/1970']);
    expect(early.map((d) => d.kind)).toEqual(Array(5).fill('outside-era'));
    expect(early[0]?.text).toContain('1950');
  });

  test('a rule that is still being typed gives odd years, not an exception', () => {
    const half = { ...ticks, rules: [{ year: { base: 1, minus: 'ticks' } }] };
    expect(codeTable(half)?.[5]?.windows).toEqual(['-0004']);
    expect(codeDoubts(half, ['1948/1970'])[0]?.kind).toBe('outside-era');
    expect(
      codeDoubts({ ...ticks, rules: [{ year: { base: 1.5, plus: 'ticks' } }] }, ['1948/1970']),
    ).not.toEqual([]);
  });
});
