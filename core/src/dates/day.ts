/** Days as whole numbers: what every comparison of dates in Jutbank works on. */

/** Days since 1970-01-01 (proleptic Gregorian, UTC). ±Infinity stands for an open end. */
export type Day = number & { readonly __brand: 'Day' };

const MS_PER_DAY = 86_400_000;

export const asDay = (n: number): Day => n as Day;
export const OPEN_START = asDay(-Infinity);
export const OPEN_END = asDay(Infinity);

/** The day in which an instant (milliseconds since the epoch, UTC) falls; infinities stay open. */
export const dayOfInstant = (ms: number): Day =>
  asDay(Number.isFinite(ms) ? Math.floor(ms / MS_PER_DAY) : ms);

/** @param month 1–12; months and days outside their range carry over, as in the calendar. */
export function dayOf(year: number, month = 1, day = 1): Day {
  const date = new Date(0);
  date.setUTCFullYear(year, month - 1, day);
  return dayOfInstant(date.getTime());
}

export interface CalendarDate {
  readonly year: number;
  /** 1–12 */
  readonly month: number;
  readonly day: number;
}

export function calendarOf(day: Day): CalendarDate {
  const date = new Date(day * MS_PER_DAY);
  return { year: date.getUTCFullYear(), month: date.getUTCMonth() + 1, day: date.getUTCDate() };
}

/** The same day of the month so many months later (or earlier); the month's last day where it has no such day. */
export function addMonths(day: Day, months: number): Day {
  if (!Number.isFinite(day)) return day;
  const { year, month, day: dayOfMonth } = calendarOf(day);
  const lastOfTarget = calendarOf(asDay(dayOf(year, month + months + 1, 1) - 1)).day;
  return dayOf(year, month + months, Math.min(dayOfMonth, lastOfTarget));
}

/** Moves the end of a period: a month's last day stays a month's last day. */
export function addMonthsToEnd(day: Day, months: number): Day {
  return Number.isFinite(day) ? asDay(addMonths(asDay(day + 1), months) - 1) : day;
}

const two = (n: number) => String(n).padStart(2, '0');

/** ISO 8601 calendar date, `1934-09-01`. */
export function isoOf(day: Day): string {
  const { year, month, day: d } = calendarOf(day);
  const y = year < 0 ? `-${String(-year).padStart(4, '0')}` : String(year).padStart(4, '0');
  return `${y}-${two(month)}-${two(d)}`;
}

/** A run of days, both ends included. */
export interface Span {
  readonly from: Day;
  readonly to: Day;
}

export const intersect = (a: Span, b: Span): Span => ({
  from: asDay(Math.max(a.from, b.from)),
  to: asDay(Math.min(a.to, b.to)),
});

export const isEmpty = (span: Span): boolean => span.from > span.to;

/** All days that lie in some span of `a` and some span of `b`, in order, touching spans joined. */
export function intersectAll(a: readonly Span[], b: readonly Span[]): Span[] {
  const both = a.flatMap((x) => b.map((y) => intersect(x, y)).filter((s) => !isEmpty(s)));
  return joined(both);
}

/** Sorted, with overlapping and touching spans made one. */
export function joined(spans: readonly Span[]): Span[] {
  const sorted = [...spans].sort((x, y) => x.from - y.from || x.to - y.to);
  const out: Span[] = [];
  for (const span of sorted) {
    const last = out.at(-1);
    if (last && span.from <= last.to + 1) {
      out[out.length - 1] = { from: last.from, to: asDay(Math.max(last.to, span.to)) };
    } else {
      out.push(span);
    }
  }
  return out;
}

/** The smallest single span that holds all of them; undefined for none. */
export function hullOf(spans: readonly Span[]): Span | undefined {
  if (spans.length === 0) return undefined;
  return {
    from: asDay(Math.min(...spans.map((s) => s.from))),
    to: asDay(Math.max(...spans.map((s) => s.to))),
  };
}

export const covers = (spans: readonly Span[], day: number): boolean =>
  spans.some((s) => s.from <= day && day <= s.to);
