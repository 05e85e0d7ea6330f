/** Observations as the engine weighs them: a likelihood for every variant, apart from the date. */
import type {
  Feature,
  FeatureReading,
  ImpliedFeature,
  PatternNumberCode,
  SerialCode,
  SwapClass,
} from '../reference/index.ts';
import { parsePatternNumber, readDateCode } from '../reference/index.ts';
import { NOT_APPLICABLE, type Column, type MeasureColumn, type ReferenceIndex, type Row } from './compile.ts';
import { customsOf, dateCodeDates, markDates, type DatedPart } from './datedSigns.ts';
import { measureDensity } from './density.ts';
import type { Certainty, Observation, Subject, Verdict } from './observation.ts';
import { DEFAULT_SWAP, STAMP_SWAP, type BenchSettings } from './settings.ts';

export interface Sign {
  readonly subject: Subject;
  readonly part: string;
  readonly swap: SwapClass;
  readonly error: number;
  readonly observed: FeatureReading;
  /** per row; 1 where the likelihood hangs on the date alone */
  readonly likelihood: Float64Array;
  /** what an undescribed relative of the row would show where it differs */
  readonly differing: Float64Array;
  /** what just any piece would show */
  readonly background: number;
  readonly dated?: DatedPart;
  expected(row: Row): FeatureReading[];
  verdict(row: Row): Verdict;
}

/** Stamps are weighed with the tang they stand in. */
export const TANG = 'tang';

/** Observations must have been checked (`checkObservations`); what says nothing (`cannot-tell`) gives no sign. */
export function signsOf(
  index: ReferenceIndex,
  observations: readonly Observation[],
  settings: BenchSettings,
): Sign[] {
  return observations.flatMap((observation) => {
    const sign = signOf(index, observation, settings);
    return sign ? [sign] : [];
  });
}

const errorOf = (certainty: Certainty | null | undefined, settings: BenchSettings) =>
  settings.misreading[certainty ?? 'sure'];

function signOf(index: ReferenceIndex, o: Observation, settings: BenchSettings): Sign | undefined {
  if ('mark' in o) return markSign(index, o.mark, errorOf(o.certainty, settings));
  if ('code' in o) {
    const code = index.codes.get(o.code);
    if (!code) return undefined;
    const error = errorOf(o.certainty, settings);
    if (code.kind === 'date') return 'reads' in o ? dateCodeSign(index, code.id, o.reads, error) : undefined;
    if (!('text' in o)) return undefined;
    return code.kind === 'pattern-number'
      ? patternNumberSign(index, code, o.text, error, settings)
      : serialSign(index, code, o.text, error);
  }
  const feature = index.features.get(o.feature);
  if (!feature) return undefined;
  if ('measure' in o) {
    const column = index.measures.get(feature.id);
    return (
      column &&
      measureSign(
        index,
        column,
        o.measure,
        o.resolution ?? settings.defaultResolution,
        errorOf(o.certainty, settings),
        settings,
      )
    );
  }
  const column = index.columns.get(feature.id);
  if ('value' in o)
    return column && valueSign(index, column, o.value, errorOf(o.certainty, settings), settings);
  if (o.state === 'cannot-tell' || !column) return undefined;
  const none = feature.values?.find((v) => v.id === 'none');
  return none
    ? valueSign(index, column, 'none', settings.misreading.sure, settings)
    : absenceSign(index, column, settings);
}

const partOf = (feature: Feature) => ({ part: feature.part, swap: feature.swap ?? DEFAULT_SWAP });

/** How many readings one could mistake the value for. */
export function alternatives(column: Column): number {
  if (column.feature.kind === 'text') return Math.max(20, column.values.length);
  return Math.max(2, column.values.length + (column.feature.kind === 'count' ? 1 : 0));
}

/** R(x|y): the chance to read x when y is there. */
export const readingChance = (same: boolean, error: number, n: number) =>
  same ? 1 - error : error / (n - 1);

/** Share of each value among a maker's pieces of one construction, mixed with everybody's. */
export function backgroundShare(
  column: Column,
  group: number,
  at: number | undefined,
  settings: BenchSettings,
): number {
  const n = alternatives(column);
  const total = column.frequencyOfAll.reduce((a, b) => a + b, 0);
  const all = ((at === undefined ? 0 : (column.frequencyOfAll[at] ?? 0)) + 1 / n) / (total + 1);
  const own = column.frequency[group];
  if (!own) return all;
  const ownTotal = own.reduce((a, b) => a + b, 0);
  const k = settings.backgroundMixing;
  return ((at === undefined ? 0 : (own[at] ?? 0)) + k * all) / (ownTotal + k);
}

function valueSign(
  index: ReferenceIndex,
  column: Column,
  value: FeatureReading,
  error: number,
  settings: BenchSettings,
): Sign {
  const n = alternatives(column);
  const at = column.valueIndex.get(value);
  const ofSet = column.sets.map(
    (set) => set.reduce<number>((sum, y) => sum + readingChance(y === value, error, n), 0) / set.length,
  );
  const mixed = (share: number) => share * (1 - error) + (1 - share) * (error / (n - 1));
  const shares = index.groups.map((_, g) => backgroundShare(column, g, at, settings));
  const dated = customsOf(index, column, value, error, n);
  const likelihood = new Float64Array(index.rows.length);
  const differing = new Float64Array(index.rows.length);
  const otherOf = column.sets.map((set) =>
    index.groups.map((_, g) => {
      const own = set.reduce<number>(
        (sum, y) => sum + backgroundShare(column, g, column.valueIndex.get(y), settings),
        0,
      );
      if (set.includes(value)) return error / (n - 1);
      return mixed(Math.min(1, (shares[g] ?? 0) / Math.max(1e-6, 1 - Math.min(own, 1 - 1e-6))));
    }),
  );
  for (const row of index.rows) {
    const set = column.setOf[row.index] ?? -1;
    const plain = mixed(shares[row.group] ?? 0);
    if (set >= 0) {
      likelihood[row.index] = ofSet[set] ?? 0;
      differing[row.index] = otherOf[set]?.[row.group] ?? plain;
    } else if (set === NOT_APPLICABLE) {
      likelihood[row.index] = error / (n - 1);
      differing[row.index] = plain;
    } else {
      likelihood[row.index] = dated && (dated.classOf[row.index] ?? -1) >= 0 ? 1 : plain;
      differing[row.index] = plain;
    }
  }
  return {
    subject: { feature: column.feature.id, value },
    ...partOf(column.feature),
    error,
    observed: value,
    likelihood,
    differing,
    background: mixed(backgroundShare(column, -1, at, settings)),
    ...(dated ? { dated } : {}),
    expected: (row) => [...(column.sets[column.setOf[row.index] ?? -1] ?? [])],
    verdict: (row) => {
      const set = column.setOf[row.index] ?? -1;
      if (set === NOT_APPLICABLE) return 'disagrees';
      const listed = column.sets[set];
      return listed ? (listed.includes(value) ? 'agrees' : 'disagrees') : 'silent';
    },
  };
}

function absenceSign(index: ReferenceIndex, column: Column, settings: BenchSettings): Sign {
  const error = settings.misreading.sure;
  const likelihood = new Float64Array(index.rows.length);
  for (const row of index.rows) {
    const set = column.setOf[row.index] ?? -1;
    likelihood[row.index] = set === NOT_APPLICABLE ? 1 - error : set >= 0 ? error : settings.absentWhenSilent;
  }
  return {
    subject: { feature: column.feature.id },
    ...partOf(column.feature),
    error,
    observed: 'not there',
    likelihood,
    differing: new Float64Array(index.rows.length).fill(settings.absentWhenSilent),
    background: settings.absentWhenSilent,
    expected: (row) => [...(column.sets[column.setOf[row.index] ?? -1] ?? [])],
    verdict: (row) => {
      const set = column.setOf[row.index] ?? -1;
      return set === NOT_APPLICABLE ? 'agrees' : set >= 0 ? 'disagrees' : 'silent';
    },
  };
}

/** A measure agrees when new or honestly worn pieces would read so: within three deviations or on the worn side. */
const AGREES_WITHIN = 3;

function measureSign(
  index: ReferenceIndex,
  column: MeasureColumn,
  measured: number,
  resolution: number,
  error: number,
  settings: BenchSettings,
): Sign {
  const unit = column.feature.unit ?? 'mm';
  const noise = Math.sqrt(settings.instrument[unit] ** 2 + resolution ** 2 / 12);
  const wear = column.feature.wear ?? 'none';
  const outlierShare = Math.max(settings.outlierShare, error);
  const even = 1 / (2 * settings.outlierRange * Math.max(measured, 1e-6));
  const likelihood = new Float64Array(index.rows.length);
  const sums = index.groups.map(() => ({ total: 0, n: 0 }));
  let total = 0;
  let n = 0;
  for (const row of index.rows) {
    const nominal = column.nominal[row.index] ?? NaN;
    if (Number.isNaN(nominal)) continue;
    const density = measureDensity(measured, {
      nominal,
      spread: column.spread[row.index] ?? 0,
      wear,
      noise,
      outlierShare,
      outlierRange: settings.outlierRange,
      wornShare: settings.wornShare,
      wearMean: settings.wearMean,
    });
    likelihood[row.index] = density;
    total += density;
    n++;
    const sum = sums[row.group];
    if (sum) {
      sum.total += density;
      sum.n++;
    }
  }
  const k = settings.backgroundMixing;
  const all = (total + even) / (n + 1);
  const background = sums.map((s) => (s.total + k * all) / (s.n + k));
  const differing = new Float64Array(index.rows.length);
  for (const row of index.rows) {
    const plain = background[row.group] ?? all;
    if (column.notApplicable[row.index]) likelihood[row.index] = error * even;
    else if (Number.isNaN(column.nominal[row.index] ?? NaN)) likelihood[row.index] = plain;
    differing[row.index] = plain;
  }
  return {
    subject: { feature: column.feature.id },
    ...partOf(column.feature),
    error,
    observed: measured,
    likelihood,
    differing,
    background: all,
    expected: (row) => {
      const nominal = column.nominal[row.index] ?? NaN;
      return Number.isNaN(nominal) ? [] : [nominal];
    },
    verdict: (row) => {
      if (column.notApplicable[row.index]) return 'disagrees';
      const nominal = column.nominal[row.index] ?? NaN;
      if (Number.isNaN(nominal)) return 'silent';
      const sigma = Math.sqrt((column.spread[row.index] ?? 0) ** 2 + noise ** 2);
      const distance = measured - nominal;
      const worn = (wear === 'shrinks' && distance < 0) || (wear === 'grows' && distance > 0);
      const reach = AGREES_WITHIN * sigma + (worn ? AGREES_WITHIN * settings.wearMean * nominal : 0);
      return Math.abs(distance) <= reach ? 'agrees' : 'disagrees';
    },
  };
}

const filled = (index: ReferenceIndex, value: number) => new Float64Array(index.rows.length).fill(value);
const judged = (index: ReferenceIndex, row: Row): Row => index.rows[row.judgedAs] ?? row;

function markSign(index: ReferenceIndex, id: string, error: number): Sign {
  const mark = index.marks.get(id);
  const place = mark?.place ?? null;
  const samePlace = (other: string) => (index.marks.get(other)?.place ?? null) === place;
  const n = Math.max(2, index.marks.size);
  const dated = markDates(index, id, error);
  const elsewhere = error / (n - 1);
  const likelihood = filled(index, elsewhere);
  for (const row of index.rows) if ((dated.classOf[row.index] ?? -1) >= 0) likelihood[row.index] = 1;
  const background = 1 / (n + 1);
  return {
    subject: { mark: id },
    part: TANG,
    swap: STAMP_SWAP,
    error,
    observed: id,
    likelihood,
    differing: filled(index, background),
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

function dateCodeSign(
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
  for (const row of index.rows) if ((dated.classOf[row.index] ?? -1) >= 0) likelihood[row.index] = 1;
  return {
    subject: { code: id },
    part: TANG,
    swap: STAMP_SWAP,
    error,
    observed: Object.values(reads).join(' '),
    likelihood,
    differing: filled(index, 1 / stamps),
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

function patternNumberSign(
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
      if (code.maker != null && own.maker.id !== code.maker) {
        likelihood[row.index] = (error / patterns) * Math.min(1, likelihoodFloor(readings.length));
        continue;
      }
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
    likelihood,
    differing: filled(index, 1 / patterns),
    background: 1 / patterns,
    expected: (row) => (judged(index, row).pattern.number ? [judged(index, row).pattern.number ?? ''] : []),
    verdict: (row) => {
      const own = judged(index, row);
      if (code.maker != null && own.maker.id !== code.maker) return 'disagrees';
      return readings.length === 0 ? 'silent' : agrees(own) ? 'agrees' : 'disagrees';
    },
  };
}

const likelihoodFloor = (readings: number) => 1 / readings;

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

function serialSign(index: ReferenceIndex, code: SerialCode, text: string, error: number): Sign {
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
      // an imitator picks numbers without knowing the run
      else likelihood[row.index] = holds ? (1 - error) / run : row.imitation ? 0.2 / ANY_NUMBER : elsewhere;
    }
  return {
    subject: { code: code.id },
    part: TANG,
    swap: STAMP_SWAP,
    error,
    observed: text,
    likelihood,
    differing: filled(index, serial ? 1 / ANY_NUMBER : 1),
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
