/** The engine's calendar: months. */
import { calendarOf, type Span } from '../dates/index.ts';

/** Months since year 0; the resolution of P(t | variant). */
export type Month = number;
export const monthOf = (year: number, month: number): Month => year * 12 + month - 1;
/** The edges of the engine's calendar. */
export const OLDEST = monthOf(1700, 1);
export const NEWEST = monthOf(2060, 12);

export interface MonthRange {
  readonly from: Month;
  readonly to: Month;
}

/** The months a span of days touches, open ends cut at the edges of the engine's calendar. */
export function monthsOf(span: Span): MonthRange {
  const at = (day: number, open: Month) => {
    if (!Number.isFinite(day)) return open;
    const { year, month } = calendarOf(day as Span['from']);
    return Math.min(NEWEST, Math.max(OLDEST, monthOf(year, month)));
  };
  return { from: at(span.from, OLDEST), to: at(span.to, NEWEST) };
}

export const yearsIn = (range: MonthRange): number => (range.to - range.from + 1) / 12;
