import { describe, expect, test } from '@jest/globals';
import { dayOf, periodOf } from '../dates/index.ts';
import { trailOf, trailText, type CustodyEvent } from './trail.ts';

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
