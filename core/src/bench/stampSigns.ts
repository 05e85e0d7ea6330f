/** Stamps as signs: marks, date codes, pattern numbers, serials. */
import {
  parsePatternNumber,
  readDateCode,
  type ImpliedFeature,
  type PatternNumberCode,
  type SerialCode,
} from '../reference/index.ts';
import type { ReferenceIndex, Row } from './compile.ts';
import { dateCodeDates, historyMarkDates, judged, markDates, standsAt } from './datedSigns.ts';
import type { HistoryMark } from './history.ts';
import { STAMP_SWAP, type BenchSettings } from './settings.ts';
import { alternatives, backgroundShare, readingChance, TANG, type Sign } from './sign.ts';

const filled = (index: ReferenceIndex, value: number) => new Float64Array(index.rows.length).fill(value);

export function markSign(index: ReferenceIndex, id: string, error: number): Sign {
  const mark = index.marks.get(id);
  const place = mark?.place ?? null;
  const samePlace = (other: string) => standsAt(index, other, place);
  const n = Math.max(2, index.marks.size);
  const dated = markDates(index, id, error);
  const likelihood = filled(index, error / (n - 1));
  for (let r = 0; r < likelihood.length; r++) if ((dated.classOf[r] ?? -1) >= 0) likelihood[r] = 1;
  const background = 1 / (n + 1);
  return {
    subject: { mark: id },
    part: TANG,
    swap: STAMP_SWAP,
    error,
    observed: id,
    cellOf: index.everyRow,
    likelihood,
    differing: filled(index, background),
    stranger: likelihood,
    background,
    dated,
    expected: (row) => (judged(index, row).variant.marks ?? []).filter(samePlace),
    verdict: (row) => {
      const listed = (judged(index, row).variant.marks ?? []).filter(samePlace);
      if (listed.includes(id)) return 'agrees';
      if (listed.length > 0) return 'disagrees';
      return mark?.maker == null || mark.maker === judged(index, row).maker.id ? 'silent' : 'disagrees';
    },
  };
}

/**
 * A stamp struck on a finished piece: it was made before the stamp went out of use. A variant that bears it by
 * making (a conversion) is expected to; any other of the maker's may have come back.
 */
export function historyMarkSign(
  index: ReferenceIndex,
  mark: HistoryMark,
  error: number,
  settings: BenchSettings,
): Sign {
  const elsewhere = error / Math.max(1, index.marks.size - 1);
  const bears = (row: Row) => (judged(index, row).variant.marks ?? []).includes(mark.id);
  const mayBear = (row: Row) => mark.maker == null || mark.maker === judged(index, row).maker.id;
  const likelihood = filled(index, elsewhere);
  for (const row of index.rows)
    if (bears(row)) likelihood[row.index] = 1 - error;
    else if (mayBear(row)) likelihood[row.index] = settings.reworkedShare;
  return {
    subject: { mark: mark.id },
    part: TANG,
    swap: STAMP_SWAP,
    error,
    observed: mark.id,
    cellOf: index.everyRow,
    likelihood,
    differing: filled(index, elsewhere),
    stranger: likelihood.map((l) => l / 2),
    background: settings.reworkedShare / 2,
    dated: historyMarkDates(index, mark, error),
    expected: (row) => (bears(row) ? [mark.id] : []),
    verdict: (row) => (bears(row) ? 'agrees' : mayBear(row) ? 'silent' : 'disagrees'),
  };
}

export function dateCodeSign(
  index: ReferenceIndex,
  id: string,
  reads: Record<string, string | number>,
  error: number,
): Sign | undefined {
  const code = index.codes.get(id);
  if (code?.kind !== 'date') return undefined;
  const read = readDateCode(code, reads);
  const windows = read.ok ? read.value.map((r) => r.window) : [];
  const all = readDateCode(code, {});
  const stamps = Math.max(2, all.ok ? all.value.length : 2);
  const dated = dateCodeDates(index, code.maker ?? undefined, windows, error, stamps);
  const elsewhere = error / stamps;
  const likelihood = filled(index, elsewhere);
  for (let r = 0; r < likelihood.length; r++) if ((dated.classOf[r] ?? -1) >= 0) likelihood[r] = 1;
  return {
    subject: { code: id },
    part: TANG,
    swap: STAMP_SWAP,
    error,
    observed: Object.values(reads).join(' '),
    cellOf: index.everyRow,
    likelihood,
    differing: filled(index, 1 / stamps),
    stranger: likelihood,
    background: 1 / stamps,
    dated,
    expected: () => windows,
    verdict: (row) => {
      const own = judged(index, row);
      if (code.maker != null && code.maker !== own.maker.id) return 'disagrees';
      if (windows.length === 0) return 'silent';
      const range = own.window;
      return dated.factors.some((f) =>
        f.some(
          (chance, i) =>
            chance > 0.5 / windows.length - error &&
            i + dated.from >= range.from &&
            i + dated.from <= range.to,
        ),
      )
        ? 'agrees'
        : 'disagrees';
    },
  };
}

/** The readings of a pattern stamp that name a pattern of the code's maker; all of them when none does. */
export function patternNumberReadings(
  index: ReferenceIndex,
  code: PatternNumberCode,
  text: string,
): { implies: readonly ImpliedFeature[]; pattern: string | undefined }[] {
  const parses = parsePatternNumber(code, text);
  const named = parses.flatMap((parse) =>
    index.contents.patterns
      .filter((p) => p.number === parse.patternNumber && (code.maker == null || p.maker === code.maker))
      .map((p) => ({ implies: parse.implies, pattern: p.id as string | undefined })),
  );
  return named.length > 0 ? named : parses.map((parse) => ({ implies: parse.implies, pattern: undefined }));
}

export function patternNumberSign(
  index: ReferenceIndex,
  code: PatternNumberCode,
  text: string,
  error: number,
  settings: BenchSettings,
): Sign {
  const readings = patternNumberReadings(index, code, text);
  const patterns = Math.max(2, index.contents.patterns.length);
  const likelihood = filled(index, error / patterns);
  const impliedChance = (row: Row, implied: ImpliedFeature): number => {
    const column = index.columns.get(implied.feature);
    if (!column) return 1;
    const n = alternatives(column);
    const set = column.sets[column.setOf[row.index] ?? -1];
    if (set)
      return (
        set.reduce<number>((sum, y) => sum + readingChance(y === implied.value, error, n), 0) / set.length
      );
    const share = backgroundShare(column, row.group, column.valueIndex.get(implied.value), settings);
    return share * (1 - error) + ((1 - share) * error) / (n - 1);
  };
  const chance = (row: Row, reading: (typeof readings)[number]) =>
    (reading.pattern === undefined || reading.pattern === row.pattern.id
      ? 1 - error
      : error / (patterns - 1)) *
    reading.implies.reduce((product, implied) => product * impliedChance(row, implied), 1);
  if (readings.length > 0)
    for (const row of index.rows) {
      const own = judged(index, row);
      if (code.maker != null && own.maker.id !== code.maker) continue;
      likelihood[row.index] = readings.reduce((sum, r) => sum + chance(own, r), 0) / readings.length;
    }
  const agrees = (row: Row) =>
    readings.some(
      (r) =>
        (r.pattern === undefined || r.pattern === row.pattern.id) &&
        r.implies.every((implied) => {
          const column = index.columns.get(implied.feature);
          const set = column?.sets[column.setOf[row.index] ?? -1];
          return !set || set.includes(implied.value);
        }),
    );
  return {
    subject: { code: code.id },
    part: TANG,
    swap: STAMP_SWAP,
    error,
    observed: text,
    cellOf: index.everyRow,
    likelihood,
    differing: filled(index, 1 / patterns),
    stranger: filled(index, (readings.some((r) => r.pattern !== undefined) ? error : 1) / patterns),
    background: 1 / patterns,
    expected: (row) => (judged(index, row).pattern.number ? [judged(index, row).pattern.number ?? ''] : []),
    verdict: (row) => {
      const own = judged(index, row);
      if (code.maker != null && own.maker.id !== code.maker) return 'disagrees';
      return readings.length === 0 ? 'silent' : agrees(own) ? 'agrees' : 'disagrees';
    },
  };
}

export interface SerialReading {
  readonly number: number;
}

/** The running number of a serial; undefined when the text does not have the code's format. */
export function readSerial(code: SerialCode, text: string): SerialReading | undefined {
  const match = new RegExp(code.format).exec(text.trim());
  const digits = match?.[code.number];
  const number = digits === undefined ? NaN : Number(digits);
  return Number.isInteger(number) ? { number } : undefined;
}

/** Whether an edition holds a number; undefined without a known run. */
export function inRun(row: Row, number: number): boolean | undefined {
  const edition = row.variant.edition;
  if (edition?.run == null) return undefined;
  const first = edition.firstNumber ?? 1;
  return number >= first && number < first + edition.run;
}

/** Numbers one could make up: what an unnumbered or unbounded variant is compared with. */
const ANY_NUMBER = 10_000;
/** How often an imitator makes a number up without regard to the run. */
const MADE_UP = 0.3;

export function serialSign(index: ReferenceIndex, code: SerialCode, text: string, error: number): Sign {
  const serial = readSerial(code, text);
  const elsewhere = error / ANY_NUMBER;
  const likelihood = filled(index, serial ? elsewhere : 1);
  const concerns = (row: Row) =>
    (code.pattern == null || judged(index, row).pattern.id === code.pattern) &&
    (code.maker == null || judged(index, row).maker.id === code.maker);
  if (serial)
    for (const row of index.rows) {
      if (!concerns(row)) continue;
      const holder = judged(index, row);
      const holds = inRun(row.variant.edition?.run == null ? holder : row, serial.number);
      const run = row.variant.edition?.run ?? holder.variant.edition?.run ?? ANY_NUMBER;
      if (holder.variant.edition == null) likelihood[row.index] = elsewhere;
      else if (holds === undefined) likelihood[row.index] = (1 - error) / ANY_NUMBER;
      else {
        // an imitator mostly copies a number of the run, and sometimes makes one up
        const made = row.imitation ? MADE_UP : 0;
        const inside = holds ? (1 - error) / run : elsewhere;
        likelihood[row.index] = (1 - made) * inside + made / ANY_NUMBER;
      }
    }
  return {
    subject: { code: code.id },
    part: TANG,
    swap: STAMP_SWAP,
    error,
    observed: text,
    cellOf: index.everyRow,
    likelihood,
    differing: filled(index, serial ? 1 / ANY_NUMBER : 1),
    stranger: filled(index, serial ? (code.pattern == null ? 1 : error) / ANY_NUMBER : 1),
    background: serial ? 1 / ANY_NUMBER : 1,
    expected: (row) => {
      const edition = row.variant.edition;
      if (edition?.run == null) return [];
      const first = edition.firstNumber ?? 1;
      return [`${first}–${first + edition.run - 1}`];
    },
    verdict: (row) => {
      if (!serial) return 'silent';
      if (!concerns(row)) return 'disagrees';
      const holds = inRun(judged(index, row), serial.number);
      return holds === undefined ? 'silent' : holds ? 'agrees' : 'disagrees';
    },
  };
}
