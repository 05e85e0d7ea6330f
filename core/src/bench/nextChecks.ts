/** What to look at next: expected information of a sure reading, I = H(X) − Σ p·H(X|v). */
import type { Code, Construction, Effort, Feature } from '../reference/index.ts';
import type { ReferenceIndex } from './compile.ts';
import type { Column, MeasureColumn, Row } from './compiled.ts';
import { tellsHistory } from './history.ts';
import type { NextCheck, Observation } from './observation.ts';
import { measureDensity } from './density.ts';
import {
  entropyOf,
  expectationsOf,
  expectedOf,
  normalised,
  type Expectations,
  type Expected,
} from './expectations.ts';
import type { Posterior } from './posterior.ts';
import { DEFAULT_EFFORT, type BenchSettings } from './settings.ts';

/** Candidates looked at; the rest of the probability is too thin to change an order. */
const MOST_ROWS = 120;
const MOST_CHECKS = 12;
/** A feature is asked for where it applies to at least this share of what is still possible. */
const APPLIES = 0.5;

interface Weighed {
  readonly row: Row | undefined;
  readonly p: number;
}

/** What a check may show: for each candidate (`of`, the last of them unlisted) the chance of each outcome. */
export interface CheckOutcomes {
  readonly check: NextCheck;
  /** variant and probability, in the order of the table's rows */
  readonly of: readonly { readonly variant: string | null; readonly probability: number }[];
  readonly table: readonly Float64Array[];
}

export const nextChecks = (
  index: ReferenceIndex,
  observations: readonly Observation[],
  posterior: Posterior,
  settings: BenchSettings,
  sealed = false,
): NextCheck[] => checkOutcomes(index, observations, posterior, settings, sealed).map((c) => c.check);

/** The most telling checks with what each may show, so that they can be ranked by something else than bits. */
export function checkOutcomes(
  index: ReferenceIndex,
  observations: readonly Observation[],
  posterior: Posterior,
  settings: BenchSettings,
  sealed: boolean,
): CheckOutcomes[] {
  const rows = posterior.ranked
    .slice(0, MOST_ROWS)
    .map((row): Weighed => ({ row, p: posterior.probability[row.index] ?? 0 }))
    .filter((w) => w.p > 1e-6);
  if (rows.length === 0) return [];
  const weighed = [...rows, { row: undefined, p: posterior.unlisted }];
  const of = weighed.map(({ row, p }) => ({ variant: row?.variant.id ?? null, probability: p }));
  const done = new Set(
    observations.flatMap((o) => {
      if ('mark' in o) return tellsHistory(index.marks.get(o.mark)) ? [] : ['mark'];
      if ('number' in o) return [];
      return ['code' in o ? `code ${o.code}` : o.feature];
    }),
  );
  const shares = new Map<Construction, number>();
  for (const { row, p } of rows)
    if (row) shares.set(row.construction, (shares.get(row.construction) ?? 0) + p);
  const listed = [...shares.values()].reduce((a, b) => a + b, 0);
  // what most of them cannot have is not asked
  const applies = (feature: Feature) =>
    feature.constructions == null ||
    feature.constructions.reduce((sum, c) => sum + (shares.get(c) ?? 0), 0) > APPLIES * listed;
  const hidden = (effort: Effort) => sealed && effort !== 'glance';
  const fakes = rows.flatMap(({ row, p }) =>
    row && row.variant.kind === 'counterfeit' && p > settings.tiers.inPlay ? [row] : [],
  );
  const tellOf = (id: string) => {
    const fake = fakes.find((row) => givenAwayBy(index, row, id));
    return fake ? { tellOf: fake.variant.id } : {};
  };
  const expectations = expectationsOf(index, settings);
  const checks: CheckOutcomes[] = [];
  const propose = (check: Omit<NextCheck, 'bits' | 'separates'>, table: readonly Expected[]) => {
    const bits = information(weighed, table);
    if (bits > 0.005)
      checks.push({
        check: { ...check, bits: Math.round(bits * 1000) / 1000, separates: separated(weighed, table) },
        of,
        table: table.map((t) => t.chances),
      });
  };
  for (const feature of index.features.values()) {
    if (done.has(feature.id) || !applies(feature) || hidden(feature.effort ?? DEFAULT_EFFORT)) continue;
    const column = index.columns.get(feature.id);
    const measures = index.measures.get(feature.id);
    const table = column
      ? categoryTable(column, weighed, expectations)
      : measures
        ? measureTable(measures, weighed, settings)
        : undefined;
    if (!table) continue;
    propose(
      {
        feature: feature.id,
        effort: feature.effort ?? DEFAULT_EFFORT,
        ask: feature.ask ?? `${feature.label}?`,
        ...tellOf(feature.id),
      },
      table,
    );
  }
  if (!done.has('mark') && index.marks.size > 0 && !sealed)
    propose(
      { mark: true, effort: 'open', ask: 'Open the main blade: which stamp stands at its foot?' },
      markTable(weighed, expectations),
    );
  for (const code of index.codes.values()) {
    if (code.kind !== 'date' || sealed || done.has(`code ${code.id}`)) continue;
    const table = dateCodeTable(code, weighed, expectations);
    if (table)
      propose({ code: code.id, effort: 'loupe', ask: `${code.title ?? code.id}: read the signs.` }, table);
  }
  return checks.sort((a, b) => b.check.bits - a.check.bits).slice(0, MOST_CHECKS);
}

/** Whether a counterfeit records something else there than what it imitates. */
function givenAwayBy(index: ReferenceIndex, fake: Row, feature: string): boolean {
  const column = index.columns.get(feature);
  const own = column?.setOf[fake.index] ?? -1;
  const original = column?.setOf[fake.judgedAs] ?? -1;
  return own >= 0 && original >= 0 && own !== original;
}

function information(weighed: readonly Weighed[], table: readonly Expected[]): number {
  const mean = new Float64Array(table[0]?.chances.length ?? 0);
  let total = 0;
  let within = 0;
  for (let i = 0; i < weighed.length; i++) {
    const p = weighed[i]?.p ?? 0;
    const expected = table[i];
    if (!expected) continue;
    const { chances } = expected;
    total += p;
    within += p * expected.entropy;
    for (let x = 0; x < mean.length; x++) mean[x] = (mean[x] ?? 0) + p * (chances[x] ?? 0);
  }
  if (total <= 0) return 0;
  for (let x = 0; x < mean.length; x++) mean[x] = (mean[x] ?? 0) / total;
  return Math.max(0, entropyOf(mean) - within / total);
}

/** The two candidates that this check would tell apart most, and those that go with them. */
function separated(weighed: readonly Weighed[], table: readonly Expected[]): string[] {
  const top = weighed.slice(0, 8);
  let best: [number, number] | undefined;
  let most = 0;
  for (let i = 0; i < top.length; i++)
    for (let j = i + 1; j < top.length; j++) {
      const [a, b] = [table[i]?.chances, table[j]?.chances];
      if (!a || !b || !top[i]?.row || !top[j]?.row) continue;
      const distance = a.reduce((sum, x, k) => sum + Math.abs(x - (b[k] ?? 0)), 0) / 2;
      const gain = distance * (top[i]?.p ?? 0) * (top[j]?.p ?? 0);
      if (gain > most) {
        most = gain;
        best = [i, j];
      }
    }
  return best ? best.flatMap((i) => (top[i]?.row ? [top[i].row.variant.id] : [])) : [];
}

function categoryTable(
  column: Column,
  weighed: readonly Weighed[],
  expectations: Expectations,
): Expected[] | undefined {
  const of = expectations.column(column);
  return of && weighed.map(({ row }) => of(row));
}

/** Sizes are told apart in steps over what the candidates span; a caliper tells no more. */
const STEPS = 160;
/** Beyond so many deviations a density is its thin even layer. */
const FAR = 6;
function measureTable(
  column: MeasureColumn,
  weighed: readonly Weighed[],
  settings: BenchSettings,
): Expected[] | undefined {
  const nominals = weighed.map(({ row }) => (row ? (column.nominal[row.index] ?? NaN) : NaN));
  const known = nominals.filter((x) => !Number.isNaN(x));
  if (known.length < 2) return undefined;
  const wear = column.feature.wear ?? 'none';
  const low = Math.min(...known) * (wear === 'shrinks' ? 0.9 : 0.97);
  const step = (Math.max(...known) * (wear === 'grows' ? 1.1 : 1.03) - low) / STEPS;
  if (!(step > 0)) return undefined;
  const gauge = settings.instrument[column.feature.unit ?? 'mm'];
  const noise = Math.sqrt(gauge ** 2 + step ** 2 / 12);
  const shapes = new Map<number, Map<number, Expected>>();
  const mean = new Float64Array(STEPS);
  const drawn = weighed.map(({ row }, i) => {
    const nominal = nominals[i] ?? NaN;
    if (Number.isNaN(nominal)) return undefined;
    const spread = row ? (column.spread[row.index] ?? 0) : 0;
    let bySpread = shapes.get(nominal);
    if (!bySpread) shapes.set(nominal, (bySpread = new Map()));
    let shape = bySpread.get(spread);
    if (!shape) {
      shape = expectedOf(normalised(shapeOf({ nominal, spread, wear, noise, low, step }, settings)));
      bySpread.set(spread, shape);
    }
    const { chances } = shape;
    for (let x = 0; x < STEPS; x++) mean[x] = (mean[x] ?? 0) + (chances[x] ?? 0);
    return shape;
  });
  const anybodys = expectedOf(normalised(mean));
  return drawn.map((shape) => shape ?? anybodys);
}

function shapeOf(
  m: {
    nominal: number;
    spread: number;
    wear: 'none' | 'shrinks' | 'grows';
    noise: number;
    low: number;
    step: number;
  },
  settings: BenchSettings,
): Float64Array {
  const { outlierShare, outlierRange, wornShare, wearMean } = settings;
  const even = outlierShare / (2 * outlierRange * m.nominal);
  const sigma = Math.sqrt(m.spread ** 2 + m.noise ** 2);
  const model = { ...m, outlierShare, outlierRange, wornShare, wearMean };
  const shape = new Float64Array(STEPS);
  for (let x = 0; x < STEPS; x++) {
    const at = m.low + (x + 0.5) * m.step;
    shape[x] = m.wear === 'none' && Math.abs(at - m.nominal) > FAR * sigma ? even : measureDensity(at, model);
  }
  return shape;
}

/** As good as impossible, of what an even choice would be. */
const MIN_SHARE = 0.02;

function markTable(weighed: readonly Weighed[], expectations: Expectations): Expected[] {
  const { index } = expectations;
  const makers = new Set(weighed.map((w) => w.row?.maker.id));
  const at = new Map<string, number>();
  for (const mark of index.marks.values())
    if (mark.maker == null || makers.has(mark.maker)) at.set(mark.id, at.size);
  const width = at.size + 1;
  const anybody = expectedOf(new Float64Array(width).fill(1 / width));
  const alike = new Map<unknown, Expected>();
  return weighed.map(({ row }) => {
    if (!row) return anybody;
    const chances = expectations.marks(row);
    let found = alike.get(chances);
    if (!found) {
      const out = new Float64Array(width).fill(MIN_SHARE / width);
      for (const [mark, chance] of chances) {
        const x = at.get(mark);
        if (x !== undefined) out[x] = chance;
      }
      alike.set(chances, (found = expectedOf(normalised(out))));
    }
    return found;
  });
}

function dateCodeTable(
  code: Code,
  weighed: readonly Weighed[],
  expectations: Expectations,
): Expected[] | undefined {
  if (code.kind !== 'date') return undefined;
  if (!weighed.some((w) => w.p > 0.01 && (code.maker == null || w.row?.maker.id === code.maker)))
    return undefined;
  const expected = expectations.dateCode(code);
  return expected && weighed.map(({ row }) => expected.of(row));
}
