/**
 * Lays a reference out for the engine. Built once per reference revision, immutable, shared by all requests.
 */
import { calendarOf, hullOf, periodOf, type Day, type Span } from '../dates/index.ts';
import {
  NOT_APPLICABLE,
  SILENT,
  type Column,
  type CompiledReference,
  type DayHulls,
  type MadeOver,
  type MeasureColumn,
  type Row,
} from './compiled.ts';
import { frequencyOf, NO_ENCOUNTERS, type Encounters, type Frequency } from './frequency.ts';
import { monthOf, monthsOf, OLDEST, yearsIn, type Month, type MonthRange } from './months.ts';
import { surviving, yearlyRates } from './quantities.ts';
import { BENCH_SETTINGS, type BenchSettings } from './settings.ts';
import {
  quantityMade,
  type Construction,
  type DatedWindow,
  type Feature,
  type FeatureReading,
  type Maker,
  type PackContents,
  type Pattern,
  type Variant,
} from '../reference/index.ts';

export interface ReferenceIndex extends CompiledReference {
  /** how often each row comes to a bench */
  readonly frequency: Frequency;
}

const byId = <T extends { id: string }>(items: readonly T[]) => new Map(items.map((item) => [item.id, item]));

/**
 * @param today the day at which open windows end; nothing is made later
 * @throws when the contents were not checked: a variant without its pattern is a fault of the program
 */
export function compileReference(
  contents: PackContents,
  revision: string,
  today: Day,
  settings: BenchSettings = BENCH_SETTINGS,
): ReferenceIndex {
  const steps = compiling(contents, revision, today, settings);
  for (;;) {
    const step = steps.next();
    if (step.done) return step.value;
  }
}

/** The same in steps of some milliseconds, so that a server can answer in between. */
export function* compiling(
  contents: PackContents,
  revision: string,
  today: Day,
  settings: BenchSettings = BENCH_SETTINGS,
): Generator<undefined, ReferenceIndex> {
  const makers = byId(contents.makers);
  const patterns = byId(contents.patterns);
  const features = byId(contents.features);
  const rowOf = new Map(contents.variants.map((v, i) => [v.id, i]));
  const groupIndex = new Map<string, number>();
  const groupRows: { maker: string; construction: Construction; rows: number[] }[] = [];

  const calendarToday = calendarOf(today);
  const now = monthOf(calendarToday.year, calendarToday.month);
  const spans = contents.variants.map((v) => windowOf(v, patterns, makers, now));
  yield;
  const rates = yearlyRates(
    contents.variants,
    spans,
    (v) => patterns.get(v.pattern)?.maker ?? '',
    settings.quantityExponent,
  );
  const rows = contents.variants.map((variant, index): Row => {
    const pattern = mustHave(patterns, variant.pattern, 'pattern');
    const maker = mustHave(makers, pattern.maker, 'maker');
    const key = `${maker.id}|${pattern.construction}`;
    let group = groupIndex.get(key);
    if (group === undefined) {
      group = groupRows.length;
      groupIndex.set(key, group);
      groupRows.push({ maker: maker.id, construction: pattern.construction, rows: [] });
    }
    groupRows[group]?.rows.push(index);
    const imitation = variant.kind === 'counterfeit' || variant.kind === 'reproduction';
    const original = imitation && variant.twinOf != null ? rowOf.get(variant.twinOf) : undefined;
    const span = spans[index] ?? { from: OLDEST, to: now };
    return {
      index,
      variant,
      pattern,
      maker,
      construction: pattern.construction,
      group,
      judgedAs: original ?? index,
      imitation,
      madeOver: madeOver(variant, span, now),
      window: span,
      left: (quantityMade(variant) ?? rates(variant) * yearsIn(span)) * surviving(span, now),
    };
  });

  yield;
  const makerNumber = new Map(contents.makers.map((m, i) => [m.id, i]));
  const patternNumber = new Map(contents.patterns.map((p, i) => [p.id, i]));
  const windowsByFeature = new Map<string, DatedWindow[]>();
  for (const window of contents.windows) {
    const list = windowsByFeature.get(window.feature);
    if (list) list.push(window);
    else windowsByFeature.set(window.feature, [window]);
  }
  const ordered = inOrderOfMaking(rows);
  const columns = new Map<string, Column>();
  const measures = new Map<string, MeasureColumn>();
  for (const feature of contents.features) {
    if (feature.kind === 'measure') measures.set(feature.id, measureColumn(feature, rows));
    else
      columns.set(
        feature.id,
        column(feature, rows, ordered, groupRows.length, windowsByFeature.get(feature.id) ?? []),
      );
    yield;
  }
  const calendar = calendarOfRows(rows);
  const pieces = rows.flatMap((row) => row.madeOver);
  const madeAt = new Int32Array(rows.length + 1);
  rows.forEach((row, i) => (madeAt[i + 1] = (madeAt[i] ?? 0) + row.madeOver.length));
  const constructions = [...new Set(groupRows.map((g) => g.construction))];
  const constructionOf = Int32Array.from(groupRows, (g) => constructions.indexOf(g.construction));
  const constructionSize = new Float64Array(constructions.length);
  groupRows.forEach((g, i) => {
    const at = constructionOf[i] ?? 0;
    constructionSize[at] = (constructionSize[at] ?? 0) + g.rows.length;
  });
  const index: CompiledReference = {
    revision,
    today: now,
    lastDay: today,
    contents,
    sources: byId(contents.sources),
    makers,
    features,
    patterns,
    codes: byId(contents.codes),
    marks: byId(contents.marks),
    variants: new Map(rows.map((row) => [row.variant.id, row])),
    rows,
    groups: groupRows,
    groupOf: Int32Array.from(rows, (row) => row.group),
    makerNumber,
    bearerMaker: Int32Array.from(rows, (row) => makerNumber.get((rows[row.judgedAs] ?? row).maker.id) ?? -3),
    columns,
    measures,
    windowsByFeature,
    calendar,
    makerOf: Int32Array.from(rows, (row) => makerNumber.get(row.maker.id) ?? -3),
    patternOf: Int32Array.from(rows, (row) => patternNumber.get(row.pattern.id) ?? -1),
    windowHull: windowHulls(rows, today),
    everyRow: Int32Array.from(rows, (row) => row.index),
    judgedAs: Int32Array.from(rows, (row) => row.judgedAs),
    leftOf: Float64Array.from(rows, (row) => Math.max(row.left, 1e-9)),
    counterfeit: Uint8Array.from(rows, (row) => (row.variant.kind === 'counterfeit' ? 1 : 0)),
    imitation: Uint8Array.from(rows, (row) => (row.imitation ? 1 : 0)),
    groupSize: Float64Array.from(groupRows, (g) => g.rows.length),
    constructionOf,
    constructionSize,
    madeAt,
    madeFrom: Int32Array.from(pieces, (p) => p.months.from - calendar.from),
    madeTo: Int32Array.from(pieces, (p) => p.months.to - calendar.from),
    madeShare: Float64Array.from(pieces, (p) => p.share),
  };
  return withEncounters(index, NO_ENCOUNTERS, settings);
}

/**
 * The same reference with what the shop has met since: counted again without compiling again. What was worked out of
 * its rows is kept by them, and so is shared.
 */
export const withEncounters = (
  index: CompiledReference,
  encounters: Encounters,
  settings: BenchSettings = BENCH_SETTINGS,
): ReferenceIndex => ({ ...index, frequency: frequencyOf(index, encounters, settings) });

function windowHulls(rows: readonly Row[], today: Day): CompiledReference['windowHull'] {
  const empty = (): DayHulls => ({
    from: new Float64Array(rows.length).fill(NaN),
    to: new Float64Array(rows.length).fill(NaN),
  });
  const hulls = { strict: empty(), lenient: empty() };
  for (const row of rows) {
    const window = row.variant.window ?? row.maker.active;
    if (window == null) continue;
    const period = periodOf(window);
    for (const reading of ['strict', 'lenient'] as const) {
      const hull = hullOf(period[reading]);
      hulls[reading].from[row.index] = hull?.from ?? Infinity;
      hulls[reading].to[row.index] = hull ? Math.max(hull.from, Math.min(hull.to, today)) : -Infinity;
    }
  }
  return hulls;
}

function calendarOfRows(rows: readonly Row[]): { from: Month; length: number } {
  let from = Infinity;
  let to = -Infinity;
  for (const row of rows)
    for (const piece of row.madeOver) {
      from = Math.min(from, piece.months.from);
      to = Math.max(to, piece.months.to);
    }
  return Number.isFinite(from) ? { from, length: to - from + 1 } : { from: OLDEST, length: 1 };
}

function mustHave<T>(map: ReadonlyMap<string, T>, id: string, what: string): T {
  const found = map.get(id);
  if (found === undefined) throw new Error(`unchecked reference: no ${what} ${id}`);
  return found;
}

/** A variant's own window; else its maker's years; else all of the calendar. Nothing lies after today. */
function windowOf(
  variant: Variant,
  patterns: ReadonlyMap<string, Pattern>,
  makers: ReadonlyMap<string, Maker>,
  today: Month,
): MonthRange {
  const active = makers.get(patterns.get(variant.pattern)?.maker ?? '')?.active;
  const upToNow = ({ from, to }: MonthRange) => ({ from, to: Math.max(from, Math.min(to, today)) });
  const bounds = upToNow(active == null ? { from: OLDEST, to: today } : monthsOf(wholeOf(active)));
  if (variant.window == null) return bounds;
  const own = periodOf(variant.window);
  const from = Number.isFinite(own.start.earliest) ? monthsOf(wholeOf(variant.window)).from : bounds.from;
  const to = Number.isFinite(own.end.latest)
    ? monthsOf(wholeOf(variant.window)).to
    : Math.max(from, bounds.to);
  return upToNow({ from, to });
}

function wholeOf(edtf: string): Span {
  const hull = hullOf(periodOf(edtf).strict);
  if (!hull) throw new Error(`empty period ${edtf}`);
  return hull;
}

function madeOver(variant: Variant, span: MonthRange, today: Month): MadeOver {
  const byYear = Object.entries(variant.made?.byYear ?? {}).filter(([, n]) => n > 0);
  const total = byYear.reduce((sum, [, n]) => sum + n, 0);
  const pieces = byYear.flatMap(([year, n]) => {
    const from = Math.max(monthOf(Number(year), 1), span.from);
    const to = Math.min(monthOf(Number(year), 12), span.to);
    return from <= to ? [{ months: { from, to }, share: n / total }] : [];
  });
  const kept = pieces.reduce((sum, p) => sum + p.share, 0);
  if (kept > 0) return pieces.map((p) => ({ ...p, share: p.share / kept }));
  const lenient = variant.window == null ? undefined : hullOf(periodOf(variant.window).lenient);
  const soft =
    lenient && Number.isFinite(lenient.from) && Number.isFinite(lenient.to) ? monthsOf(lenient) : span;
  if (soft.from >= span.from && soft.to <= span.to) return [{ months: span, share: 1 }];
  return [
    { months: span, share: 0.8 },
    {
      months: { from: Math.min(soft.from, span.from), to: Math.max(span.to, Math.min(soft.to, today)) },
      share: 0.2,
    },
  ];
}

const applies = (feature: Feature, construction: Construction) =>
  feature.constructions == null || feature.constructions.includes(construction);

const inOrderOfMaking = (rows: readonly Row[]): Row[] =>
  [...rows].sort((a, b) => a.window.from - b.window.from || a.index - b.index);

const sumOf = (numbers: Float64Array): number => numbers.reduce((a, b) => a + b, 0);

/**
 * What a form shows of a feature: what it records; else the varieties its pattern or its maker is said to have side by
 * side, unless dated customs speak for it.
 */
function shownBy(
  row: Row,
  feature: Feature,
  windows: readonly DatedWindow[],
): readonly FeatureReading[] | undefined {
  const own = row.variant.features?.[feature.id];
  if (own && own.length > 0) return own;
  const inherited = row.pattern.features?.[feature.id] ?? row.maker.features?.[feature.id];
  if (!inherited || inherited.length === 0 || !applies(feature, row.construction)) return undefined;
  const dated = windows.some(
    (w) =>
      (w.pattern == null || w.pattern === row.pattern.id) && (w.maker == null || w.maker === row.maker.id),
  );
  return dated ? undefined : inherited;
}

function column(
  feature: Feature,
  rows: readonly Row[],
  ordered: readonly Row[],
  groups: number,
  windows: readonly DatedWindow[],
): Column {
  const setOf = new Int32Array(rows.length).fill(SILENT);
  const sets: FeatureReading[][] = [];
  const setIndex = new Map<string, number>();
  const values: FeatureReading[] = (feature.values ?? []).map((v) => v.id);
  const valueIndex = new Map<FeatureReading, number>(values.map((v, i) => [v, i]));
  for (const row of rows) {
    const listed = shownBy(row, feature, windows);
    if (listed) {
      const key = JSON.stringify(listed);
      let index = setIndex.get(key);
      if (index === undefined) {
        index = sets.length;
        sets.push([...listed]);
        setIndex.set(key, index);
        for (const value of listed)
          if (!valueIndex.has(value)) {
            valueIndex.set(value, values.length);
            values.push(value);
          }
      }
      setOf[row.index] = index;
    } else if (!applies(feature, row.construction)) setOf[row.index] = NOT_APPLICABLE;
  }
  const frequency = Array.from({ length: groups }, () => new Float64Array(values.length));
  const frequencyOfAll = new Float64Array(values.length);
  // a succession that keeps a value is one choice of it: only the first form and the changes count
  const before = new Map<string, number>();
  for (const row of ordered) {
    const at = setOf[row.index] ?? SILENT;
    if (at < 0 || before.get(row.pattern.id) === at) continue;
    before.set(row.pattern.id, at);
    const set = sets[at];
    for (const value of set ?? []) {
      const at = valueIndex.get(value) ?? 0;
      const own = frequency[row.group];
      if (own) own[at] = (own[at] ?? 0) + 1 / (set?.length ?? 1);
      frequencyOfAll[at] = (frequencyOfAll[at] ?? 0) + 1 / (set?.length ?? 1);
    }
  }
  return {
    feature,
    sets,
    setOf,
    values,
    valueIndex,
    frequency,
    frequencyOfAll,
    chosenIn: Float64Array.from(frequency, sumOf),
    chosenInAll: sumOf(frequencyOfAll),
  };
}

/** A nominal measure without a tolerance is taken to hold within one percent. */
const DEFAULT_TOLERANCE = 0.01;

function measureColumn(feature: Feature, rows: readonly Row[]): MeasureColumn {
  const nominal = new Float64Array(rows.length).fill(NaN);
  const spread = new Float64Array(rows.length);
  const notApplicable = new Uint8Array(rows.length);
  for (const row of rows) {
    const measure = row.variant.measures?.[feature.id] ?? row.pattern.measures?.[feature.id];
    if (measure) {
      nominal[row.index] = measure.value;
      spread[row.index] = (measure.tolerance ?? DEFAULT_TOLERANCE * measure.value) / 2;
    } else if (!applies(feature, row.construction)) notApplicable[row.index] = 1;
  }
  return { feature, nominal, spread, notApplicable };
}
