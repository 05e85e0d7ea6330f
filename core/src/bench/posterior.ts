/**
 * Posterior over variants and "unlisted": prior × parts (whole or exchanged) × dates (engines.md, Identification).
 */
import type { Construction, SwapClass } from '../reference/index.ts';
import type { ReferenceIndex, Row } from './compile.ts';
import { changedBy, exchangeChance, type HistoryMark, type PieceHistory } from './history.ts';
import type { FoundPlace, Within } from './observation.ts';
import type { BenchSettings } from './settings.ts';
import type { Sign } from './sign.ts';

export interface PartWeight {
  readonly part: string;
  readonly swap: SwapClass;
  /** changed by a re-work that a stamp on the piece tells of: what differs is history, not an exchange */
  readonly reworked: boolean;
  /** per row: chance that the part is no longer the variant's own */
  readonly exchange: Float64Array;
  readonly signs: readonly number[];
  /** per row: the part as the variant's own, (1−s)·ΠL */
  readonly own: Float64Array;
  /** per row: the part as a donor's, s·D */
  readonly donor: Float64Array;
  /** what just any piece would show */
  readonly background: number;
}

export interface Posterior {
  /** rows that `within` leaves; all others have probability 0 */
  readonly left: readonly Row[];
  /** the same rows, likeliest first; ties in the order of the reference */
  readonly ranked: readonly Row[];
  /** per row */
  readonly probability: Float64Array;
  readonly unlisted: number;
  readonly parts: readonly PartWeight[];
  /** per sign with a date, per row: Σ_t P(t|v)·P(o|t) for that sign alone, 1 where the date says nothing */
  readonly datedAlone: readonly (Float64Array | undefined)[];
}

const NO_HISTORY: PieceHistory = { marks: [], numbers: undefined };

/** ln of a product of many small factors: multiplied as long as it stays well above underflow, then taken over. */
class LogProduct {
  #log = 0;
  #product: number;
  constructor(first: number) {
    this.#product = first;
  }
  times(factor: number): void {
    this.#product *= factor;
    if (this.#product < 1e-200) {
      this.#log += Math.log(this.#product);
      this.#product = 1;
    }
  }
  log(): number {
    return this.#log + Math.log(this.#product);
  }
}

export function rowsWithin(index: ReferenceIndex, within: Within | null | undefined): Row[] {
  const set = <T>(list: readonly T[] | null | undefined) =>
    list && list.length > 0 ? new Set(list) : undefined;
  const makers = set(within?.makers);
  const patterns = set(within?.patterns);
  const constructions = set<Construction>(within?.constructions);
  return index.rows.filter(
    (row) =>
      (!makers || makers.has(row.maker.id)) &&
      (!patterns || patterns.has(row.pattern.id)) &&
      (!constructions || constructions.has(row.construction)),
  );
}

/** P(t|v)-weighted mean of a factor over the months a variant was made, through prefix sums. */
export function overItsMonths(prefix: Float64Array, from: number, row: Row): number {
  let sum = 0;
  for (const { months, share } of row.madeOver) {
    const a = months.from - from;
    const b = months.to - from + 1;
    sum += (share * ((prefix[b] ?? 0) - (prefix[a] ?? 0))) / (b - a);
  }
  return sum;
}

export function prefixOf(factor: Float64Array): Float64Array {
  const prefix = new Float64Array(factor.length + 1);
  for (let i = 0; i < factor.length; i++) prefix[i + 1] = (prefix[i] ?? 0) + (factor[i] ?? 0);
  return prefix;
}

export function posteriorOf(
  index: ReferenceIndex,
  signs: readonly Sign[],
  within: Within | null | undefined,
  found: FoundPlace,
  settings: BenchSettings,
  history: PieceHistory = NO_HISTORY,
): Posterior {
  const left = rowsWithin(index, within);
  const parts = partsOf(index, signs, history, settings);
  const dates = dateWeights(index, signs, left);
  const prior = priorOf(left, found, settings);
  const logs = new Float64Array(index.rows.length).fill(-Infinity);
  let top = -Infinity;
  for (const row of left) {
    const product = new LogProduct((prior[row.index] ?? 0) * (dates[row.index] ?? 1));
    for (const part of parts) product.times((part.own[row.index] ?? 0) + (part.donor[row.index] ?? 0));
    const log = product.log();
    logs[row.index] = log;
    top = Math.max(top, log);
  }
  const listedPrior = left.length > 0 ? 1 - settings.unlistedPrior : 0;
  const unlistedLog = Math.log(1 - listedPrior) + unlistedLogLikelihood(index, signs, dates, left, settings);
  top = Math.max(top, unlistedLog);
  const probability = new Float64Array(index.rows.length);
  let sum = Math.exp(unlistedLog - top);
  for (const row of left) {
    const p = Math.exp((logs[row.index] ?? -Infinity) + Math.log(listedPrior) - top);
    probability[row.index] = p;
    sum += p;
  }
  for (const row of left) probability[row.index] = (probability[row.index] ?? 0) / sum;
  const ranked = [...left].sort(
    (a, b) => (probability[b.index] ?? 0) - (probability[a.index] ?? 0) || a.index - b.index,
  );
  return {
    left,
    ranked,
    probability,
    unlisted: Math.exp(unlistedLog - top) / sum,
    parts,
    datedAlone: signs.map((sign) => aloneByDate(index, sign)),
  };
}

/** Quantity made, counterfeits sharing a total by where the piece was found. Adds up to 1 over the rows left. */
function priorOf(left: readonly Row[], found: FoundPlace, settings: BenchSettings): Record<number, number> {
  const isFake = (row: Row) => row.variant.kind === 'counterfeit';
  const sum = (rows: readonly Row[]) => rows.reduce((total, row) => total + Math.max(row.quantity, 1e-9), 0);
  const fakes = left.filter(isFake);
  const genuine = left.filter((row) => !isFake(row));
  const fakeShare = fakes.length === 0 ? 0 : genuine.length === 0 ? 1 : settings.counterfeits[found];
  const totals = { fake: sum(fakes), genuine: sum(genuine) };
  const prior: Record<number, number> = {};
  for (const row of left)
    prior[row.index] = isFake(row)
      ? (fakeShare * Math.max(row.quantity, 1e-9)) / totals.fake
      : ((1 - fakeShare) * Math.max(row.quantity, 1e-9)) / totals.genuine;
  return prior;
}

function partsOf(
  index: ReferenceIndex,
  signs: readonly Sign[],
  history: PieceHistory,
  settings: BenchSettings,
): PartWeight[] {
  const byPart = new Map<string, { part: string; mark: HistoryMark | undefined; members: number[] }>();
  signs.forEach((sign, i) => {
    const mark = 'feature' in sign.subject ? changedBy(history, sign.subject.feature) : undefined;
    const key = `${sign.part} ${mark?.id ?? ''}`;
    const list = byPart.get(key);
    if (list) list.members.push(i);
    else byPart.set(key, { part: sign.part, mark, members: [i] });
  });
  return [...byPart.values()].map(({ part, mark, members }) => {
    const product = new Float64Array(index.rows.length).fill(1);
    let background = 1;
    for (const i of members) {
      const sign = signs[i];
      if (!sign) continue;
      background *= sign.background;
      for (let r = 0; r < product.length; r++) product[r] = (product[r] ?? 0) * (sign.likelihood[r] ?? 1);
    }
    // features of one part may differ in swap class; the part goes as easily as its easiest feature
    const swaps = members.map((i) => signs[i]?.swap ?? 'hard');
    const swap = swaps.reduce((a, b) => (settings.exchange[b] > settings.exchange[a] ? b : a));
    const s = exchangeChance(history, part, settings.exchange[swap], settings);
    const exchange = new Float64Array(product.length).fill(s);
    // a variant that bears the stamp by making was made as it is; any other was changed
    if (mark)
      for (const row of index.rows)
        if (!row.variant.marks?.includes(mark.id)) exchange[row.index] = settings.changedByRework;
    const donors = donorMeans(index, product, settings);
    const own = new Float64Array(product.length);
    const donor = new Float64Array(product.length);
    for (const row of index.rows) {
      const gone = exchange[row.index] ?? s;
      own[row.index] = (1 - gone) * (product[row.index] ?? 0);
      donor[row.index] = gone * (donors[row.group] ?? 0);
    }
    return { part, swap, reworked: mark !== undefined, exchange, signs: members, own, donor, background };
  });
}

/** Mean of the part's likelihood over plausible donors: same construction, mostly the same maker. */
function donorMeans(index: ReferenceIndex, product: Float64Array, settings: BenchSettings): number[] {
  const byConstruction = new Map<string, { total: number; n: number }>();
  const ofGroup = index.groups.map((group) => {
    const total = group.rows.reduce((sum, r) => sum + (product[r] ?? 0), 0);
    const all = byConstruction.get(group.construction) ?? { total: 0, n: 0 };
    byConstruction.set(group.construction, { total: all.total + total, n: all.n + group.rows.length });
    return total / Math.max(1, group.rows.length);
  });
  return index.groups.map((group, g) => {
    const all = byConstruction.get(group.construction);
    const anyone = all ? all.total / Math.max(1, all.n) : 0;
    return settings.donorSameMaker * (ofGroup[g] ?? 0) + (1 - settings.donorSameMaker) * anyone;
  });
}

function aloneByDate(index: ReferenceIndex, sign: Sign): Float64Array | undefined {
  const dated = sign.dated;
  if (!dated) return undefined;
  const prefixes = dated.factors.map(prefixOf);
  const alone = new Float64Array(index.rows.length);
  for (const row of index.rows) {
    const prefix = prefixes[dated.classOf[row.index] ?? -1];
    const judge = index.rows[row.judgedAs] ?? row;
    alone[row.index] = prefix ? overItsMonths(prefix, dated.from, judge) : 1;
  }
  return alone;
}

/** Σ_t P(t|v)·ΠP(o|t): rows that fall under the same factors share one table of prefix sums. */
function dateWeights(index: ReferenceIndex, signs: readonly Sign[], left: readonly Row[]): Float64Array {
  const weights = new Float64Array(index.rows.length).fill(1);
  const dated = signs.flatMap((sign) => (sign.dated ? [sign.dated] : []));
  if (dated.length === 0) return weights;
  const tables = new Map<string, Float64Array>();
  for (const row of left) {
    const classes = dated.map((d) => d.classOf[row.index] ?? -1);
    if (classes.every((c) => c < 0)) continue;
    const key = classes.join(' ');
    let prefix = tables.get(key);
    if (!prefix) {
      prefix = prefixOf(productOf(index, dated, classes));
      tables.set(key, prefix);
    }
    weights[row.index] = overItsMonths(prefix, index.calendar.from, index.rows[row.judgedAs] ?? row);
  }
  return weights;
}

export function productOf(
  index: ReferenceIndex,
  dated: readonly { factors: readonly Float64Array[] }[],
  classes: readonly number[],
): Float64Array {
  const product = new Float64Array(index.calendar.length).fill(1);
  dated.forEach((d, k) => {
    const factor = d.factors[classes[k] ?? -1];
    if (factor) for (let i = 0; i < product.length; i++) product[i] = (product[i] ?? 0) * (factor[i] ?? 0);
  });
  return product;
}

/** Half "a relative nobody described", half just anything. */
function unlistedLogLikelihood(
  index: ReferenceIndex,
  signs: readonly Sign[],
  dates: Float64Array,
  left: readonly Row[],
  settings: BenchSettings,
): number {
  const m = settings.relativeDiffers;
  const background = signs.reduce((log, sign) => log + Math.log(sign.background), 0);
  const rows = left.length > 0 ? left : index.rows;
  if (rows.length === 0) return background;
  const logs = rows.map((row) => {
    const product = new LogProduct(dates[row.index] ?? 1);
    for (const sign of signs)
      product.times((1 - m) * (sign.likelihood[row.index] ?? 0) + m * (sign.differing[row.index] ?? 0));
    return product.log();
  });
  const top = logs.reduce((a, b) => Math.max(a, b), background);
  const relatives = logs.reduce((sum, log) => sum + Math.exp(log - top), 0) / rows.length;
  return top + Math.log(0.5 * relatives + 0.5 * Math.exp(background - top));
}
