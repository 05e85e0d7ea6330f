/** How the chance of an observation hangs on the month a piece was made: marks and date codes. */
import { addMonthsToEnd, OPEN_START, parseMonths, periodOf, type Span } from '../dates/index.ts';
import type { DatedWindow, Mark } from '../reference/index.ts';
import type { ReferenceIndex } from './compile.ts';
import type { Row } from './compiled.ts';
import { tellsHistory, type HistoryMark } from './history.ts';
import { monthsOf, type Month } from './months.ts';

export interface DatedPart {
  /** per row: which factor applies, −1 where the date says nothing */
  readonly classOf: Int32Array;
  /** P(observation | month) from month `from` on */
  readonly factors: readonly Float64Array[];
  /** the same without the chance that the part was exchanged, where `factors` hold it */
  readonly unmixed?: readonly Float64Array[];
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

/** What is worked out once per reference revision: how surely each mark's window holds a month, and who bears what. */
interface MarkTables {
  readonly holds: Map<string, Float64Array>;
  readonly togetherAt: Map<string, Float64Array>;
  readonly bearing: Map<string | null, Bearing>;
}
interface Bearing {
  /** distinct lists of marks of making that variants bear at a place; the first is empty */
  readonly lists: readonly (readonly string[])[];
  /** per row: the list of the row its stamps are judged by */
  readonly listOf: Int32Array;
}
const tables = new WeakMap<ReferenceIndex['rows'], MarkTables>();
function tablesOf(index: ReferenceIndex): MarkTables {
  let found = tables.get(index.rows);
  if (!found)
    tables.set(index.rows, (found = { holds: new Map(), togetherAt: new Map(), bearing: new Map() }));
  return found;
}

function holdOfMark(index: ReferenceIndex, id: string): Float64Array {
  const { holds } = tablesOf(index);
  let hold = holds.get(id);
  if (!hold) {
    const m = index.marks.get(id);
    const spans = m?.window == null ? undefined : statementSpans(m.window, m.carryOver);
    hold = spans
      ? holdOver(index, spans.strict, spans.lenient)
      : new Float64Array(index.calendar.length).fill(1);
    holds.set(id, hold);
  }
  return hold;
}

/** Sum of the holds of one maker's marks at one place. */
function togetherOf(
  index: ReferenceIndex,
  maker: string | null | undefined,
  place: string | null,
): Float64Array {
  const { togetherAt } = tablesOf(index);
  const key = JSON.stringify([maker, place]);
  let together = togetherAt.get(key);
  if (!together) {
    together = new Float64Array(index.calendar.length);
    for (const other of index.marks.values())
      if (other.maker === maker && standsAt(index, other.id, place)) {
        const hold = holdOfMark(index, other.id);
        for (let i = 0; i < together.length; i++) together[i] = (together[i] ?? 0) + (hold[i] ?? 0);
      }
    togetherAt.set(key, together);
  }
  return together;
}

function bearingAt(index: ReferenceIndex, place: string | null): Bearing {
  const { bearing } = tablesOf(index);
  let found = bearing.get(place);
  if (!found) {
    const lists: string[][] = [[]];
    const known = new Map<string, number>([['', 0]]);
    const ownList = index.rows.map((row) => {
      const listed = (row.variant.marks ?? []).filter((m) => standsAt(index, m, place));
      const key = listed.join(' ');
      let at = known.get(key);
      if (at === undefined) known.set(key, (at = lists.push(listed) - 1));
      return at;
    });
    found = { lists, listOf: Int32Array.from(index.rows, (row) => ownList[row.judgedAs] ?? 0) };
    bearing.set(place, found);
  }
  return found;
}

/** P(mark | month) for a piece that bears one of `listed` there, or of whose maker nobody said what it bears. */
export function markFactor(
  index: ReferenceIndex,
  mark: Mark,
  listed: readonly string[],
  maker: string,
  error: number,
): ((month: number) => number) | undefined {
  const n = Math.max(2, index.marks.size);
  const own = holdOfMark(index, mark.id);
  const mistaken = error / (n - 1);
  if (listed.includes(mark.id)) {
    // of several marks that a variant bears, those whose window holds the month share it
    const bearing = listed.map((m) => holdOfMark(index, m));
    return (i) => {
      const all = bearing.reduce((sum, hold) => sum + (hold[i] ?? 0), 0);
      const share = all > 0 ? (own[i] ?? 0) / all : 1 / listed.length;
      return share * (all > 0 ? Math.min(1, all) * (1 - error) : error) + (1 - share) * mistaken;
    };
  }
  if (listed.length > 0) return undefined;
  if (mark.maker == null) return () => 1 / (n + 1);
  if (mark.maker !== maker) return undefined;
  const together = togetherOf(index, mark.maker, mark.place ?? null);
  return (i) => {
    const hold = own[i] ?? 0;
    return (hold * (1 - error)) / Math.max(1, together[i] ?? 1) + (1 - hold) * mistaken;
  };
}

export function markDates(index: ReferenceIndex, id: string, error: number): DatedPart {
  const { from, length } = index.calendar;
  const classOf = new Int32Array(index.rows.length).fill(-1);
  const factors: Float64Array[] = [];
  const mark = index.marks.get(id);
  if (!mark) return { classOf, factors, from };
  const { lists, listOf } = bearingAt(index, mark.place ?? null);
  const classFor = (factor: ((month: number) => number) | undefined) =>
    factor ? factors.push(Float64Array.from({ length }, (_, i) => factor(i))) - 1 : -1;
  const classOfList = Int32Array.from(lists, (listed, at) =>
    at === 0 || !listed.includes(id) ? -1 : classFor(markFactor(index, mark, listed, '', error)),
  );
  const silent = classFor(markFactor(index, mark, [], mark.maker ?? '', error));
  const maker = mark.maker == null ? -1 : (index.makerNumber.get(mark.maker) ?? -2);
  for (let r = 0; r < classOf.length; r++) {
    const at = listOf[r] ?? 0;
    if (at > 0) classOf[r] = classOfList[at] ?? -1;
    else if (maker === -1 || index.bearerMaker[r] === maker) classOf[r] = silent;
  }
  return { classOf, factors, from };
}

/** How surely a reading holds each month. */
export const windowHold = (index: ReferenceIndex, window: string): Float64Array =>
  holdOver(index, periodOf(window).strict, periodOf(window).lenient);

/** Signs that were never struck, or are another maker's, are seen this much more seldom than own ones are misread. */
export const INVENTED = 0.1;

/**
 * `(1−e−a)·[t in reading]/readings + a·[t in another arrangement's reading]/arrangements + e/all` for pieces of the
 * code's maker: e for any misreading, a for the right signs under the wrong arrangement.
 */
export function dateCodeDates(
  index: ReferenceIndex,
  maker: string | undefined,
  read: {
    readonly windows: readonly string[];
    readonly error: number;
    /** stamps there are */
    readonly all: number;
    /** readings of the same signs in each other arrangement, and the chance that it was mistaken */
    readonly arrangements: readonly (readonly string[])[];
    readonly mistaken: number;
    /** everything the code can say; signs are hardly ever seen on a piece of another time, which bears none */
    readonly covered: readonly string[];
  },
): DatedPart {
  const { from, length } = index.calendar;
  const { windows, error, all, arrangements } = read;
  const mistaken = arrangements.length > 0 ? read.mistaken : 0;
  const factor = new Float64Array(length).fill((INVENTED * error) / all);
  const raise = (window: string, chance: number) =>
    windowHold(index, window).forEach((h, i) => {
      if (h > 0) factor[i] = Math.max(factor[i] ?? 0, h * chance + error / all);
    });
  for (const window of read.covered) raise(window, 0);
  for (const window of windows) raise(window, (1 - error - mistaken) / windows.length);
  for (const others of arrangements)
    for (const window of others) raise(window, mistaken / arrangements.length / others.length);
  const classOf = new Int32Array(index.rows.length).fill(-1);
  const at = maker === undefined ? -1 : (index.makerNumber.get(maker) ?? -2);
  for (let r = 0; r < classOf.length; r++) if (at === -1 || index.bearerMaker[r] === at) classOf[r] = 0;
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
