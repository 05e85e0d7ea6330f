/** Stamps as signs: marks, date codes, pattern numbers, serials. */
import {
  impliedValues,
  otherArrangements,
  parsePatternNumber,
  readDateCode,
  readSerial,
  type ImpliedFeature,
  type PatternNumberCode,
  type PatternNumberParse,
  type SerialCode,
} from '../reference/index.ts';
import type { ReferenceIndex } from './compile.ts';
import type { Row } from './compiled.ts';
import {
  dateCodeDates,
  INVENTED,
  historyMarkDates,
  judged,
  markDates,
  markFactor,
  standsAt,
  windowHold,
} from './datedEvidence.ts';
import type { HistoryMark } from './history.ts';
import { meanOver } from './overMonths.ts';
import { STAMP_SWAP, type BenchSettings } from './settings.ts';
import {
  alternatives,
  backgroundShare,
  readingProbability,
  TANG,
  type ObservationEvidence,
} from './observationEvidence.ts';

const filled = (index: ReferenceIndex, value: number) => new Float64Array(index.rows.length).fill(value);

const alike = (index: ReferenceIndex, value: number) => ({
  perGroup: new Float64Array(index.groups.length).fill(value),
});

/** Whether an imitation bears a stamp of its own making. */
const listsItself = (row: Row, mark: string) => row.imitation && (row.variant.marks ?? []).includes(mark);

export function markEvidence(index: ReferenceIndex, id: string, error: number): ObservationEvidence {
  const mark = index.marks.get(id);
  const place = mark?.place ?? null;
  const samePlace = (other: string) => standsAt(index, other, place);
  const n = Math.max(2, index.marks.size);
  const dated = markDates(index, id, error);
  const likelihood = filled(index, error / (n - 1));
  for (let r = 0; r < likelihood.length; r++) if ((dated.classOf[r] ?? -1) >= 0) likelihood[r] = 1;
  // a stamp that an imitation lists as its own is read as its own, in its own months
  for (const row of index.rows)
    if (mark && listsItself(row, id)) {
      const own = (row.variant.marks ?? []).filter(samePlace);
      const factor = markFactor(index, mark, own, row.maker.id, error);
      if (factor) likelihood[row.index] = meanOver(index, row, factor);
      dated.classOf[row.index] = -1;
    }
  const listed = (row: Row) =>
    ((listsItself(row, id) ? row : judged(index, row)).variant.marks ?? []).filter(samePlace);
  const background = 1 / (n + 1);
  return {
    subject: { mark: id },
    part: TANG,
    swap: STAMP_SWAP,
    error,
    observed: id,
    cellOf: index.everyRow,
    likelihood,
    relative: likelihood,
    stranger: { perCell: likelihood },
    background,
    dated,
    expected: listed,
    verdict: (row) => {
      const borne = listed(row);
      if (borne.includes(id)) return 'agrees';
      if (borne.length > 0) return 'disagrees';
      return mark?.maker == null || mark.maker === judged(index, row).maker.id ? 'silent' : 'disagrees';
    },
  };
}

/**
 * A stamp struck on a finished piece: it was made before the stamp went out of use. A variant that bears it by
 * making (a conversion) is expected to; any other of the maker's may have come back.
 */
export function historyMarkEvidence(
  index: ReferenceIndex,
  mark: HistoryMark,
  error: number,
  settings: BenchSettings,
): ObservationEvidence {
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
    relative: likelihood,
    stranger: { perCell: likelihood.map((l) => l / 2) },
    background: settings.reworkedShare / 2,
    dated: historyMarkDates(index, mark, error),
    expected: (row) => (bears(row) ? [mark.id] : []),
    verdict: (row) => (bears(row) ? 'agrees' : mayBear(row) ? 'silent' : 'disagrees'),
  };
}

/** Windows of a code that are laid over the calendar; a serial with more of them covers every month anyway. */
const MOST_WINDOWS = 400;

export function dateCodeEvidence(
  index: ReferenceIndex,
  id: string,
  reads: Record<string, string | number>,
  error: number,
  settings: BenchSettings,
): ObservationEvidence | undefined {
  const code = index.codes.get(id);
  if (code?.kind !== 'date') return undefined;
  const read = readDateCode(code, reads);
  const windows = read.ok ? read.value.map((r) => r.window) : [];
  const all = readDateCode(code, {});
  const stamps = Math.max(2, all.ok ? all.value.length : 2);
  const arrangements = otherArrangements(code, reads).flatMap((other) => {
    const instead = readDateCode(code, other);
    return instead.ok && instead.value.length > 0 ? [instead.value.map((r) => r.window)] : [];
  });
  const dated = dateCodeDates(index, code.maker ?? undefined, {
    windows,
    error,
    all: stamps,
    arrangements,
    mistaken: settings.mistakenArrangement,
    covered: all.ok ? [...new Set(all.value.map((r) => r.window))].slice(0, MOST_WINDOWS) : [],
  });
  const holds = windows.map((window) => windowHold(index, window));
  const elsewhere = (INVENTED * error) / stamps;
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
    relative: likelihood,
    stranger: { perCell: likelihood },
    background: 1 / stamps,
    dated,
    expected: () => windows,
    verdict: (row) => {
      const own = judged(index, row);
      if (code.maker != null && code.maker !== own.maker.id) return 'disagrees';
      if (windows.length === 0) return 'silent';
      const { from } = index.calendar;
      return holds.some((hold) =>
        hold.slice(Math.max(0, own.window.from - from), own.window.to - from + 1).some((h) => h > 0),
      )
        ? 'agrees'
        : 'disagrees';
    },
  };
}

export interface NumberReading {
  readonly implies: readonly ImpliedFeature[];
  readonly pattern: string | undefined;
  /** the pattern's digits as stamped */
  readonly number: string | undefined;
}
export interface NumberReadings {
  readonly readings: readonly NumberReading[];
  /** of a stamp that is not used up: what its beginning says, and the rest as it stands */
  readonly partly: (NumberReading & { readonly unread: string }) | undefined;
}

/** The readings of a pattern stamp that name a pattern of the code's maker; all of them when none does. */
export function patternNumberReadings(
  index: ReferenceIndex,
  code: PatternNumberCode,
  text: string,
): NumberReadings {
  const patternsOf = (number: string | undefined) =>
    index.contents.patterns.filter(
      (p) => p.number != null && p.number === number && (code.maker == null || p.maker === code.maker),
    );
  const { parses, partly } = parsePatternNumber(code, text, (number) => patternsOf(number).length > 0);
  const named = parses.flatMap((parse) =>
    patternsOf(parse.patternNumber).map((p): NumberReading => ({
      implies: parse.implies,
      pattern: p.id,
      number: parse.patternNumber,
    })),
  );
  const unnamed = (parse: PatternNumberParse): NumberReading => ({
    implies: parse.implies,
    pattern: undefined,
    number: parse.patternNumber,
  });
  return {
    readings: named.length > 0 ? named : parses.map(unnamed),
    partly: partly && {
      ...unnamed(partly),
      pattern: patternsOf(partly.patternNumber)[0]?.id,
      unread: partly.unread,
    },
  };
}

/**
 * What a piece of something undescribed shows of a stamp that names something described: only what was misread or
 * struck by chance, so as rare as the stamp is among what is described.
 */
function misreadOfListed(index: ReferenceIndex, likelihood: Float64Array, error: number): number {
  const { weight } = index.frequency;
  let sum = 0;
  let all = 0;
  for (let r = 0; r < likelihood.length; r++) {
    if (index.counterfeit[r]) continue;
    sum += (weight[r] ?? 0) * (likelihood[r] ?? 0);
    all += weight[r] ?? 0;
  }
  return Math.max((error * sum) / (all || 1), 1e-12);
}

export function patternNumberEvidence(
  index: ReferenceIndex,
  code: PatternNumberCode,
  text: string,
  certain: number,
  settings: BenchSettings,
): ObservationEvidence | undefined {
  const read = patternNumberReadings(index, code, text);
  const readings = read.readings.length > 0 ? read.readings : read.partly ? [read.partly] : [];
  // nothing could be read: an answer to the eye, none to the engine
  if (readings.length === 0) return undefined;
  const error = read.readings.length > 0 ? certain : Math.max(certain, settings.misreading.likely);
  const patterns = Math.max(2, index.contents.patterns.length);
  const likelihood = filled(index, (INVENTED * error) / patterns);
  const impliedChance = (row: Row, implied: ImpliedFeature): number => {
    const column = index.columns.get(implied.feature);
    if (!column) return 1;
    const n = alternatives(column);
    const said = impliedValues(implied);
    const set = column.sets[column.setOf[row.index] ?? -1];
    if (set)
      return (
        set.reduce<number>((sum, y) => sum + readingProbability(said.includes(y), error, n), 0) / set.length
      );
    const share = said.reduce<number>(
      (sum, y) => sum + backgroundShare(column, row.group, column.valueIndex.get(y), settings),
      0,
    );
    return Math.min(1, share) * (1 - error) + ((1 - Math.min(1, share)) * error) / (n - 1);
  };
  /** whether the digits could be those of the row's pattern */
  const bears = (row: Row, reading: NumberReading) =>
    reading.pattern === undefined
      ? reading.number === undefined || row.pattern.number == null
      : reading.pattern === row.pattern.id;
  const chance = (row: Row, reading: NumberReading) =>
    (bears(row, reading) ? 1 - error : error / (patterns - 1)) *
    reading.implies.reduce((product, implied) => product * impliedChance(row, implied), 1);
  for (const row of index.rows) {
    const own = judged(index, row);
    if (code.maker != null && own.maker.id !== code.maker) continue;
    likelihood[row.index] = readings.reduce((sum, r) => sum + chance(own, r), 0) / readings.length;
  }
  const agrees = (row: Row) =>
    readings.some(
      (r) =>
        bears(row, r) &&
        r.implies.every((implied) => {
          const column = index.columns.get(implied.feature);
          const set = column?.sets[column.setOf[row.index] ?? -1];
          return !set || impliedValues(implied).some((value) => set.includes(value));
        }),
    );
  // digits that no described pattern bears are those of one that nobody described
  const described = readings.every((r) => r.pattern !== undefined || r.number === undefined);
  const elsewhere = described ? misreadOfListed(index, likelihood, error) : 1 / patterns;
  return {
    subject: { code: code.id },
    part: TANG,
    swap: STAMP_SWAP,
    error,
    observed: text,
    cellOf: index.everyRow,
    likelihood,
    relative: likelihood,
    stranger: alike(index, elsewhere),
    background: elsewhere,
    expected: (row) => (judged(index, row).pattern.number ? [judged(index, row).pattern.number ?? ''] : []),
    verdict: (row) => {
      const own = judged(index, row);
      if (code.maker != null && code.maker !== own.maker.id) return 'disagrees';
      return agrees(own) ? 'agrees' : 'disagrees';
    },
  };
}

/** The runs a variant's numbers may come from: its shares where the run is split, else the run. */
function runsOf(row: Row): { first: number; run: number }[] {
  const edition = row.variant.edition;
  const first = edition?.firstNumber ?? 1;
  const split = (edition?.split ?? []).map((s) => ({ first: s.firstNumber ?? 1, run: s.run }));
  if (edition?.run != null && !split.some((s) => s.first !== 1)) return [{ first, run: edition.run }];
  if (split.length > 0) return split;
  return edition?.run == null ? [] : [{ first, run: edition.run }];
}

/** Whether an edition holds a number; undefined without a known run. */
export function inRun(row: Row, number: number): boolean | undefined {
  const runs = runsOf(row);
  if (runs.length === 0) return undefined;
  return runs.some(({ first, run }) => number >= first && number < first + run);
}

/** Sizes of run that may stand beside a number of the variant: the whole run and its shares. */
export const toldRuns = (row: Row): number[] => {
  const edition = row.variant.edition;
  return [
    ...(edition?.run == null ? [] : [edition.run]),
    ...(edition?.split ?? []).map((share) => share.run),
  ];
};

/** Numbers one could make up: what an unnumbered or unbounded variant is compared with. */
const ANY_NUMBER = 10_000;
/** How often an imitator makes a number up without regard to the run. */
const MADE_UP = 0.3;

/**
 * A number inside a run is evidence for that run, 1/run against one of any number, never against it; one outside every
 * run lowers all of them. The size of a run that is told beside it must be one the edition has.
 */
export function serialEvidence(
  index: ReferenceIndex,
  code: SerialCode,
  text: string,
  error: number,
): ObservationEvidence | undefined {
  const serial = readSerial(code, text);
  // a text that is no number of this code: an answer to the eye, none to the engine
  if (!serial) return undefined;
  const elsewhere = error / ANY_NUMBER;
  const likelihood = filled(index, INVENTED * elsewhere);
  const concerns = (row: Row) =>
    (code.pattern == null || judged(index, row).pattern.id === code.pattern) &&
    (code.maker == null || judged(index, row).maker.id === code.maker);
  /** the variant whose run counts: an imitation's own where it has one, else that of what it imitates */
  const numbered = (row: Row) => (toldRuns(row).length > 0 ? row : judged(index, row));
  const sizeAgrees = (row: Row) => serial.run === undefined || toldRuns(row).includes(serial.run);
  // where no edition is recorded at all, a number is against nobody
  const recorded = index.rows.some((row) => concerns(row) && row.variant.edition != null);
  for (const row of index.rows) {
    if (!concerns(row)) continue;
    const of = numbered(row);
    if (of.variant.edition == null) {
      if (!recorded) likelihood[row.index] = (1 - error) / ANY_NUMBER;
      continue;
    }
    const holds = inRun(of, serial.number);
    if (holds === undefined) likelihood[row.index] = (1 - error) / ANY_NUMBER;
    else {
      // an imitator mostly copies a number of the run, and sometimes makes one up
      const made = row.imitation ? MADE_UP : 0;
      const run = Math.min(
        ANY_NUMBER,
        runsOf(of).reduce((sum, r) => sum + r.run, 0),
      );
      const inside = holds && sizeAgrees(of) ? (1 - error) / run : elsewhere;
      likelihood[row.index] = (1 - made) * inside + made / ANY_NUMBER;
    }
  }
  const inSome = index.rows.some(
    (row) => concerns(row) && !row.imitation && inRun(row, serial.number) === true && sizeAgrees(row),
  );
  const undescribed = inSome ? misreadOfListed(index, likelihood, error) : 1 / ANY_NUMBER;
  return {
    subject: { code: code.id },
    part: TANG,
    swap: STAMP_SWAP,
    error,
    observed: text,
    cellOf: index.everyRow,
    likelihood,
    relative: likelihood,
    stranger: alike(index, code.pattern == null ? undescribed : Math.min(undescribed, elsewhere)),
    background: undescribed,
    expected: (row) => runsOf(row).map(({ first, run }) => `${first}–${first + run - 1}`),
    verdict: (row) => {
      if (!concerns(row)) return 'disagrees';
      const of = numbered(row);
      const holds = inRun(of, serial.number);
      if (holds === undefined) return recorded && of.variant.edition == null ? 'disagrees' : 'silent';
      return holds && sizeAgrees(of) ? 'agrees' : 'disagrees';
    },
  };
}
