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
  /** the leading ones of them, likeliest first; ties in the order of the reference */
  readonly ranked: readonly Row[];
  /** per row */
  readonly probability: Float64Array;
  readonly unlisted: number;
  readonly parts: readonly PartWeight[];
  /** per sign with a date, per row: Σ_t P(t|v)·P(o|t) for that sign alone, 1 where the date says nothing */
  readonly datedAlone: readonly (Float64Array | undefined)[];
}

const NO_HISTORY: PieceHistory = { marks: [], numbers: undefined };

/** Products of many small factors, one for each row: multiplied until one nears underflow, then taken as logs. */
class Products {
  readonly #product: Float64Array;
  readonly #log: Float64Array;
  constructor(first: Float64Array) {
    this.#product = Float64Array.from(first);
    this.#log = new Float64Array(first.length);
  }
  /** Multiplies every row by `a·x + b·y`. */
  times(x: Float64Array, y: Float64Array, a = 1, b = 1): void {
    const product = this.#product;
    for (let r = 0; r < product.length; r++) {
      const next = (product[r] ?? 0) * (a * (x[r] ?? 0) + b * (y[r] ?? 0));
      if (next < 1e-200) {
        this.#log[r] = (this.#log[r] ?? 0) + Math.log(next);
        product[r] = 1;
      } else product[r] = next;
    }
  }
  logs(): Float64Array {
    return this.#log.map((log, r) => log + Math.log(this.#product[r] ?? 0));
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
  const prior = priorOf(index, left, found, settings);
  const products = new Products(dates.map((weight, r) => weight * (prior[r] ?? 0)));
  for (const part of parts) products.times(part.own, part.donor);
  const logs = products.logs();
  const listedPrior = left.length > 0 ? 1 - settings.unlistedPrior : 0;
  const listedLog = Math.log(listedPrior);
  const unlistedLog = Math.log(1 - listedPrior) + unlistedLogLikelihood(index, signs, dates, left, settings);
  let top = unlistedLog;
  for (const row of left) top = Math.max(top, (logs[row.index] ?? -Infinity) + listedLog);
  const probability = new Float64Array(index.rows.length);
  let sum = Math.exp(unlistedLog - top);
  for (const row of left) {
    const p = Math.exp((logs[row.index] ?? -Infinity) + listedLog - top);
    probability[row.index] = p;
    sum += p;
  }
  for (const row of left) probability[row.index] = (probability[row.index] ?? 0) / sum;
  const ranked = leading(left, probability);
  return {
    left,
    ranked,
    probability,
    unlisted: Math.exp(unlistedLog - top) / sum,
    parts,
    datedAlone: signs.map((sign) => aloneByDate(index, sign)),
  };
}

/** Candidates that are put in order; nobody looks further down. */
const RANKED = 400;

function leading(left: readonly Row[], probability: Float64Array): Row[] {
  let rows = left;
  if (left.length > RANKED) {
    const sorted = Float64Array.from(left, (row) => probability[row.index] ?? 0).sort();
    const least = sorted[sorted.length - RANKED] ?? 0;
    rows = left.filter((row) => (probability[row.index] ?? 0) >= least);
  }
  return [...rows]
    .sort((a, b) => (probability[b.index] ?? 0) - (probability[a.index] ?? 0) || a.index - b.index)
    .slice(0, RANKED);
}

/** Quantity made, counterfeits sharing a total by where it was found. Per row; adds up to 1 over the rows left. */
function priorOf(
  index: ReferenceIndex,
  left: readonly Row[],
  found: FoundPlace,
  settings: BenchSettings,
): Float64Array {
  const prior = new Float64Array(index.rows.length);
  const totals = { fake: 0, genuine: 0 };
  for (const row of left) {
    const quantity = Math.max(row.quantity, 1e-9);
    prior[row.index] = quantity;
    totals[row.variant.kind === 'counterfeit' ? 'fake' : 'genuine'] += quantity;
  }
  const fakeShare = totals.fake === 0 ? 0 : totals.genuine === 0 ? 1 : settings.counterfeits[found];
  const scale = { fake: fakeShare / totals.fake, genuine: (1 - fakeShare) / totals.genuine };
  for (const row of left)
    prior[row.index] =
      (prior[row.index] ?? 0) * scale[row.variant.kind === 'counterfeit' ? 'fake' : 'genuine'];
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
    for (let r = 0; r < product.length; r++) {
      const gone = exchange[r] ?? s;
      own[r] = (1 - gone) * (product[r] ?? 0);
      donor[r] = gone * (donors[index.groupOf[r] ?? 0] ?? 0);
    }
    return { part, swap, reworked: mark !== undefined, exchange, signs: members, own, donor, background };
  });
}

/** Mean of the part's likelihood over plausible donors: same construction, mostly the same maker. Per group. */
function donorMeans(index: ReferenceIndex, product: Float64Array, settings: BenchSettings): Float64Array {
  const ofGroup = new Float64Array(index.groups.length);
  for (let r = 0; r < product.length; r++) {
    const group = index.groupOf[r] ?? 0;
    ofGroup[group] = (ofGroup[group] ?? 0) + (product[r] ?? 0);
  }
  const anyone = new Map<string, { total: number; n: number }>();
  index.groups.forEach((group, g) => {
    const all = anyone.get(group.construction) ?? { total: 0, n: 0 };
    all.total += ofGroup[g] ?? 0;
    all.n += group.rows.length;
    anyone.set(group.construction, all);
  });
  const same = settings.donorSameMaker;
  return ofGroup.map((total, g) => {
    const group = index.groups[g];
    const all = anyone.get(group?.construction ?? '');
    return (same * total) / (group?.rows.length || 1) + ((1 - same) * (all?.total ?? 0)) / (all?.n || 1);
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
  const keys = classKeys(index, dated);
  const tables = new Map<number, Float64Array>();
  for (const row of left) {
    const key = keys[row.index] ?? 0;
    if (key === 0) continue;
    let prefix = tables.get(key);
    if (!prefix) {
      const classes = dated.map((d) => d.classOf[row.index] ?? -1);
      prefix = prefixOf(productOf(index, dated, classes));
      tables.set(key, prefix);
    }
    weights[row.index] = overItsMonths(prefix, index.calendar.from, index.rows[row.judgedAs] ?? row);
  }
  return weights;
}

/** Per row a number that stands for its classes under all dated signs; 0 where no date speaks. */
function classKeys(
  index: ReferenceIndex,
  dated: readonly { classOf: Int32Array; factors: readonly Float64Array[] }[],
): Float64Array {
  const keys = new Float64Array(index.rows.length);
  let used = 1;
  for (const { classOf, factors } of dated) {
    // before the numbers outgrow what a float holds exactly, they are counted anew
    if (used * (factors.length + 1) > Number.MAX_SAFE_INTEGER) used = renumbered(keys);
    const width = used;
    for (let r = 0; r < keys.length; r++) keys[r] = (keys[r] ?? 0) + width * ((classOf[r] ?? -1) + 1);
    used *= factors.length + 1;
  }
  return keys;
}

function renumbered(keys: Float64Array): number {
  const numbers = new Map<number, number>([[0, 0]]);
  for (let r = 0; r < keys.length; r++) {
    const key = keys[r] ?? 0;
    let number = numbers.get(key);
    if (number === undefined) numbers.set(key, (number = numbers.size));
    keys[r] = number;
  }
  return numbers.size;
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
  const products = new Products(dates);
  for (const sign of signs) products.times(sign.likelihood, sign.differing, 1 - m, m);
  const logs = products.logs();
  let top = background;
  for (const row of rows) top = Math.max(top, logs[row.index] ?? -Infinity);
  let relatives = 0;
  for (const row of rows) relatives += Math.exp((logs[row.index] ?? -Infinity) - top);
  return top + Math.log((0.5 * relatives) / rows.length + 0.5 * Math.exp(background - top));
}
