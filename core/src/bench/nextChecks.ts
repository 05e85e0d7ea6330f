/** What to look at next: expected information of a sure reading, I = H(X) − Σ p·H(X|v). */
import { readDateCode } from '../reference/index.ts';
import { NOT_APPLICABLE, type Column, type MeasureColumn, type ReferenceIndex, type Row } from './compile.ts';
import { dateCodeDates, markDates } from './datedSigns.ts';
import { tellsHistory } from './history.ts';
import type { NextCheck, Observation } from './observation.ts';
import { customsSpoken } from './customs.ts';
import { measureDensity } from './density.ts';
import { overItsMonths, prefixOf, type Posterior } from './posterior.ts';
import { DEFAULT_EFFORT, DEFAULT_SWAP, type BenchSettings } from './settings.ts';
import { alternatives, backgroundShare } from './sign.ts';

/** Candidates looked at; the rest of the probability is too thin to change an order. */
const MOST_ROWS = 120;
const MOST_CHECKS = 12;

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
): NextCheck[] => checkOutcomes(index, observations, posterior, settings).map((c) => c.check);

/** The most telling checks with what each may show, so that they can be ranked by something else than bits. */
export function checkOutcomes(
  index: ReferenceIndex,
  observations: readonly Observation[],
  posterior: Posterior,
  settings: BenchSettings,
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
  const constructions = new Set(rows.filter((w) => w.p > 0.01).map((w) => w.row?.construction));
  const checks: CheckOutcomes[] = [];
  const propose = (check: Omit<NextCheck, 'bits' | 'separates'>, table: readonly Float64Array[]) => {
    const bits = information(weighed, table);
    if (bits > 0.005)
      checks.push({
        check: { ...check, bits: Math.round(bits * 1000) / 1000, separates: separated(weighed, table) },
        of,
        table,
      });
  };
  for (const feature of index.features.values()) {
    if (done.has(feature.id)) continue;
    if (feature.constructions && !feature.constructions.some((c) => constructions.has(c))) continue;
    const column = index.columns.get(feature.id);
    const measures = index.measures.get(feature.id);
    const table = column
      ? categoryTable(index, column, weighed, settings)
      : measures
        ? measureTable(measures, weighed, settings)
        : undefined;
    if (!table) continue;
    propose(
      {
        feature: feature.id,
        effort: feature.effort ?? DEFAULT_EFFORT,
        ask: feature.ask ?? `${feature.label}?`,
      },
      table,
    );
  }
  if (!done.has('mark') && index.marks.size > 0)
    propose(
      { mark: true, effort: 'open', ask: 'Open the main blade: which stamp stands at its foot?' },
      markTable(index, weighed, settings),
    );
  for (const code of index.codes.values()) {
    if (code.kind !== 'date' || done.has(`code ${code.id}`)) continue;
    const table = dateCodeTable(index, code.id, weighed, settings);
    if (table)
      propose({ code: code.id, effort: 'loupe', ask: `${code.title ?? code.id}: read the signs.` }, table);
  }
  return checks.sort((a, b) => b.check.bits - a.check.bits).slice(0, MOST_CHECKS);
}

const entropy = (distribution: Float64Array): number => {
  let h = 0;
  for (const p of distribution) if (p > 0) h -= p * Math.log2(p);
  return h;
};

function information(weighed: readonly Weighed[], table: readonly Float64Array[]): number {
  const width = table[0]?.length ?? 0;
  const mean = new Float64Array(width);
  let total = 0;
  let within = 0;
  weighed.forEach(({ p }, i) => {
    const row = table[i];
    if (!row) return;
    total += p;
    within += p * entropy(row);
    for (let x = 0; x < width; x++) mean[x] = (mean[x] ?? 0) + p * (row[x] ?? 0);
  });
  if (total <= 0) return 0;
  for (let x = 0; x < width; x++) mean[x] = (mean[x] ?? 0) / total;
  return Math.max(0, entropy(mean) - within / total);
}

/** The two candidates that this check would tell apart most, and those that go with them. */
function separated(weighed: readonly Weighed[], table: readonly Float64Array[]): string[] {
  const top = weighed.slice(0, 8);
  let best: [number, number] | undefined;
  let most = 0;
  for (let i = 0; i < top.length; i++)
    for (let j = i + 1; j < top.length; j++) {
      const [a, b] = [table[i], table[j]];
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

const normalised = (row: Float64Array): Float64Array => {
  const total = row.reduce((a, b) => a + b, 0);
  return total > 0 ? row.map((x) => x / total) : row.fill(1 / row.length);
};

function categoryTable(
  index: ReferenceIndex,
  column: Column,
  weighed: readonly Weighed[],
  settings: BenchSettings,
): Float64Array[] | undefined {
  const values = column.values.length;
  if (values < 1) return undefined;
  const n = alternatives(column);
  const e = settings.misreading.sure;
  const s = settings.exchange[column.feature.swap ?? DEFAULT_SWAP];
  const shares = new Map<number, Float64Array>();
  const sharesOf = (group: number) => {
    let known = shares.get(group);
    if (!known) {
      known = Float64Array.from({ length: values }, (_, i) => backgroundShare(column, group, i, settings));
      shares.set(group, known);
    }
    return known;
  };
  const spoken = customsSpoken(index, column);
  // the last cell is "not there"
  return weighed.map(({ row }) => {
    const background = sharesOf(row?.group ?? -1);
    const set = row ? column.sets[column.setOf[row.index] ?? -1] : undefined;
    const out = new Float64Array(values + 1);
    if (row && column.setOf[row.index] === NOT_APPLICABLE) {
      out.fill(e / values);
      out[values] = 1 - e;
      return normalised(out);
    }
    for (let x = 0; x < values; x++) {
      const read = (share: number) => share * (1 - e) + ((1 - share) * e) / (n - 1);
      const b = read(background[x] ?? 0);
      const value = column.values[x];
      const told = set || !row || value === undefined ? undefined : spoken?.(row, value);
      const own =
        set && value !== undefined
          ? read(set.includes(value) ? 1 / set.length : 0)
          : told === undefined
            ? b
            : read(told);
      out[x] = (1 - s) * own + s * b;
    }
    out[values] = e / n;
    return normalised(out);
  });
}

/** Sizes are told apart in steps over what the candidates span; a caliper tells no more. */
const STEPS = 160;
/** Beyond so many deviations a density is its thin even layer. */
const FAR = 6;
function measureTable(
  column: MeasureColumn,
  weighed: readonly Weighed[],
  settings: BenchSettings,
): Float64Array[] | undefined {
  const nominals = weighed.map(({ row }) => (row ? (column.nominal[row.index] ?? NaN) : NaN));
  const known = nominals.filter((x) => !Number.isNaN(x));
  if (known.length < 2) return undefined;
  const wear = column.feature.wear ?? 'none';
  const low = Math.min(...known) * (wear === 'shrinks' ? 0.9 : 0.97);
  const step = (Math.max(...known) * (wear === 'grows' ? 1.1 : 1.03) - low) / STEPS;
  if (!(step > 0)) return undefined;
  const gauge = settings.instrument[column.feature.unit ?? 'mm'];
  const noise = Math.sqrt(gauge ** 2 + step ** 2 / 12);
  const shapes = new Map<string, Float64Array>();
  const mean = new Float64Array(STEPS);
  const drawn = weighed.map(({ row }, i) => {
    const nominal = nominals[i] ?? NaN;
    if (Number.isNaN(nominal)) return undefined;
    const spread = row ? (column.spread[row.index] ?? 0) : 0;
    const key = `${nominal} ${spread}`;
    let shape = shapes.get(key);
    if (!shape) {
      shape = normalised(shapeOf({ nominal, spread, wear, noise, low, step }, settings));
      shapes.set(key, shape);
    }
    for (let x = 0; x < STEPS; x++) mean[x] = (mean[x] ?? 0) + (shape[x] ?? 0);
    return shape;
  });
  const anybodys = normalised(mean);
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
  return Float64Array.from({ length: STEPS }, (_, x) => {
    const at = m.low + (x + 0.5) * m.step;
    if (m.wear === 'none' && Math.abs(at - m.nominal) > FAR * sigma) return even;
    return measureDensity(at, { ...m, outlierShare, outlierRange, wornShare, wearMean });
  });
}

function markTable(
  index: ReferenceIndex,
  weighed: readonly Weighed[],
  settings: BenchSettings,
): Float64Array[] {
  const makers = new Set(weighed.map((w) => w.row?.maker.id));
  const marks = [...index.marks.values()].filter((m) => m.maker == null || makers.has(m.maker));
  const dated = marks.map((m) => {
    const part = markDates(index, m.id, settings.misreading.sure);
    return { part, prefixes: part.factors.map(prefixOf) };
  });
  const flat = 1 / (marks.length + 1);
  return weighed.map(({ row }) => {
    const out = new Float64Array(marks.length + 1).fill(flat * 0.02);
    if (!row) return normalised(out.fill(flat));
    dated.forEach(({ part, prefixes }, i) => {
      const prefix = prefixes[part.classOf[row.index] ?? -1];
      if (prefix) out[i] = overItsMonths(prefix, part.from, index.rows[row.judgedAs] ?? row);
    });
    return normalised(out);
  });
}

function dateCodeTable(
  index: ReferenceIndex,
  id: string,
  weighed: readonly Weighed[],
  settings: BenchSettings,
): Float64Array[] | undefined {
  const code = index.codes.get(id);
  if (code?.kind !== 'date') return undefined;
  if (!weighed.some((w) => w.p > 0.01 && (code.maker == null || w.row?.maker.id === code.maker)))
    return undefined;
  const all = readDateCode(code, {});
  const windows = all.ok ? [...new Set(all.value.map((r) => r.window))].slice(0, 200) : [];
  if (windows.length < 2) return undefined;
  const parts = windows.map((window) => {
    const part = dateCodeDates(
      index,
      code.maker ?? undefined,
      [window],
      settings.misreading.sure,
      windows.length,
    );
    return { part, prefixes: part.factors.map(prefixOf) };
  });
  return weighed.map(({ row }) => {
    const out = new Float64Array(windows.length + 1).fill(0.02 / (windows.length + 1));
    if (!row) return normalised(out.fill(1));
    parts.forEach(({ part, prefixes }, i) => {
      const prefix = prefixes[part.classOf[row.index] ?? -1];
      if (prefix) out[i] = overItsMonths(prefix, part.from, index.rows[row.judgedAs] ?? row);
      else out[windows.length] = 1;
    });
    return normalised(out);
  });
}
