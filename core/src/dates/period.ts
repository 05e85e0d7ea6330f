/**
 * EDTF (ISO 8601-2, levels 0 and 1, plus one-of sets) to days and back.
 *
 * Parsing is the `edtf` package's; what it gets wrong is mended here and only here: ranges inside sets,
 * unknown ends, days that no calendar has, and seasons.
 */
import edtf, { type ExtendedDate } from 'edtf';
import { fail, succeed, type Result } from '../result/index.ts';
import {
  addMonths,
  addMonthsToEnd,
  asDay,
  calendarOf,
  dayOf,
  dayOfInstant,
  hullOf,
  isoOf,
  joined,
  OPEN_END,
  OPEN_START,
  type Day,
  type Span,
} from './day.ts';

/** One end of a period: between which days it lies, and whether its author qualified it (`~`, `?` or `%`). */
export interface PeriodSide {
  readonly earliest: Day;
  readonly latest: Day;
  readonly qualified: boolean;
  /** whether the text names a month or a day, which makes "about" mean months instead of years */
  readonly namesMonth: boolean;
}

export interface Period {
  /** the text as it was given */
  readonly edtf: string;
  readonly start: PeriodSide;
  readonly end: PeriodSide;
  /** the days allowed, taken at the word; more than one span only for a set */
  readonly strict: readonly Span[];
  /** the days allowed when a qualified side may be off: two years, or six months where it names a month */
  readonly lenient: readonly Span[];
}

export interface DateProblem {
  readonly kind: 'malformed-date';
  readonly text: string;
  readonly message: string;
}

/** How far a qualified side reaches (formats.md, "Dating, settled", 3), in months. */
const REACH_WITH_YEAR = 24;
const REACH_WITH_MONTH = 6;

const MONTHS_OF_SEASON: Record<string, [first: number, last: number]> = {
  '21': [3, 5],
  '22': [6, 8],
  '23': [9, 11],
  '24': [12, 14],
};

const CACHE_LIMIT = 50_000;
const cache = new Map<string, Result<Period, DateProblem>>();

/** Parses an EDTF string. Results are remembered: a reference repeats the same few thousand windows. */
export function parsePeriod(text: string): Result<Period, DateProblem> {
  const known = cache.get(text);
  if (known) return known;
  const parsed = plainPeriod(text) ?? parseUncached(text);
  if (cache.size >= CACHE_LIMIT) cache.clear();
  cache.set(text, parsed);
  return parsed;
}

/** For text that was checked on its way in; a malformed date here is a fault of the program. */
export function periodOf(text: string): Period {
  const parsed = parsePeriod(text);
  if (!parsed.ok) throw new Error(parsed.error.message);
  return parsed.value;
}

const PLAIN = /^(\d{4})(?:-(0[1-9]|1[0-2]))?(?:\/(\d{4})(?:-(0[1-9]|1[0-2]))?)?$/;

/** Years and months without doubts, nearly all that a reference holds: read without a grammar, a hundred times quicker. */
export function plainPeriod(text: string): Result<Period, DateProblem> | undefined {
  const match = PLAIN.exec(text);
  if (!match) return undefined;
  const [, year = '', month, lastYear = year, lastMonth = match[3] === undefined ? month : undefined] = match;
  const first = Number(year);
  const last = Number(lastYear);
  const from = dayOf(first, month === undefined ? 1 : Number(month), 1);
  const to = asDay(dayOf(last, lastMonth === undefined ? 13 : Number(lastMonth) + 1, 1) - 1);
  if (from > to) return undefined;
  const side = (earliest: Day, latest: Day, named: string | undefined): PeriodSide => ({
    earliest,
    latest,
    qualified: false,
    namesMonth: named !== undefined,
  });
  const start = side(
    from,
    month === undefined ? asDay(dayOf(first, 13, 1) - 1) : asDay(dayOf(first, Number(month) + 1, 1) - 1),
    month,
  );
  const end =
    match[3] === undefined
      ? start
      : side(dayOf(last, lastMonth === undefined ? 1 : Number(lastMonth), 1), to, lastMonth);
  if (end.earliest < from) return undefined;
  return succeed({ edtf: text, start, end, strict: [{ from, to }], lenient: [{ from, to }] });
}

export function parseUncached(text: string): Result<Period, DateProblem> {
  const wrong = (why: string) =>
    fail<DateProblem>({ kind: 'malformed-date', text, message: `“${text}” is not a date: ${why}` });
  const impossible = impossibleDay(text);
  if (impossible) return wrong(`there is no ${impossible}`);
  let date: ExtendedDate;
  const ends = text.split('/');
  try {
    // the library refuses 1934/1934, which is no more than 1934
    date = edtf(ends.length === 2 && ends[0] === ends[1] && ends[0] !== '..' ? (ends[0] ?? text) : text);
  } catch {
    if (ends.length === 2 && ends.every((end) => /^-?\d{4}/.test(end)))
      return wrong('it ends before it begins, or one side is not written as EDTF');
    return wrong('write it as EDTF, for example 1934, 1934-09, 1934/1936, 1935~');
  }
  if (date.type === 'Century' || date.type === 'Decade')
    return wrong('write the year with four signs, for example 1934 or 193X');
  const spans = date.type === 'Set' || date.type === 'List' ? setSpans(text, date) : undefined;
  if (spans) {
    const hull = hullOf(spans);
    if (!hull) return wrong('the set is empty');
    const plain = { qualified: /[~?%]/.test(text), namesMonth: /\d{4}-\d{2}/.test(text) };
    const start = { earliest: hull.from, latest: hull.from, ...plain };
    const end = { earliest: hull.to, latest: hull.to, ...plain };
    const lenient = plain.qualified ? spans.map((s) => stretch(s, start, end)) : spans;
    return succeed({ edtf: text, start, end, strict: joined(spans), lenient: joined(lenient) });
  }
  let start: PeriodSide;
  let end: PeriodSide;
  if (date.type === 'Interval') {
    const [lower = '', upper = ''] = text.split('/');
    start = sideOf(lower, date.lower, OPEN_START);
    end = sideOf(upper, date.upper, OPEN_END);
  } else {
    start = end = sideOf(text, date, OPEN_START);
  }
  const strict = { from: start.earliest, to: end.latest };
  if (strict.from > strict.to) return wrong('it ends before it begins');
  return succeed({ edtf: text, start, end, strict: [strict], lenient: [stretch(strict, start, end)] });
}

function stretch(span: Span, start: PeriodSide, end: PeriodSide): Span {
  const reach = (side: PeriodSide) =>
    side.qualified ? (side.namesMonth ? REACH_WITH_MONTH : REACH_WITH_YEAR) : 0;
  return { from: addMonths(span.from, -reach(start)), to: addMonthsToEnd(span.to, reach(end)) };
}

function sideOf(text: string, date: ExtendedDate | number | null | undefined, open: Day): PeriodSide {
  const qualified = /[~?%]/.test(text);
  const namesMonth = /^-?[\dX]{4}-\d/.test(text.replace(/^[~?%]/, ''));
  if (date == null || typeof date === 'number')
    return { earliest: open, latest: open, qualified: false, namesMonth: false };
  const season = /^(-?\d{4})-(2[1-4])/.exec(text);
  const months = season && MONTHS_OF_SEASON[season[2] ?? ''];
  if (season && months) {
    const year = Number(season[1]);
    return {
      earliest: dayOf(year, months[0]),
      latest: asDay(dayOf(year, months[1] + 1) - 1),
      qualified,
      namesMonth,
    };
  }
  return {
    earliest: date.min == null ? OPEN_START : dayOfInstant(date.min),
    latest: date.max == null ? OPEN_END : dayOfInstant(date.max),
    qualified,
    namesMonth,
  };
}

/** The package nests ranges (`[1941..1944]`) and loses their end; each member is read by itself instead. */
function setSpans(text: string, set: ExtendedDate): Span[] {
  const members = text.slice(1, -1).split(',');
  const spans = members.map((member): Span => {
    const [from, to] = member.includes('..') ? member.split('..') : [member, member];
    return {
      from: from ? sideOf(from.trim(), edtf(from.trim()), OPEN_START).earliest : OPEN_START,
      to: to ? sideOf(to.trim(), edtf(to.trim()), OPEN_END).latest : OPEN_END,
    };
  });
  // {..}: all of them are meant, so what lies between the first and the last counts as well
  const hull = hullOf(spans);
  return set.type === 'List' && hull ? [hull] : spans;
}

/** A day the calendar does not have, such as 1941-02-29, which the package rolls over silently. */
function impossibleDay(text: string): string | undefined {
  for (const [whole, year, month, day] of text.matchAll(/(-?\d{4})-(\d{2})-(\d{2})/g)) {
    const back = calendarOf(dayOf(Number(year), Number(month), Number(day)));
    if (back.month !== Number(month) || back.day !== Number(day)) return whole;
  }
  return undefined;
}

/** The shortest EDTF that names exactly these days: `1934`, `1934-09/1935-02`, `../1936-04-11`. */
export function edtfOf(span: Span): string {
  if (span.from === span.to && Number.isFinite(span.from)) return isoOf(span.from);
  const from = Number.isFinite(span.from) ? shortestFrom(span.from) : '..';
  if (!Number.isFinite(span.to)) return `${from}/..`;
  const to = shortestTo(span.to);
  if (from === to) return from;
  // an end written more coarsely than the start it follows in the same year or month would seem to begin before it
  const clear = from === '..' || !from.startsWith(to);
  const finer = to.length === isoOf(span.to).length - 6 ? isoOf(span.to).slice(0, -3) : isoOf(span.to);
  return `${from}/${clear ? to : from.startsWith(finer) && from !== finer ? isoOf(span.to) : finer}`;
}

function shortestFrom(day: Day): string {
  const { month, day: d } = calendarOf(day);
  const iso = isoOf(day);
  if (d !== 1) return iso;
  return month === 1 ? iso.slice(0, -6) : iso.slice(0, -3);
}

function shortestTo(day: Day): string {
  const iso = isoOf(day);
  const next = calendarOf(asDay(day + 1));
  if (next.day !== 1) return iso;
  return next.month === 1 ? iso.slice(0, -6) : iso.slice(0, -3);
}
