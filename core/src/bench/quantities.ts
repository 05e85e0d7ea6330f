/** How many of a variant were made and are still about, where nobody wrote it down. */
import { quantityMade, type Variant, type VariantKind } from '../reference/index.ts';
import { yearsIn, type Month, type MonthRange } from './months.ts';

/** How many of a kind are made in a year against ordinary production, and how many known ones outweigh that. */
const USUAL_SHARE: Readonly<Record<VariantKind, number>> = {
  production: 1,
  service: 1,
  'commercial-twin': 0.5,
  reissue: 0.5,
  'licensed-copy': 0.3,
  exclusive: 0.2,
  limited: 0.1,
  prototype: 0.01,
  reproduction: 0.3,
  counterfeit: 0.2,
};
const USUAL_WEIGHT = 2;
/** How many known forms of one maker outweigh what is known of everybody's. */
const MAKER_WEIGHT = 2;

/** Half of what was made is gone after so many years: a stated prior, mild enough to be outweighed by any feature. */
const HALF_LIFE_YEARS = 80;

export function surviving(made: MonthRange, today: Month): number {
  const age = (today - (made.from + made.to) / 2) / 12;
  return 2 ** (-Math.max(0, age) / HALF_LIFE_YEARS);
}

/**
 * Yearly production of a variant whose quantity is unknown: the mean of the known ones of its kind and maker, drawn
 * towards everybody's while few are known (every maker counting once, so that one maker's documented figures move
 * another's odds by no more than their share), and towards the known forms of its own pattern as far as the
 * reference shows that forms of one pattern are alike.
 * @param exponent the power of the quantity that the prior goes by: the mean is taken of that power, since it is what
 * an unknown quantity is expected to weigh
 */
export function yearlyRates(
  variants: readonly Variant[],
  spans: readonly MonthRange[],
  makerOf: (variant: Variant) => string,
  exponent: number,
): (variant: Variant) => number {
  const ofPattern = new Map<string, number[]>();
  const ofKind = new Map<VariantKind, Map<string, number[]>>();
  const ofMaker = new Map<string, number[]>();
  variants.forEach((variant, i) => {
    const quantity = quantityMade(variant);
    const span = spans[i];
    if (quantity === undefined || quantity <= 0 || !span) return;
    const rate = (quantity / yearsIn(span)) ** exponent;
    const asProduction = rate / usualOf(variant.kind);
    const kind = ofKind.get(variant.kind) ?? new Map<string, number[]>();
    ofKind.set(variant.kind, kind);
    push(kind, makerOf(variant), rate);
    push(ofMaker, makerOf(variant), asProduction);
    push(ofPattern, variant.pattern, asProduction);
  });
  function usualOf(kind: VariantKind) {
    return USUAL_SHARE[kind] ** exponent;
  }
  const meanOfMakers = (makers: Iterable<number[]>) => {
    const means = [...makers].map(mean);
    return means.length > 0 ? mean(means) : undefined;
  };
  const usual = meanOfMakers(ofMaker.values()) ?? 1;
  const k = likeness([...ofPattern.values()].map((rates) => rates.map((rate) => rate ** (1 / exponent))));
  return (variant) => {
    const { kind, pattern } = variant;
    const known = ofKind.get(kind);
    const makers = known?.size ?? 0;
    const everybodys =
      (makers * (meanOfMakers(known?.values() ?? []) ?? 0) + USUAL_WEIGHT * usualOf(kind) * usual) /
      (makers + USUAL_WEIGHT);
    const own = known?.get(makerOf(variant)) ?? [];
    const rate = (sum(own) + MAKER_WEIGHT * everybodys) / (own.length + MAKER_WEIGHT);
    const siblings = ofPattern.get(pattern) ?? [];
    const drawn = (k * usualOf(kind) * sum(siblings) + rate) / (k * siblings.length + 1);
    return drawn ** (1 / exponent);
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
    const middle = sum(list) / Math.max(1, list.length);
    return sum(list.map((x) => (x - middle) ** 2));
  };
  const inside = sum(logs.map(spread));
  const freedom = sum(logs.map((l) => Math.max(0, l.length - 1)));
  const within = (inside + VARIANCE_WEIGHT * WITHIN_START) / (freedom + VARIANCE_WEIGHT);
  const total =
    (spread(flat) + VARIANCE_WEIGHT * ALL_START) / (Math.max(0, flat.length - 1) + VARIANCE_WEIGHT);
  return Math.min(MOST_ALIKE, Math.max(0, total - within) / within);
}

const sum = (list: readonly number[]) => list.reduce((a, b) => a + b, 0);
const mean = (list: readonly number[]) => sum(list) / list.length;
function push<K>(map: Map<K, number[]>, key: K, value: number): void {
  const list = map.get(key);
  if (list) list.push(value);
  else map.set(key, [value]);
}
