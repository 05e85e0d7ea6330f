/**
 * What each variant would show at a check nobody has made yet. It hangs on the reference alone, not on what was seen,
 * so it is worked out once per reference revision, for a row when that row is first in play.
 */
import { readDateCode, type DateCode } from '../reference/index.ts';
import type { ReferenceIndex } from './compile.ts';
import { NOT_APPLICABLE, type Column, type Row } from './compiled.ts';
import { cellsOf, measureCellsOf } from './cells.ts';
import { customsSpoken } from './customs.ts';
import { judged, markFactor, standsAt, windowHold } from './datedEvidence.ts';
import { meanOver, overMonths, prefixOf } from './overMonths.ts';
import { BENCH_SETTINGS, DEFAULT_SWAP, type BenchSettings } from './settings.ts';
import { alternatives, backgroundShare } from './observationEvidence.ts';

/** The chance of each outcome, with its entropy in bits. */
export interface Expected {
  readonly chances: Float64Array;
  readonly entropy: number;
}

export const entropyOf = (distribution: Float64Array): number => {
  let h = 0;
  for (const p of distribution) if (p > 0) h -= p * Math.log2(p);
  return h;
};

export const normalised = (row: Float64Array): Float64Array => {
  let total = 0;
  for (const x of row) total += x;
  return total > 0 ? row.map((x) => x / total) : row.fill(1 / row.length);
};

export const expectedOf = (chances: Float64Array): Expected => ({ chances, entropy: entropyOf(chances) });

interface CodeExpectations {
  readonly width: number;
  of(row: Row | undefined): Expected;
}

export class Expectations {
  readonly #columns = new Map<string, ((row: Row | undefined) => Expected) | undefined>();
  readonly #marks: (readonly (readonly [mark: string, chance: number])[] | undefined)[] = [];
  readonly #codes = new Map<string, CodeExpectations | undefined>();
  constructor(
    readonly index: ReferenceIndex,
    readonly settings: BenchSettings,
  ) {}

  /** Readings of a feature; the last cell is "not there". */
  column(column: Column): ((row: Row | undefined) => Expected) | undefined {
    const { id } = column.feature;
    if (!this.#columns.has(id))
      this.#columns.set(id, categoryExpectations(this.index, column, this.settings));
    return this.#columns.get(id);
  }

  /** Stamps that a piece of the row may bear, each with its chance; all others are as good as impossible. */
  marks(row: Row): readonly (readonly [mark: string, chance: number])[] {
    const bearer = judged(this.index, row).index;
    return (this.#marks[bearer] ??= markExpectations(this.index, bearer, this.settings));
  }

  dateCode(code: DateCode): CodeExpectations | undefined {
    if (!this.#codes.has(code.id))
      this.#codes.set(code.id, dateCodeExpectations(this.index, code, this.settings));
    return this.#codes.get(code.id);
  }
}

const known = new WeakMap<ReferenceIndex['rows'], Map<BenchSettings, Expectations>>();
export function expectationsOf(index: ReferenceIndex, settings: BenchSettings): Expectations {
  let bySettings = known.get(index.rows);
  if (!bySettings) known.set(index.rows, (bySettings = new Map()));
  let found = bySettings.get(settings);
  if (!found) bySettings.set(settings, (found = new Expectations(index, settings)));
  return found;
}

function categoryExpectations(
  index: ReferenceIndex,
  column: Column,
  settings: BenchSettings,
): ((row: Row | undefined) => Expected) | undefined {
  const values = column.values.length;
  if (values < 1) return undefined;
  const n = alternatives(column);
  const e = settings.misreading.sure;
  const s = settings.exchange[column.feature.swap ?? DEFAULT_SWAP];
  const spoken = customsSpoken(index, column);
  const read = (share: number) => share * (1 - e) + ((1 - share) * e) / (n - 1);
  const shares = new Map<number, Float64Array>();
  const sharesOf = (group: number) => {
    let found = shares.get(group);
    if (!found) {
      found = Float64Array.from({ length: values }, (_, i) => backgroundShare(column, group, i, settings));
      shares.set(group, found);
    }
    return found;
  };
  const workOut = (row: Row | undefined): Expected => {
    const out = new Float64Array(values + 1);
    const at = row ? (column.setOf[row.index] ?? -1) : -1;
    if (row && at === NOT_APPLICABLE) {
      out.fill(e / values);
      out[values] = 1 - e;
      return expectedOf(normalised(out));
    }
    const background = sharesOf(row?.group ?? -1);
    const set = column.sets[at];
    for (let x = 0; x < values; x++) {
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
    return expectedOf(normalised(out));
  };
  // rows of one set and group are alike; those that only a custom speaks for differ by their months
  const alike = new Map<number, Expected>();
  const byMonths: Expected[] = [];
  return (row) => {
    const at = row ? (column.setOf[row.index] ?? -1) : -1;
    if (row && at === -1 && spoken) return (byMonths[row.index] ??= workOut(row));
    const key = row ? row.group * (column.sets.length + 2) + at + 2 : -1;
    let found = alike.get(key);
    if (!found) alike.set(key, (found = workOut(row)));
    return found;
  };
}

function markExpectations(
  index: ReferenceIndex,
  bearer: number,
  settings: BenchSettings,
): (readonly [string, number])[] {
  const row = index.rows[bearer];
  if (!row) return [];
  const out: [string, number][] = [];
  for (const mark of index.marks.values()) {
    if (mark.maker != null && mark.maker !== row.maker.id && !row.variant.marks?.includes(mark.id)) continue;
    const listed = (row.variant.marks ?? []).filter((m) => standsAt(index, m, mark.place ?? null));
    const factor = markFactor(index, mark, listed, row.maker.id, settings.misreading.sure);
    if (factor) out.push([mark.id, meanOver(index, row, factor)]);
  }
  return out;
}

/** Readings of a code that are tried; a code with more tells dates as finely as anyone wants. */
const MOST_READINGS = 200;

function dateCodeExpectations(
  index: ReferenceIndex,
  code: DateCode,
  settings: BenchSettings,
): CodeExpectations | undefined {
  const all = readDateCode(code, {});
  const windows = all.ok ? [...new Set(all.value.map((r) => r.window))].slice(0, MOST_READINGS) : [];
  if (windows.length < 2) return undefined;
  const width = windows.length + 1;
  const e = settings.misreading.sure;
  const base = e / windows.length;
  const factors = windows.map((w) =>
    prefixOf(windowHold(index, w).map((h) => Math.max(base, h * (1 - e) + base))),
  );
  const flat = new Float64Array(width).fill(0.02 / width);
  const foreign = flat.slice();
  foreign[width - 1] = 1;
  const anybody = expectedOf(normalised(new Float64Array(width).fill(1)));
  const elsewhere = expectedOf(normalised(foreign));
  const byMonths: Expected[] = [];
  return {
    width,
    of(row) {
      if (!row) return anybody;
      const bearer = judged(index, row);
      if (code.maker != null && bearer.maker.id !== code.maker) return elsewhere;
      return (byMonths[bearer.index] ??= (() => {
        const out = flat.slice();
        factors.forEach((prefix, i) => (out[i] = overMonths(index, prefix, bearer.index)));
        return expectedOf(normalised(out));
      })());
    },
  };
}

/**
 * Works out ahead what the first questions would otherwise wait for. Yields between features, so that a server can
 * answer in between.
 */
export function* prepared(
  index: ReferenceIndex,
  settings: BenchSettings = BENCH_SETTINGS,
): Generator<undefined, undefined> {
  const expectations = expectationsOf(index, settings);
  for (const column of index.columns.values()) {
    const of = expectations.column(column);
    cellsOf(index, column);
    if (of) for (const row of index.rows) of(row);
    yield undefined;
  }
  for (const column of index.measures.values()) measureCellsOf(index, column);
  let n = 0;
  for (const row of index.rows) {
    expectations.marks(row);
    if (++n % 500 === 0) yield undefined;
  }
  for (const code of index.codes.values()) {
    if (code.kind !== 'date') continue;
    const expected = expectations.dateCode(code);
    if (expected)
      for (const row of index.rows) if (code.maker == null || row.maker.id === code.maker) expected.of(row);
    yield undefined;
  }
}
