/**
 * Dated customs: a feature that a variant does not record but its maker (or pattern, or everybody) has dated, as
 * P(value | month) over the values whose window holds the month; disputing sources are mixed by their odds.
 */
import type { DatedWindow, FeatureReading } from '../reference/index.ts';
import type { ReferenceIndex } from './compile.ts';
import { SILENT, type Column, type Row } from './compiled.ts';
import { overMonths, prefixOf } from './overMonths.ts';
import { alternatives } from './observationEvidence.ts';
import { holdOver, reliabilityOdds, scopedWindows, statementSpans, type DatedPart } from './datedEvidence.ts';

/** Shares below this are no custom of that month: nothing is known of it. */
const MIN_SHARE = 0.05;

interface Scope {
  /** per value: how much of the month's custom is its own; NaN where no value holds the month */
  readonly shares: ReadonlyMap<FeatureReading, Float32Array>;
  /** the same for each value that nobody dated: rare where some dated one was in use, NaN where none was */
  readonly undated: Float32Array;
}
interface FeatureCustoms {
  readonly scopes: readonly Scope[];
  /** per row: its scope, −1 where nobody dated the feature for it or the variant records it */
  readonly scopeOf: Int32Array;
  /** per scope and value: prefix sums of the share, worked out when a row of the scope is first in play */
  readonly prefixes: (Prefixes | undefined)[];
}
interface Prefixes {
  readonly shares: ReadonlyMap<FeatureReading, Float64Array>;
  readonly undated: Float64Array;
}

/** Worked out once per reference and feature, when the feature is first observed. */
const known = new WeakMap<ReferenceIndex['rows'], Map<string, FeatureCustoms | undefined>>();

function customsOfFeature(index: ReferenceIndex, column: Column): FeatureCustoms | undefined {
  let features = known.get(index.rows);
  if (!features) known.set(index.rows, (features = new Map()));
  if (!features.has(column.feature.id)) features.set(column.feature.id, workOut(index, column));
  return features.get(column.feature.id);
}

/** Per row: the scope of customs that speaks for it, −1 where none does; undefined where nobody dated the feature. */
export const customScopes = (index: ReferenceIndex, column: Column): Int32Array | undefined =>
  customsOfFeature(index, column)?.scopeOf;

function workOut(index: ReferenceIndex, column: Column): FeatureCustoms | undefined {
  const windows = index.windowsByFeature.get(column.feature.id);
  if (!windows) return undefined;
  const byValue = new Map<FeatureReading, DatedWindow[]>();
  for (const window of windows) {
    const list = byValue.get(window.value);
    if (list) list.push(window);
    else byValue.set(window.value, [window]);
  }
  const patterns = new Set(windows.flatMap((w) => w.pattern ?? []));
  const makers = new Set(windows.flatMap((w) => (w.pattern == null ? (w.maker ?? []) : [])));
  const scopes: Scope[] = [];
  const scopeAt = new Map<string, number>();
  const scopeOf = new Int32Array(index.rows.length).fill(-1);
  for (const row of index.rows) {
    if (column.setOf[row.index] !== SILENT) continue;
    const pattern = patterns.has(row.pattern.id) ? row.pattern.id : undefined;
    const maker = makers.has(row.maker.id) ? row.maker.id : undefined;
    const key = `${pattern ?? ''}|${maker ?? ''}`;
    let at = scopeAt.get(key);
    if (at === undefined) {
      const spoken = new Map(
        [...byValue].flatMap(([value, list]) => {
          const own = scopedWindows(list, pattern, maker);
          return own.length > 0 ? [[value, own] as const] : [];
        }),
      );
      at = spoken.size > 0 ? scopes.push(scopeOfWindows(index, column, spoken)) - 1 : -1;
      scopeAt.set(key, at);
    }
    scopeOf[row.index] = at;
  }
  return { scopes, scopeOf, prefixes: [] };
}

/** How much of what was in use in a month the sources may have left out. */
const LEFT_OUT = 0.05;

function scopeOfWindows(
  index: ReferenceIndex,
  column: Column,
  byValue: ReadonlyMap<FeatureReading, readonly DatedWindow[]>,
): Scope {
  const { length } = index.calendar;
  const together = new Float64Array(length);
  const weights = new Map<FeatureReading, Float64Array>();
  for (const [value, windows] of byValue) {
    const own = new Float64Array(length);
    const sources = [...new Set(windows.map((w) => w.source ?? ''))];
    const odds = sources.map((s) => reliabilityOdds(index, s));
    const total = odds.reduce((a, b) => a + b, 0);
    sources.forEach((source, k) => {
      const spans = windows
        .filter((w) => (w.source ?? '') === source)
        .map((w) => statementSpans(w.window, w.carryOver));
      const strict = spans.flatMap((s) => s.strict);
      const lenient = spans.flatMap((s) => s.lenient);
      const weight = (odds[k] ?? 1) / total;
      holdOver(index, strict, lenient).forEach((hold, i) => (own[i] = (own[i] ?? 0) + hold * weight));
    });
    own.forEach((hold, i) => (together[i] = (together[i] ?? 0) + hold));
    weights.set(value, own);
  }
  const others = Math.max(1, alternatives(column) - byValue.size);
  const isCustom = (i: number) => (together[i] ?? 0) > MIN_SHARE;
  return {
    shares: new Map(
      [...weights].map(([value, own]) => [
        value,
        Float32Array.from(own, (hold, i) =>
          isCustom(i) ? ((1 - LEFT_OUT) * hold) / (together[i] ?? 1) : NaN,
        ),
      ]),
    ),
    undated: Float32Array.from(together, (_, i) => (isCustom(i) ? LEFT_OUT / others : NaN)),
  };
}

/**
 * The factor of one observed value.
 * @param read how the reading goes wrong: `error` and the number `n` of values it could be taken for
 * @param exchanged chance that the part is not the piece's own, and what just any part would show then
 */
export function customsOf(
  index: ReferenceIndex,
  column: Column,
  value: FeatureReading,
  read: { readonly error: number; readonly n: number },
  exchanged: { readonly chance: number; readonly shows: number },
): DatedPart | undefined {
  const customs = customsOfFeature(index, column);
  if (!customs) return undefined;
  const { error, n } = read;
  const right = 1 - error - error / (n - 1);
  const wrong = error / (n - 1);
  const factors: Float64Array[] = [];
  const unmixed: Float64Array[] = [];
  const factorOf = Int32Array.from(customs.scopes, ({ shares, undated }) => {
    const share = shares.get(value) ?? undated;
    const own = new Float64Array(share.length);
    const mixed = new Float64Array(share.length);
    for (let i = 0; i < own.length; i++) {
      const told = share[i] ?? NaN;
      const chance = right * (Number.isNaN(told) ? 1 / n : told) + wrong;
      own[i] = chance;
      mixed[i] = (1 - exchanged.chance) * chance + exchanged.chance * exchanged.shows;
    }
    unmixed.push(own);
    return factors.push(mixed) - 1;
  });
  if (factors.length === 0) return undefined;
  const classOf = new Int32Array(customs.scopeOf.length);
  for (let r = 0; r < classOf.length; r++) {
    const scope = customs.scopeOf[r] ?? -1;
    classOf[r] = scope < 0 ? -1 : (factorOf[scope] ?? -1);
  }
  return { classOf, factors, unmixed, from: index.calendar.from };
}

/**
 * What the customs let one expect of a piece of a row, over the months it was made in.
 * @returns a function of row and value giving the share, undefined where nobody dated the feature for the row
 */
export function customsSpoken(
  index: ReferenceIndex,
  column: Column,
): ((row: Row, value: FeatureReading) => number | undefined) | undefined {
  const customs = customsOfFeature(index, column);
  if (!customs) return undefined;
  const anyone = 1 / alternatives(column);
  const prefixed = (share: Float32Array) =>
    prefixOf(Float64Array.from(share, (s) => (Number.isNaN(s) ? anyone : s)));
  const prefixesOf = (at: number): Prefixes | undefined => {
    const scope = customs.scopes[at];
    return (
      scope &&
      (customs.prefixes[at] ??= {
        shares: new Map([...scope.shares].map(([value, share]) => [value, prefixed(share)])),
        undated: prefixed(scope.undated),
      })
    );
  };
  return (row, value) => {
    const scope = prefixesOf(customs.scopeOf[row.index] ?? -1);
    return scope && overMonths(index, scope.shares.get(value) ?? scope.undated, row.index);
  };
}
