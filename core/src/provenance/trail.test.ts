import { describe, expect, test } from '@jest/globals';
import { dayOf, periodOf } from '../dates/index.ts';
import type { CustodyEvent } from './custody.ts';
import { trailOf, trailText } from './trail.ts';

const held = (holder: string, period: string, more: Partial<CustodyEvent> = {}): CustodyEvent => ({
  holder,
  private: false,
  place: null,
  period,
  how: null,
  evidence: 'document',
  note: null,
  ...more,
});
const TODAY = dayOf(2026, 11, 23);
const made = periodOf('1934-09/1936-02').strict[0];
const kinds = (events: CustodyEvent[]) => trailOf(events, made, TODAY).problems.map((x) => x.kind);

describe('the paper trail', () => {
  test('nothing known is none; documents throughout are complete', () => {
    expect(trailOf([], made, TODAY).word).toBe('none');
    expect(trailOf([held('A', '1935/1980'), held('B', '1980/..')], made, TODAY)).toMatchObject({
      word: 'complete',
      problems: [],
    });
  });
  test('each year counts at its best evidence', () => {
    const weak = trailOf([held('A', '1935/..', { evidence: 'tradition' })], made, TODAY).share;
    const better = trailOf(
      [
        held('A', '1935/..', { evidence: 'tradition' }),
        held('A', '1980/..', { evidence: 'owner-statement' }),
      ],
      made,
      TODAY,
    ).share;
    expect(better).toBeGreaterThan(weak);
  });
  test('carried before it was made', () =>
    expect(kinds([held('A', '1933')])).toContain('before-it-was-made'));
  test('two owners at once', () =>
    expect(kinds([held('A', '1940/1960'), held('B', '1950/1970')])).toContain('overlap'));
  test('a long gap', () => expect(kinds([held('A', '1936/1940'), held('B', '1990/2026')])).toContain('gap'));
});

test('the text: a semicolon for a direct passing, a full stop for an unknown link, private persons by town', () => {
  expect(
    trailText([
      held('A. Corrie', '1935/1961', { private: true, place: 'Skerry Bay', evidence: 'tradition' }),
      held('Lantern Row', '1961/1970'),
      held('Museum', '1999/2001'),
    ]),
  ).toBe(
    'Private collection, Skerry Bay, 1935 – 1961 (tradition); Lantern Row, 1961 – 1970 (documented). Museum, 1999 – 2001 (documented).',
  );
});

describe('what a reader of papers would notice', () => {
  test('a long possession that holds two others contradicts both of them', () => {
    const trail = trailOf(
      [held('Long', '1940/2000'), held('Short', '1945/1950'), held('Later', '1960/1970')],
      made,
      TODAY,
    );
    expect(trail.problems).toEqual([
      { kind: 'overlap', detail: 'Long and Short both had it at one time.', events: [0, 1] },
      { kind: 'overlap', detail: 'Long and Later both had it at one time.', events: [0, 2] },
    ]);
  });
  test('no gap is told inside a possession that lasted over it', () =>
    expect(kinds([held('Long', '1940/2000'), held('Short', '1941/1942'), held('New', '2001/2026')])).toEqual([
      'overlap',
    ]));
  test('one may hand it over in the year in which the next has it', () =>
    expect(kinds([held('A', '1940/1950'), held('B', '1950/1960')])).toEqual([]));
  test('fifteen years of silence pass, sixteen are told, with how many', () => {
    expect(kinds([held('A', '1940/1950'), held('B', '1965/2026')])).toEqual([]);
    expect(trailOf([held('A', '1940/1950'), held('B', '1967/2026')], made, TODAY).problems[0]?.detail).toBe(
      'Nothing is known for 16 years between A and B.',
    );
  });
  test('held in the year it was made is no contradiction; held the year before is', () => {
    expect(kinds([held('A', '1934/1940')])).toEqual([]);
    expect(kinds([held('A', '1933/1940')])).toEqual(['before-it-was-made']);
    expect(kinds([held('A', '193X/1940')])).toEqual([]);
    expect(kinds([held('A', '1933')])).toEqual(['before-it-was-made']);
  });
  test('without a date of making its life begins with the first who had it', () => {
    const { strip, share } = trailOf([held('B', '2000/2026'), held('A', '1990/2000')], undefined, TODAY);
    expect([strip[0]?.year, strip.at(-1)?.year, share]).toEqual([1990, 2026, 1]);
    expect(trailOf([], undefined, TODAY).strip.map((y) => y.year)).toEqual([2026]);
  });
  test('a year is covered by whoever had it on any day of it, and by nobody before or after', () => {
    const { strip } = trailOf([held('A', '1940-12-31/1942-01-01')], made, TODAY);
    const strength = (year: number) => strip.find((y) => y.year === year)?.strength;
    expect([1939, 1940, 1941, 1942, 1943].map(strength)).toEqual([0, 1, 1, 1, 0]);
  });
  test.each([
    ['complete', '1934/2014'],
    ['good', '1934/1990'],
    ['partial', '1934/1960'],
    ['thin', '1934/1940'],
  ] as const)('%s', (word, period) => expect(trailOf([held('A', period)], made, TODAY).word).toBe(word));
  test('a link that is not known begins a sentence, a direct passing does not', () => {
    const text = trailText([
      held('the maker', '1936'),
      held('a shop', '1937', { place: 'Norham' }),
      held('somebody', '1990', { private: true, place: 'Ersk' }),
      held('an heir', '1990/2026', { evidence: 'owner-statement' }),
    ]);
    expect(text).toBe(
      'The maker, 1936 (documented); a shop, Norham, 1937 (documented). Private collection, Ersk, 1990 (documented); an heir, 1990 – 2026 (the owner’s word).',
    );
  });
});
