/** What sets variants apart, and how a pattern's production spreads over the years. */
import { calendarOf, dayOf, hullOf, periodOf, type Span } from '../dates/index.ts';
import { quantityMade } from './quantityMade.ts';
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
  const quantity = quantityMade(variant);
  if (quantity === undefined || variant.window == null) return [];
  return shareOfYears(variant.window).map(({ year, share }) => ({
    year,
    made: quantity * share,
    told: false,
  }));
}

/** The share of a window's days that falls in each year; nothing for a window that is open at an end. */
export function shareOfYears(window: string): { year: number; share: number }[] {
  const span = hullOf(periodOf(window).strict);
  return span
    ? daysOfYears(span).map(({ year, days }) => ({ year, share: days / (span.to - span.from + 1) }))
    : [];
}

/** How many days of each year a span holds, and how many the year has; nothing for an open span. */
export function daysOfYears(span: Span): { year: number; days: number; of: number }[] {
  if (!Number.isFinite(span.from) || !Number.isFinite(span.to)) return [];
  const first = calendarOf(span.from).year;
  const last = calendarOf(span.to).year;
  return Array.from({ length: last - first + 1 }, (_, i) => {
    const year = first + i;
    const begins = dayOf(year);
    const ends = dayOf(year + 1) - 1;
    return {
      year,
      days: Math.min(span.to, ends) - Math.max(span.from, begins) + 1,
      of: ends - begins + 1,
    };
  });
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
