/** What sets variants apart, and how a pattern's production spreads over the years. */
import { calendarOf, hullOf, periodOf } from '../dates/index.ts';
import type { FeatureReading, NominalMeasure, Pattern, Variant } from './pack.ts';

export type Difference =
  | { readonly kind: 'feature'; readonly id: string; readonly cells: readonly (readonly FeatureReading[])[] }
  | { readonly kind: 'measure'; readonly id: string; readonly cells: readonly (NominalMeasure | undefined)[] }
  | { readonly kind: 'marks'; readonly cells: readonly (readonly string[])[] };

/** Only what is not the same on all of them; a feature that some do not record is an empty cell. */
export function differencesOf(variants: readonly Variant[], pattern?: Pattern): Difference[] {
  const differ = (cells: readonly unknown[]) => new Set(cells.map((c) => JSON.stringify(c ?? null))).size > 1;
  const keys = (of: (v: Variant) => object | null | undefined) => [
    ...new Set(variants.flatMap((v) => Object.keys(of(v) ?? {}))),
  ];
  const found: Difference[] = [];
  for (const id of keys((v) => v.features)) {
    const cells = variants.map((v) => v.features?.[id] ?? []);
    if (differ(cells)) found.push({ kind: 'feature', id, cells });
  }
  for (const id of keys((v) => v.measures)) {
    const cells = variants.map((v) => v.measures?.[id] ?? pattern?.measures?.[id]);
    if (differ(cells)) found.push({ kind: 'measure', id, cells });
  }
  const marks = variants.map((v) => v.marks ?? []);
  if (differ(marks)) found.push({ kind: 'marks', cells: marks });
  return found;
}

export interface YearMade {
  readonly year: number;
  readonly made: number;
  /** told for the year, or shared out evenly over a window */
  readonly told: boolean;
}

/** How many of a variant were made in each year: as told, else its quantity evenly over its window. */
export function madeByYear(variant: Variant): YearMade[] {
  const told = Object.entries(variant.made?.byYear ?? {});
  if (told.length > 0) return told.map(([year, made]) => ({ year: Number(year), made, told: true }));
  const quantity = variant.made?.quantity;
  if (quantity == null || variant.window == null) return [];
  return shareOfYears(variant.window).map(({ year, share }) => ({
    year,
    made: quantity * share,
    told: false,
  }));
}

/** The share of a window's days that falls in each year; nothing for a window that is open at an end. */
export function shareOfYears(window: string): { year: number; share: number }[] {
  const span = hullOf(periodOf(window).strict);
  if (!span || !Number.isFinite(span.from) || !Number.isFinite(span.to)) return [];
  const days = new Map<number, number>();
  for (let day = span.from; day <= span.to; day = (day + 1) as typeof span.from)
    days.set(calendarOf(day).year, (days.get(calendarOf(day).year) ?? 0) + 1);
  const all = span.to - span.from + 1;
  return [...days].map(([year, n]) => ({ year, share: n / all }));
}

/** Production of a pattern by year: as a source tells it of the whole, else its variants together. */
export function patternByYear(pattern: Pattern, variants: readonly Variant[]): YearMade[] {
  const told = Object.entries(pattern.madeByYear ?? {});
  if (told.length > 0) return told.map(([year, made]) => ({ year: Number(year), made, told: true }));
  const years = new Map<number, YearMade>();
  for (const variant of variants) {
    if (variant.kind === 'counterfeit' || variant.kind === 'reproduction') continue;
    for (const y of madeByYear(variant)) {
      const before = years.get(y.year);
      years.set(y.year, {
        year: y.year,
        made: (before?.made ?? 0) + y.made,
        told: y.told && (before?.told ?? true),
      });
    }
  }
  return [...years.values()].sort((a, b) => a.year - b.year);
}
