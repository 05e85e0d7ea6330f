import { dayOf } from '@jutbank/core/dates';
import { describe, expect, test } from '@jest/globals';
import { compileReference, identify } from '@jutbank/core/bench';
import { checkPack, emptyContents } from '@jutbank/core/reference';
import { referencePack } from '@jutbank/contract/reference';
import { comparableRow, COMPARABLE_COLUMNS } from '@jutbank/contract/market';
import { DemoMarket, demoComparables, demoRates } from './market.ts';
import { sharedObservations, variantOf } from './observe.ts';
import { stories } from './pieces.ts';
import { random } from '@jutbank/core/random';
import { demoPack } from './reference.ts';

const DAY = dayOf(2026, 11, 1);

const index = compileReference({ ...emptyContents(), ...demoPack }, '1', DAY);
const TODAY = new Date('2026-11-23T00:00:00Z');

describe('the demo reference', () => {
  test('is a pack by its own contract, without an error or a warning', () => {
    expect(referencePack.safeParse(demoPack).success).toBe(true);
    expect(checkPack(demoPack, emptyContents())).toEqual({ errors: [], warnings: [] });
  });
  test('is as large as it is meant to be, and two of its sources disagree', () => {
    expect(demoPack.makers?.length).toBeGreaterThanOrEqual(12);
    expect(demoPack.patterns?.length).toBeGreaterThanOrEqual(40);
    expect(demoPack.variants?.length).toBeGreaterThanOrEqual(220);
    expect(demoPack.windows?.length).toBeGreaterThanOrEqual(145);
    expect(demoPack.sources?.length).toBeGreaterThanOrEqual(12);
    const { dating } = identify(index, {
      observations: [{ feature: 'shackle', value: 'bow' }],
      within: { patterns: ['rigger-two'] },
    });
    expect(dating.disputed[0]?.between.sort()).toEqual(['tidewrack-catalogue-1961', 'tidewrack-jubilee']);
  });
});

describe('the demo pieces', () => {
  test('are enough, in all states of the work', () => {
    expect(stories.length).toBeGreaterThanOrEqual(24);
    expect(new Set(stories.map((s) => s.until))).toEqual(
      new Set(['intake', 'bench', 'condition', 'worth', 'trail', 'listing', 'listed', 'sold']),
    );
    expect(stories.filter((s) => s.until === 'sold').length).toBeGreaterThanOrEqual(5);
  });
  test.each(
    stories
      .filter((s) => s.instead === undefined && s.unseen === undefined && s.until !== 'intake')
      .map((s) => [s.title, s] as const),
  )('what is seen of “%s” leads to its own pattern, and mostly to its variant', (_, story) => {
    const answer = identify(index, { observations: sharedObservations(story, random(5)), limit: 100 });
    expect(answer.candidates[0]?.pattern).toBe(variantOf(story).pattern);
    expect(answer.candidates.slice(0, 3).map((c) => c.variant)).toContain(story.variant);
  });
});

describe('the demo market', () => {
  const drawn = () => {
    const luck = random(3);
    return demoComparables(new DemoMarket(luck), luck, TODAY, 320).split('\n');
  };
  const lines = drawn();
  test('is the same every time, of every kind, from every venue, in four currencies', () => {
    expect(drawn()).toEqual(lines);
    const rows = lines
      .slice(1)
      .map((line) =>
        Object.fromEntries(line.split(',').map((cell, i) => [COMPARABLE_COLUMNS[i] ?? '', cell])),
      );
    const of = (column: string) => new Set(rows.map((row) => row[column]));
    expect(rows.length).toBe(320);
    expect(of('price_kind')).toEqual(new Set(['sold', 'asking', 'offer']));
    expect(of('venue_kind').size).toBe(5);
    expect(of('currency')).toEqual(new Set(['EUR', 'GBP', 'SEK', 'USD']));
    for (const row of rows) expect(comparableRow.safeParse(row).success).toBe(true);
    expect(rows.every((row) => (row.sale_date ?? '') <= '2026-11-23')).toBe(true);
  });
  test('has a rate for every month it sold in', () => {
    const rates = demoRates(random(3), TODAY);
    const first =
      lines
        .slice(1)
        .map((line) => line.slice(0, 7))
        .sort()[0] ?? '';
    expect(
      rates
        .filter((r) => r.currency === 'SEK')
        .map((r) => r.date.slice(0, 7))[0]
        ?.localeCompare(first),
    ).toBeLessThanOrEqual(0);
    expect(rates.every((r) => Number(r.rate) > 0)).toBe(true);
  });
});
