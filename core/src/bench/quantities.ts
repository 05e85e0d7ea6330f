/** How many of a variant were made and are still about, where nobody wrote it down. */
import type { Variant, VariantKind } from '../reference/index.ts';
import { yearsIn, type MonthRange } from './months.ts';

/** How many of a kind are made in a year against ordinary production, and how many known ones outweigh that. */
const USUAL_SHARE: Readonly<Record<VariantKind, number>> = {
  production: 1,
  service: 1,
  'commercial-twin': 0.5,
  reissue: 0.5,
  exclusive: 0.2,
  limited: 0.1,
  prototype: 0.01,
  reproduction: 0.3,
  counterfeit: 0.2,
};
const USUAL_WEIGHT = 2;

/** Half of what was made is gone after so many years: a stated prior, mild enough to be outweighed by any feature. */
const HALF_LIFE_YEARS = 80;

export function surviving(made: MonthRange, today: number): number {
  const age = (today - (made.from + made.to) / 2) / 12;
  return 2 ** (-Math.max(0, age) / HALF_LIFE_YEARS);
}

/**
 * Yearly production of a variant whose quantity is unknown: the mean of the known ones of its kind (the median
 * underrates unknown quantities), drawn towards what a kind usually is to ordinary production while few are known,
 * and towards the known forms of its own pattern as far as the reference shows that forms of one pattern are alike.
 */
export function yearlyRates(
  variants: readonly Variant[],
  spans: readonly MonthRange[],
): (variant: Variant) => number {
  const ofPattern = new Map<string, number[]>();
  const ofKind = new Map<VariantKind, number[]>();
  const all: number[] = [];
  variants.forEach((variant, i) => {
    const quantity = variant.made?.quantity;
    const span = spans[i];
    if (quantity == null || quantity <= 0 || !span) return;
    const rate = quantity / yearsIn(span);
    const asProduction = rate / USUAL_SHARE[variant.kind];
    all.push(asProduction);
    push(ofKind, variant.kind, rate);
    push(ofPattern, variant.pattern, asProduction);
  });
  const usual = all.length > 0 ? sum(all) / all.length : 1;
  const k = likeness([...ofPattern.values()]);
  return ({ kind, pattern }) => {
    const known = ofKind.get(kind) ?? [];
    const rate = (sum(known) + USUAL_WEIGHT * USUAL_SHARE[kind] * usual) / (known.length + USUAL_WEIGHT);
    const siblings = ofPattern.get(pattern) ?? [];
    return (k * USUAL_SHARE[kind] * sum(siblings) + rate) / (k * siblings.length + 1);
  };
}

/** Pseudo-observations behind the starting values of the two variances of ln(rate), and those values. */
const VARIANCE_WEIGHT = 3;
const WITHIN_START = 0.5;
const ALL_START = 0.8;
const MOST_ALIKE = 12;

/** What one known form of a pattern is worth against the mean of its kind: variance between over variance within. */
function likeness(patterns: readonly (readonly number[])[]): number {
  const logs = patterns.map((rates) => rates.map(Math.log));
  const flat = logs.flat();
  const spread = (list: readonly number[]) => {
    const mean = sum(list) / Math.max(1, list.length);
    return sum(list.map((x) => (x - mean) ** 2));
  };
  const inside = sum(logs.map(spread));
  const freedom = sum(logs.map((l) => Math.max(0, l.length - 1)));
  const within = (inside + VARIANCE_WEIGHT * WITHIN_START) / (freedom + VARIANCE_WEIGHT);
  const total =
    (spread(flat) + VARIANCE_WEIGHT * ALL_START) / (Math.max(0, flat.length - 1) + VARIANCE_WEIGHT);
  return Math.min(MOST_ALIKE, Math.max(0, total - within) / within);
}

const sum = (list: readonly number[]) => list.reduce((a, b) => a + b, 0);
function push<K>(map: Map<K, number[]>, key: K, value: number): void {
  const list = map.get(key);
  if (list) list.push(value);
  else map.set(key, [value]);
}
