/**
 * How often a thing comes to a bench (docs/engines.md, "Prior"). What was made and is left says it to begin with, less
 * than in proportion, because rare things are kept, traded and shown; what the shop has met says it better.
 */
import { quantityMade, type VariantKind } from '../reference/index.ts';
import type { CompiledReference } from './compiled.ts';
import type { BenchSettings } from './settings.ts';

/** Things met, once each: sold comparables, and pieces the shop itself identified. Asking prices and offers are none. */
export interface Encounters {
  /** sold comparables by the variant they name */
  readonly sold: ReadonlyMap<string, number>;
  /** sold comparables that name a pattern only */
  readonly soldOfPattern: ReadonlyMap<string, number>;
  /** the shop's own decided pieces, likewise */
  readonly own: ReadonlyMap<string, number>;
  readonly ownOfPattern: ReadonlyMap<string, number>;
  /** of the shop's own decided pieces, those that no variant of the reference is right for */
  readonly unlisted: number;
}

export const NO_ENCOUNTERS: Encounters = {
  sold: new Map(),
  soldOfPattern: new Map(),
  own: new Map(),
  ownOfPattern: new Map(),
  unlisted: 0,
};

/** What one kind, maker, pattern or variant came up against what its weight let one expect. */
export interface LearntFactor {
  readonly id: string;
  readonly seen: number;
  readonly expected: number;
  readonly factor: number;
}
export interface LearntLevel {
  readonly level: 'kind' | 'maker' | 'pattern' | 'variant' | 'counterfeit';
  /** 0–1: how far the level is believed; a one-sided shop's encounters say less about the world */
  readonly trust: number;
  readonly factors: readonly LearntFactor[];
}
export interface LearntFrom {
  readonly from: 'sold' | 'own' | 'both';
  /** encounters that name a variant, and those that name a pattern only */
  readonly named: number;
  readonly unnamed: number;
  readonly levels: readonly LearntLevel[];
}

export interface Frequency {
  /** per row: relative frequency at a bench; a counterfeit's is that of what it imitates, before the place it was found */
  readonly weight: Float64Array;
  /** chance that a piece is in no reference */
  readonly unlisted: number;
  /** per maker with encounters: the power of what is left that its weights go by */
  readonly exponents: ReadonlyMap<string, number>;
  readonly learnt: readonly LearntFrom[];
}

/** Pseudo-counts of the levels. */
const STRENGTH = { kind: 10, maker: 10, pattern: 6, variant: 2, counterfeit: 10 } as const;
/** Usual spread of ln of a level's factors: beyond it the shop is one-sided and believed less. */
const USUAL_SPREAD = { kind: 0.4, maker: 0.4, pattern: 0.5 } as const;
/** Decided pieces that the usual share of unlisted ones counts as. */
const UNLISTED_STRENGTH = 100;
const EXPONENT = { sd: 0.15, least: 0.35, most: 1, steps: 3 } as const;

export function frequencyOf(
  index: CompiledReference,
  encounters: Encounters,
  settings: BenchSettings,
): Frequency {
  const exponents = exponentsOf(index, encounters, settings.quantityExponent);
  const weight = baseWeights(index, exponents, settings.quantityExponent);
  const learnt = (['sold', 'own'] as const).flatMap((from): LearntFrom[] => {
    const counts = countsOf(
      index,
      encounters[from],
      from === 'sold' ? encounters.soldOfPattern : encounters.ownOfPattern,
    );
    if (counts.named + counts.unnamed === 0) return [];
    const levels = learn(index, weight, counts, from === 'own');
    return [{ from, named: counts.named, unnamed: counts.unnamed, levels }];
  });
  weighCounterfeits(index, weight, encounters, learnt);
  const decided = total(encounters.own) + total(encounters.ownOfPattern) + encounters.unlisted;
  return {
    weight,
    unlisted:
      (UNLISTED_STRENGTH * settings.unlistedPrior + encounters.unlisted) / (UNLISTED_STRENGTH + decided),
    exponents,
    learnt,
  };
}

const total = (counts: ReadonlyMap<string, number>) => [...counts.values()].reduce((a, b) => a + b, 0);

interface Counts {
  /** per row, counterfeits left out; per pattern, those that name no variant */
  readonly ofRow: Float64Array;
  readonly ofPattern: Float64Array;
  readonly named: number;
  readonly unnamed: number;
}

function countsOf(
  index: CompiledReference,
  variants: ReadonlyMap<string, number>,
  patterns: ReadonlyMap<string, number>,
): Counts {
  const ofRow = new Float64Array(index.rows.length);
  for (const [id, n] of variants) {
    const row = index.variants.get(id);
    if (row && !index.counterfeit[row.index]) ofRow[row.index] = n;
  }
  const ofPattern = Float64Array.from(index.contents.patterns, (p) => patterns.get(p.id) ?? 0);
  return { ofRow, ofPattern, named: sumOf(ofRow), unnamed: sumOf(ofPattern) };
}

/** What is left to the power of the maker's exponent, with the pattern's sum of the usual exponent kept. */
function baseWeights(
  index: CompiledReference,
  exponents: ReadonlyMap<string, number>,
  usual: number,
): Float64Array {
  const { leftOf, patternOf, makerOf } = index;
  const weight = leftOf.map((left) => left ** usual);
  const own = index.contents.makers.map((m) => exponents.get(m.id));
  if (own.every((a) => a === undefined)) return weight;
  const kept = new Float64Array(index.contents.patterns.length);
  const bent = new Float64Array(kept.length);
  const power = leftOf.map((left, r) => left ** (own[makerOf[r] ?? -1] ?? usual));
  for (let r = 0; r < weight.length; r++) {
    if (index.counterfeit[r]) continue;
    add(kept, patternOf[r] ?? 0, weight[r] ?? 0);
    add(bent, patternOf[r] ?? 0, power[r] ?? 0);
  }
  return power.map((w, r) => (w * (kept[patternOf[r] ?? 0] ?? 1)) / (bent[patternOf[r] ?? 0] || 1));
}

/**
 * Per maker the slope of ln frequency on ln of what is left, within patterns: the mode of a multinomial's exponent
 * under a normal prior, by Newton's method.
 */
function exponentsOf(
  index: CompiledReference,
  encounters: Encounters,
  usual: number,
): ReadonlyMap<string, number> {
  const seen = new Float64Array(index.rows.length);
  for (const counts of [encounters.sold, encounters.own])
    for (const [id, n] of counts) {
      const row = index.variants.get(id);
      if (row && !index.counterfeit[row.index]) add(seen, row.index, n);
    }
  const rowsOf = new Map<number, number[]>();
  for (let r = 0; r < seen.length; r++) {
    if (index.counterfeit[r]) continue;
    const pattern = index.patternOf[r] ?? 0;
    const rows = rowsOf.get(pattern);
    if (rows) rows.push(r);
    else rowsOf.set(pattern, [r]);
  }
  const ofMaker = new Map<string, number[][]>();
  for (const rows of rowsOf.values()) {
    const maker = index.rows[rows[0] ?? 0]?.maker.id ?? '';
    if (rows.length > 1 && rows.some((r) => (seen[r] ?? 0) > 0))
      ofMaker.set(maker, [...(ofMaker.get(maker) ?? []), rows]);
  }
  return new Map([...ofMaker].map(([maker, patterns]) => [maker, slopeOf(index, patterns, seen, usual)]));
}

function slopeOf(
  index: CompiledReference,
  patterns: readonly (readonly number[])[],
  seen: Float64Array,
  usual: number,
): number {
  const log = (r: number) => Math.log(index.leftOf[r] ?? 1);
  let a: number = usual;
  for (let step = 0; step < EXPONENT.steps; step++) {
    let slope = -(a - usual) / EXPONENT.sd ** 2;
    let bend = 1 / EXPONENT.sd ** 2;
    for (const rows of patterns) {
      const top = Math.max(...rows.map(log));
      const n = rows.reduce((sum, r) => sum + (seen[r] ?? 0), 0);
      let weights = 0;
      let first = 0;
      let second = 0;
      for (const r of rows) {
        const x = log(r) - top;
        const w = Math.exp(a * x);
        weights += w;
        first += w * x;
        second += w * x * x;
        slope += (seen[r] ?? 0) * x;
      }
      const mean = first / weights;
      slope -= n * mean;
      bend += n * (second / weights - mean * mean);
    }
    a = Math.min(EXPONENT.most, Math.max(EXPONENT.least, a + slope / bend));
  }
  return a;
}

/** Raises and lowers the weights level by level; each level's expectation is taken from the weights so far. */
function learn(
  index: CompiledReference,
  weight: Float64Array,
  counts: Counts,
  whole: boolean,
): LearntLevel[] {
  const { patternOf, counterfeit } = index;
  const patterns = index.contents.patterns.length;
  const kindNames = [...new Set(index.rows.map((row) => row.variant.kind))].filter(
    (k): k is VariantKind => k !== 'counterfeit',
  );
  const kindOf = Int32Array.from(index.rows, (row) => kindNames.indexOf(row.variant.kind));
  const genuine = index.everyRow.filter((r) => !counterfeit[r]);
  const namedOf = new Float64Array(patterns);
  for (const r of genuine) add(namedOf, patternOf[r] ?? 0, counts.ofRow[r] ?? 0);
  const weightOf = (keys: Int32Array, n: number) => {
    const sums = new Float64Array(n);
    for (const r of genuine) add(sums, keys[r] ?? 0, weight[r] ?? 0);
    return sums;
  };

  const levels: LearntLevel[] = [];
  /** One level: cells that rows belong to, each with what was seen and expected of it. */
  const apply = (
    level: 'kind' | 'maker' | 'pattern',
    names: readonly string[],
    cellOf: Int32Array,
    seen: Float64Array,
    expected: Float64Array,
  ): number => {
    const raw = seen.map((n, i) => Math.log((STRENGTH[level] + n) / (STRENGTH[level] + (expected[i] ?? 0))));
    const trust = whole ? 1 : trustOf(raw, expected, USUAL_SPREAD[level]);
    for (const r of genuine) weight[r] = (weight[r] ?? 0) * Math.exp(trust * (raw[cellOf[r] ?? 0] ?? 0));
    levels.push({ level, trust, factors: factorsOf(names, seen, expected, raw, trust) });
    return trust;
  };

  const ofPattern = weightOf(patternOf, patterns);
  const seenKinds = new Float64Array(kindNames.length);
  const expectedKinds = new Float64Array(kindNames.length);
  for (const r of genuine) {
    const p = patternOf[r] ?? 0;
    add(seenKinds, kindOf[r] ?? 0, counts.ofRow[r] ?? 0);
    add(expectedKinds, kindOf[r] ?? 0, ((namedOf[p] ?? 0) * (weight[r] ?? 0)) / (ofPattern[p] || 1));
  }
  const trustInKinds = apply('kind', kindNames, kindOf, seenKinds, expectedKinds);

  const groups = index.groups.length;
  const groupOfPattern = new Int32Array(patterns).fill(-1);
  for (const r of genuine) groupOfPattern[patternOf[r] ?? 0] = index.groupOf[r] ?? 0;
  const seenOf = namedOf.map((n, p) => n + (counts.ofPattern[p] ?? 0));
  const seenGroups = new Float64Array(groups);
  seenOf.forEach((n, p) => {
    if ((groupOfPattern[p] ?? -1) >= 0) add(seenGroups, groupOfPattern[p] ?? 0, n);
  });
  const ofGroup = weightOf(index.groupOf, groups);
  const everything = sumOf(ofGroup) || 1;
  const met = sumOf(seenGroups);
  apply(
    'maker',
    index.groups.map((g) => `${g.maker} ${g.construction}`),
    index.groupOf,
    seenGroups,
    ofGroup.map((w) => (met * w) / everything),
  );

  const inGroup = weightOf(index.groupOf, groups);
  apply(
    'pattern',
    index.contents.patterns.map((p) => p.id),
    patternOf,
    seenOf,
    weightOf(patternOf, patterns).map((w, p) => {
      const g = groupOfPattern[p] ?? -1;
      return g < 0 ? 0 : ((seenGroups[g] ?? 0) * w) / (inGroup[g] || 1);
    }),
  );

  levels.push(learnVariants(index, weight, counts, namedOf, genuine, whole ? 1 : trustInKinds));
  return levels;
}

/** Variants within their pattern, by the encounters that name one; the pattern's sum is kept. */
function learnVariants(
  index: CompiledReference,
  weight: Float64Array,
  counts: Counts,
  namedOf: Float64Array,
  genuine: Int32Array,
  trust: number,
): LearntLevel {
  const { patternOf } = index;
  const before = new Float64Array(namedOf.length);
  for (const r of genuine) add(before, patternOf[r] ?? 0, weight[r] ?? 0);
  const raw = new Float64Array(weight.length);
  const expected = new Float64Array(weight.length);
  const after = new Float64Array(namedOf.length);
  for (const r of genuine) {
    const p = patternOf[r] ?? 0;
    expected[r] = ((namedOf[p] ?? 0) * (weight[r] ?? 0)) / (before[p] || 1);
    raw[r] = Math.log((STRENGTH.variant + (counts.ofRow[r] ?? 0)) / (STRENGTH.variant + (expected[r] ?? 0)));
    weight[r] = (weight[r] ?? 0) * Math.exp(trust * (raw[r] ?? 0));
    add(after, p, weight[r] ?? 0);
  }
  for (const r of genuine) {
    const p = patternOf[r] ?? 0;
    weight[r] = ((weight[r] ?? 0) * (before[p] ?? 0)) / (after[p] || 1);
  }
  const names = index.rows.map((row) => row.variant.id);
  return { level: 'variant', trust, factors: factorsOf(names, counts.ofRow, expected, raw, trust) };
}

/** How far a level is believed: its factors spread no wider than usual, or they tell of the shop and not of the world. */
function trustOf(raw: Float64Array, expected: Float64Array, usual: number): number {
  const exposure = sumOf(expected);
  if (exposure <= 0) return 1;
  let mean = 0;
  raw.forEach((x, i) => (mean += ((expected[i] ?? 0) * x) / exposure));
  let variance = 0;
  raw.forEach((x, i) => (variance += ((expected[i] ?? 0) * (x - mean) ** 2) / exposure));
  return Math.min(1, usual ** 2 / Math.max(variance, 1e-12));
}

const factorsOf = (
  names: readonly string[],
  seen: Float64Array,
  expected: Float64Array,
  raw: Float64Array,
  trust: number,
): LearntFactor[] =>
  names.flatMap((id, i) => {
    const [n, e] = [seen[i] ?? 0, expected[i] ?? 0];
    return n > 0 || e > 0.05 ? [{ id, seen: n, expected: e, factor: Math.exp(trust * (raw[i] ?? 0)) }] : [];
  });

/**
 * Counterfeits are as frequent as what they imitate is wanted: all counterfeits of one variant share its weight, by
 * their stated quantities where all state one, else alike; sold ones count among counterfeits only.
 */
function weighCounterfeits(
  index: CompiledReference,
  weight: Float64Array,
  encounters: Encounters,
  learnt: LearntFrom[],
): void {
  const fakes = index.everyRow.filter((r) => index.counterfeit[r]);
  if (fakes.length === 0) return;
  const ofOriginal = new Map<string, number[]>();
  for (const r of fakes) {
    const row = index.rows[r];
    const key = row?.variant.twinOf ?? `${row?.pattern.id} `;
    ofOriginal.set(key, [...(ofOriginal.get(key) ?? []), r]);
  }
  const base = new Float64Array(weight.length);
  for (const [key, rows] of ofOriginal) {
    const original = index.variants.get(key);
    const wanted = original ? (weight[original.index] ?? 0) : meanOfPattern(index, weight, rows[0] ?? 0);
    const stated = rows.map((r) => {
      const row = index.rows[r];
      return (row && quantityMade(row.variant)) ?? 0;
    });
    const known = stated.every((q) => q > 0) ? stated.reduce((a, b) => a + b, 0) : undefined;
    rows.forEach((r, i) => {
      base[r] = wanted * (known === undefined ? 1 / rows.length : (stated[i] ?? 0) / known);
    });
  }
  const all = sumOf(base) || 1;
  const seen = fakes.reduce((map, r) => map.set(r, metOf(index, encounters, r)), new Map<number, number>());
  const met = [...seen.values()].reduce((a, b) => a + b, 0);
  const factors: LearntFactor[] = [];
  for (const r of fakes) {
    const expected = (met * (base[r] ?? 0)) / all;
    const factor = (STRENGTH.counterfeit + (seen.get(r) ?? 0)) / (STRENGTH.counterfeit + expected);
    weight[r] = (base[r] ?? 0) * factor;
    factors.push({ id: index.rows[r]?.variant.id ?? '', seen: seen.get(r) ?? 0, expected, factor });
  }
  if (met > 0)
    learnt.push({
      from: 'both',
      named: met,
      unnamed: 0,
      levels: [{ level: 'counterfeit', trust: 1, factors }],
    });
}

const metOf = (index: CompiledReference, { sold, own }: Encounters, r: number): number => {
  const id = index.rows[r]?.variant.id ?? '';
  return (sold.get(id) ?? 0) + (own.get(id) ?? 0);
};

function meanOfPattern(index: CompiledReference, weight: Float64Array, r: number): number {
  let sum = 0;
  let n = 0;
  for (const other of index.everyRow)
    if (index.patternOf[other] === index.patternOf[r] && !index.counterfeit[other]) {
      sum += weight[other] ?? 0;
      n++;
    }
  return n > 0 ? sum / n : 1;
}

function sumOf(numbers: Float64Array): number {
  let sum = 0;
  for (const x of numbers) sum += x;
  return sum;
}
function add(sums: Float64Array, at: number, x: number): void {
  sums[at] = (sums[at] ?? 0) + x;
}
