/** How the chance of an observation hangs on the month a piece was made: marks and date codes. */
import { addMonthsToEnd, OPEN_START, parseMonths, periodOf, type Span } from '../dates/index.ts';
import type { DatedWindow } from '../reference/index.ts';
import { type ReferenceIndex, type Row } from './compile.ts';
import { tellsHistory, type HistoryMark } from './history.ts';
import { monthsOf, type Month } from './months.ts';

export interface DatedPart {
  /** per row: which factor applies, −1 where the date says nothing */
  readonly classOf: Int32Array;
  /** P(observation | month) from month `from` on */
  readonly factors: readonly Float64Array[];
  readonly from: Month;
}

/** How surely a claim holds a month: 1 at the word, ½ where only a lenient reading reaches, else 0. */
export function holdOver(
  index: ReferenceIndex,
  strict: readonly Span[],
  lenient: readonly Span[],
): Float64Array {
  const { from, length } = index.calendar;
  const hold = new Float64Array(length);
  const raise = (spans: readonly Span[], level: number) => {
    for (const span of spans) {
      const months = monthsOf(span);
      const last = Math.min(months.to, from + length - 1);
      for (let m = Math.max(months.from, from); m <= last; m++)
        hold[m - from] = Math.max(hold[m - from] ?? 0, level);
    }
  };
  raise(lenient, 0.5);
  raise(strict, 1);
  return hold;
}

/** A dated statement taken at its word and leniently: qualified sides reach further, carry-over moves the end. */
export function statementSpans(
  window: string,
  carryOver: string | null | undefined,
): { strict: readonly Span[]; lenient: readonly Span[] } {
  const period = periodOf(window);
  const months = carryOver == null ? undefined : parseMonths(carryOver);
  const later = months?.ok ? months.value : 0;
  const lenient = period.lenient.map((s) => ({ from: s.from, to: addMonthsToEnd(s.to, later) }));
  return { strict: period.strict, lenient };
}

/** The row whose dates and stamps a row is judged by: an imitation's original, else itself. */
export const judged = (index: ReferenceIndex, row: Row): Row => index.rows[row.judgedAs] ?? row;

/** Whether a mark of making stands at a place; stamps struck afterwards stand beside it and do not count. */
export function standsAt(index: ReferenceIndex, id: string, place: string | null): boolean {
  const mark = index.marks.get(id);
  return (mark?.place ?? null) === place && !tellsHistory(mark);
}

/** A piece bears a stamp of re-work only if it was made before that stamp went out of use. */
export function historyMarkDates(index: ReferenceIndex, mark: HistoryMark, error: number): DatedPart {
  const { from } = index.calendar;
  const classOf = new Int32Array(index.rows.length).fill(mark.window == null ? -1 : 0);
  if (mark.window == null) return { classOf, factors: [], from };
  const { strict, lenient } = statementSpans(mark.window, mark.carryOver);
  const until = (spans: readonly Span[]) => spans.map((s) => ({ from: OPEN_START, to: s.to }));
  const before = holdOver(index, until(strict), until(lenient));
  return { classOf, factors: [before.map((h) => h * (1 - error) + (1 - h) * error)], from };
}

export function markDates(index: ReferenceIndex, id: string, error: number): DatedPart {
  const { from, length } = index.calendar;
  const classOf = new Int32Array(index.rows.length).fill(-1);
  const factors: Float64Array[] = [];
  const mark = index.marks.get(id);
  if (!mark) return { classOf, factors, from };
  const place = mark.place ?? null;
  const holds = new Map<string, Float64Array>();
  const holdOf = (markId: string) => {
    let hold = holds.get(markId);
    if (!hold) {
      const m = index.marks.get(markId);
      const spans = m?.window == null ? undefined : statementSpans(m.window, m.carryOver);
      hold = spans ? holdOver(index, spans.strict, spans.lenient) : new Float64Array(length).fill(1);
      holds.set(markId, hold);
    }
    return hold;
  };
  const own = holdOf(id);
  const n = Math.max(2, index.marks.size);
  const others = [...index.marks.values()].filter(
    (m) => m.maker === mark.maker && standsAt(index, m.id, place),
  );
  const together = new Float64Array(length);
  for (const other of others) holdOf(other.id).forEach((h, i) => (together[i] = (together[i] ?? 0) + h));
  const classes = new Map<string, number>();
  const classFor = (key: string, factor: (month: number) => number) => {
    let c = classes.get(key);
    if (c === undefined) {
      c = factors.length;
      factors.push(Float64Array.from({ length }, (_, i) => factor(i)));
      classes.set(key, c);
    }
    return c;
  };
  for (const row of index.rows) {
    const bearer = judged(index, row);
    const listed = (bearer.variant.marks ?? []).filter((m) => standsAt(index, m, place));
    if (listed.includes(id)) {
      // of several marks that a variant bears, those whose window holds the month share it
      const bearing = listed.map(holdOf);
      classOf[row.index] = classFor(`listed ${listed.join(' ')}`, (i) => {
        const all = bearing.reduce((sum, hold) => sum + (hold[i] ?? 0), 0);
        const share = all > 0 ? (own[i] ?? 0) / all : 1 / listed.length;
        return share * (all > 0 ? Math.min(1, all) * (1 - error) : error) + ((1 - share) * error) / (n - 1);
      });
    } else if (listed.length === 0 && (mark.maker == null || mark.maker === bearer.maker.id)) {
      classOf[row.index] = classFor('silent', (i) => {
        const hold = own[i] ?? 0;
        return mark.maker == null
          ? 1 / (n + 1)
          : (hold * (1 - error)) / Math.max(1, together[i] ?? 1) + ((1 - hold) * error) / (n - 1);
      });
    }
  }
  return { classOf, factors, from };
}

/** `(1−e)·[t in reading]/readings + e/all` for pieces of the code's maker. */
export function dateCodeDates(
  index: ReferenceIndex,
  maker: string | undefined,
  windows: readonly string[],
  error: number,
  all: number,
): DatedPart {
  const { from, length } = index.calendar;
  const factor = new Float64Array(length).fill(error / all);
  for (const window of windows) {
    const hold = holdOver(index, periodOf(window).strict, periodOf(window).lenient);
    hold.forEach(
      (h, i) => (factor[i] = Math.max(factor[i] ?? 0, (h * (1 - error)) / windows.length + error / all)),
    );
  }
  const classOf = new Int32Array(index.rows.length).fill(-1);
  for (const row of index.rows)
    if (maker === undefined || judged(index, row).maker.id === maker) classOf[row.index] = 0;
  return { classOf, factors: [factor], from };
}

/** The windows of one feature that speak for a row: its pattern's, else its maker's, else everybody's. */
export function scopedWindows(
  windows: readonly DatedWindow[],
  pattern: string | undefined,
  maker: string | undefined,
): readonly DatedWindow[] {
  const ofPattern = windows.filter((w) => w.pattern != null && w.pattern === pattern);
  if (ofPattern.length > 0) return ofPattern;
  const ofMaker = windows.filter((w) => w.pattern == null && w.maker != null && w.maker === maker);
  if (ofMaker.length > 0) return ofMaker;
  return windows.filter((w) => w.pattern == null && w.maker == null);
}

/** Weight of a source among those that disagree: its reliability as odds. */
export function reliabilityOdds(index: ReferenceIndex, source: string | null | undefined): number {
  const r = Math.min(0.99, Math.max(0.05, index.sources.get(source ?? '')?.reliability ?? 0.8));
  return r / (1 - r);
}
