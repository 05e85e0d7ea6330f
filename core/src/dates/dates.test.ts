import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { addMonths, asDay, calendarOf, dayOf, intersectAll, isoOf, joined } from './day.ts';
import { edtfOf, parsePeriod, periodOf } from './period.ts';
import { parseSpokenDate, periodInWords } from './spoken.ts';

const iso = (edtf: string) => {
  const period = periodOf(edtf);
  return [period.start.earliest, period.end.latest].map((day) =>
    Number.isFinite(day) ? isoOf(day) : String(day),
  );
};

describe('EDTF to days', () => {
  test.each([
    ['1934', '1934-01-01', '1934-12-31'],
    ['1934-09', '1934-09-01', '1934-09-30'],
    ['1934-09-03/1935-02-20', '1934-09-03', '1935-02-20'],
    ['194X', '1940-01-01', '1949-12-31'],
    ['../1936', '-Infinity', '1936-12-31'],
    ['1951/..', '1951-01-01', 'Infinity'],
    ['/1941', '-Infinity', '1941-12-31'],
    ['[1934,1936]', '1934-01-01', '1936-12-31'],
    ['[1941..1944]', '1941-01-01', '1944-12-31'],
    ['{1941..1944}', '1941-01-01', '1944-12-31'],
    ['1951-22', '1951-06-01', '1951-08-31'],
  ])('%s', (edtf, from, to) => expect(iso(edtf)).toEqual([from, to]));

  test('a one-of set has a gap, a range has none', () => {
    expect(periodOf('[1934,1936]').strict).toHaveLength(2);
    expect(periodOf('1934/1936').strict).toHaveLength(1);
  });

  test.each(['', '1934/1930', '1941-02-29', 'long ago', '1934-13', '34'])(
    'refuses %s and names it',
    (text) => {
      const parsed = parsePeriod(text);
      expect(parsed.ok).toBe(false);
      if (!parsed.ok) expect(parsed.error.message).toContain(text);
    },
  );

  test('a qualified side reaches two years, or six months where it names a month', () => {
    const [years] = periodOf('1938~/1949').lenient;
    expect(years && isoOf(years.from)).toBe('1936-01-01');
    expect(years && isoOf(years.to)).toBe('1949-12-31');
    const [months] = periodOf('1934-09~').lenient;
    expect(months && [isoOf(months.from), isoOf(months.to)]).toEqual(['1934-03-01', '1935-03-31']);
  });

  test.each(['1934-01-01', '1934-05-01', '2100-01-01', '1934-05-31', '1934-12-31'])(
    'one day is that day, at the edge of a month or year too: %s',
    (iso) => {
      const [span] = periodOf(iso).strict;
      expect(span && edtfOf(span)).toBe(iso);
    },
  );
  test('the shortest EDTF of a span reads back as the same span', () => {
    const days = fc.integer({ min: dayOf(1500), max: dayOf(2100) });
    fc.assert(
      fc.property(days, days, (a, b) => {
        const span = { from: asDay(Math.min(a, b)), to: asDay(Math.max(a, b)) };
        expect(periodOf(edtfOf(span)).strict).toEqual([span]);
      }),
    );
  });
});

test('adding months keeps the day, or takes the last one the month has', () => {
  expect(isoOf(addMonths(dayOf(1935, 1, 31), 1))).toBe('1935-02-28');
  fc.assert(
    fc.property(
      fc.integer({ min: dayOf(1800), max: dayOf(2050) }),
      fc.integer({ min: -60, max: 60 }),
      (day, months) => {
        const before = calendarOf(asDay(day));
        const after = calendarOf(addMonths(asDay(day), months));
        expect(after.year * 12 + after.month).toBe(before.year * 12 + before.month + months);
        expect(after.day).toBeLessThanOrEqual(before.day);
      },
    ),
  );
});

test('intersecting spans never widens and does not depend on order', () => {
  const span = fc
    .tuple(fc.integer({ min: 0, max: 400 }), fc.integer({ min: 0, max: 400 }))
    .map(([a, b]) => ({ from: asDay(Math.min(a, b)), to: asDay(Math.max(a, b)) }));
  fc.assert(
    fc.property(fc.array(span, { maxLength: 5 }), fc.array(span, { maxLength: 5 }), (a, b) => {
      const both = intersectAll(a, b);
      expect(both).toEqual(intersectAll(b, a));
      const days = (spans: typeof a) => joined(spans).reduce((n, s) => n + s.to - s.from + 1, 0);
      expect(days(both)).toBeLessThanOrEqual(Math.min(days(a), days(b)));
    }),
  );
});

describe('dates as people say them', () => {
  test.each([
    ['about 1935', '1935~'],
    ['1934 to April 36', '1934/1936-04'],
    ['April 1936', '1936-04'],
    ['12 Sept 1934', '1934-09-12'],
    ['before 1940', '../1940'],
    ['since 1951', '1951/..'],
    ['the 1940s', '194X'],
    ['1934–36', '1934/1936'],
    ['1934?', '1934?'],
    ['1938~/1949', '1938~/1949'],
  ])('%s is %s', (said, edtf) => {
    const parsed = parseSpokenDate(said);
    expect(parsed.ok && parsed.value.edtf).toBe(edtf);
  });

  const today = '2026-11-28';
  test.each([
    ['later half of 2009', '2009-07/2009-12'],
    ['the first half of 1944', '1944-01/1944-06'],
    ['end of 1944', '1944-10/1944-12'],
    ['early 1990', '1990-01/1990-04'],
    ['early 1930s', '[1930..1933]'],
    ['the late 30s', '[1937..1939]'],
    ['second half of the 1960s', '[1965..1969]'],
    ['the 90s', '199X'],
    ['19th century', '18XX'],
    ['late 19th century', '1870/1899'],
    ['1956 or 1957', '[1956,1957]'],
    ['1956 or 57', '[1956,1957]'],
    ['about 1952', '1952~'],
    ['1952 or so', '1952~'],
    ['1952ish', '1952~'],
    ['between 1927 and the early 30s', '1927/1933'],
    ['the 1940s to the 1950s', '1940/1959'],
    ['1962-63', '1962/1963'],
    ['1898-02', '1898-02'],
    ['not before 1950', '1950/..'],
    ['1950 or later', '1950/..'],
    ['no later than 1938', '../1938'],
    ['before the 1940s', '../1949'],
    ['summer 1952', '1952-22'],
    ['yesterday', '2026-11-27'],
    ['today', '2026-11-28'],
    ['10 days ago', '2026-11-18'],
    ['last year', '2025'],
    ['12/09/2026', '2026-09-12'],
    ['3.4.36', '1936-04-03'],
    ['3.4.26', '2026-04-03'],
    ['31/1/1944', '1944-01-31'],
    ['1/31/1944', '1944-01-31'],
    ['probably 1934', '1934?'],
  ])('%s is %s', (said, edtf) => {
    const parsed = parseSpokenDate(said, { today });
    expect(parsed.ok ? parsed.value.edtf : parsed.error.message).toBe(edtf);
  });
  test('where a shop writes the month first', () => {
    const at = (said: string) => {
      const parsed = parseSpokenDate(said, { today, dayFirst: false });
      return parsed.ok ? parsed.value.edtf : undefined;
    };
    expect(at('12/09/2026')).toBe('2026-12-09');
    expect(at('31/1/1944')).toBe('1944-01-31');
  });

  test.each([
    'when the boats came in',
    '3',
    '13/13/1944',
    '30 or so',
    'half of',
    'early',
    'or',
    '1/2/3/4',
    'the 5th',
    'Adler 45',
  ])('“%s” is said to be none', (said) => {
    expect(parseSpokenDate(said, { today }).ok).toBe(false);
  });
  test('a day that no calendar has is none', () => expect(parseSpokenDate('31/2/1944').ok).toBe(false));
  test('is never slow, whatever is typed', () => {
    const started = Date.now();
    for (const said of [
      'or '.repeat(300),
      '-'.repeat(600),
      'early '.repeat(150),
      '1/'.repeat(300),
      `${'about '.repeat(120)}1934`,
    ])
      parseSpokenDate(said, { today });
    expect(Date.now() - started).toBeLessThan(500);
  });

  test('is echoed in words', () => {
    expect(periodInWords(periodOf('1934-09/1936-02'))).toBe('Sep 1934 – Feb 1936');
    expect(periodInWords(periodOf('1935~'))).toBe('about 1935');
  });
  test.each([
    ['2026-01-01', '1 Jan 2026'],
    ['1936-01', 'Jan 1936'],
    ['1936-12', 'Dec 1936'],
    ['1934-01/1936-02', 'Jan 1934 – Feb 1936'],
    ['1934/1936', '1934 – 1936'],
    ['1934/1936-02', 'Jan 1934 – Feb 1936'],
    ['1934~/1936-01', 'about 1934 to Jan 1936'],
    ['1950/..', 'from 1950'],
    ['../1940', 'until 1940'],
    ['1936-01-01/1936-01-31', 'Jan 1936'],
  ])('%s as %s', (edtf, said) => {
    expect(periodInWords(periodOf(edtf))).toBe(said);
  });
});

test('a period that begins and ends in one year is that year', () => {
  expect(periodOf('1934/1934').strict).toEqual(periodOf('1934').strict);
  expect(parsePeriod('1935/1934').ok).toBe(false);
});
