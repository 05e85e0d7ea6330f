/**
 * Posterior over variants and "unlisted": prior × parts (whole or exchanged) × dates (engines.md, Identification).
 */
import type { Construction } from '../reference/index.ts';
import { byMonth } from './byMonth.ts';
import type { ReferenceIndex } from './compile.ts';
import type { Row } from './compiled.ts';
import { changedBy, exchangeChance, type HistoryMark, type PieceHistory } from './history.ts';
import { overMonths, prefixOf } from './overMonths.ts';
import type { PartWeight } from './parts.ts';
import type { FoundPlace, Within } from './observation.ts';
import type { BenchSettings } from './settings.ts';
import type { ObservationEvidence } from './observationEvidence.ts';
import { NEGLIGIBLE_LOG, unlistedLogLikelihood } from './unlisted.ts';

/** The innermost loop of a question: every row takes what the table says of its cell. */
function multiplyByCells(product: Float64Array, cellOf: Int32Array, table: Float64Array): void {
  const n = product.length;
  for (let r = 0; r < n; r++) product[r] = (product[r] ?? 0) * (table[cellOf[r] ?? 0] ?? 0);
}

export interface Posterior {
  /** rows that `within` leaves; all others have probability 0 */
  readonly left: Int32Array;
  /** the leading ones of them, likeliest first; ties in the order of the reference */
  readonly ranked: readonly Row[];
  /** per row */
  readonly probability: Float64Array;
  readonly unlisted: number;
  readonly parts: readonly PartWeight[];
  /** per sign with a date, of a row: Σ_t P(t|v)·P(o|t) for that sign alone, 1 where the date says nothing */
  readonly datedAlone: readonly (((row: number) => number) | undefined)[];
}

const NO_HISTORY: PieceHistory = { marks: [], numbers: undefined };

/** Products of many small factors, one for each row: multiplied until one nears underflow, then taken as logs. */
class Products {
  readonly #product: Float64Array;
  readonly #log: Float64Array;
  #least = 1;
  constructor(first: Float64Array) {
    this.#product = Float64Array.from(first);
    this.#log = new Float64Array(first.length);
  }
  /** Multiplies every row by its part: (1−s)·ΠL + s·D. */
  timesPart({ groupOf }: ReferenceIndex, { whole, donors, exchange }: PartWeight): void {
    const product = this.#product;
    let least = 1;
    if (typeof exchange === 'number') {
      const kept = 1 - exchange;
      const donated = donors.map((d) => exchange * d);
      for (let r = 0; r < product.length; r++) {
        const next = (product[r] ?? 0) * (kept * (whole[r] ?? 0) + (donated[groupOf[r] ?? 0] ?? 0));
        product[r] = next;
        if (next < least) least = next;
      }
    } else
      for (let r = 0; r < product.length; r++) {
        const s = exchange[r] ?? 0;
        const next = (product[r] ?? 0) * ((1 - s) * (whole[r] ?? 0) + s * (donors[groupOf[r] ?? 0] ?? 0));
        product[r] = next;
        if (next < least) least = next;
      }
    this.#least = least;
    this.#settle();
  }
  /** Rows that near underflow go over into logs; one factor alone is never that small. */
  #settle(): void {
    if (this.#least >= NEAR_NOTHING) return;
    const product = this.#product;
    const log = this.#log;
    for (let r = 0; r < product.length; r++) {
      const p = product[r] ?? 0;
      if (p < NEAR_NOTHING) {
        log[r] = (log[r] ?? 0) + Math.log(p);
        product[r] = 1;
      }
    }
  }
  logs(): Float64Array {
    const product = this.#product;
    const log = this.#log;
    for (let r = 0; r < log.length; r++) log[r] = (log[r] ?? 0) + Math.log(product[r] ?? 0);
    return log;
  }
}
const NEAR_NOTHING = 1e-200;

export function rowsWithin(index: ReferenceIndex, within: Within | null | undefined): Int32Array {
  const set = <T>(list: readonly T[] | null | undefined) =>
    list && list.length > 0 ? new Set(list) : undefined;
  const makers = set(within?.makers);
  const patterns = set(within?.patterns);
  const constructions = set<Construction>(within?.constructions);
  if (!makers && !patterns && !constructions) return index.everyRow;
  // makers and constructions are those of a row's group; only patterns need the rows themselves
  const groups = index.groups.map(
    (g) => (!makers || makers.has(g.maker)) && (!constructions || constructions.has(g.construction)),
  );
  return index.everyRow.filter(
    (r) => groups[index.groupOf[r] ?? 0] && (!patterns || patterns.has(index.rows[r]?.pattern.id ?? '')),
  );
}

export function posteriorOf(
  index: ReferenceIndex,
  signs: readonly ObservationEvidence[],
  within: Within | null | undefined,
  found: FoundPlace,
  settings: BenchSettings,
  history: PieceHistory = NO_HISTORY,
): Posterior {
  const left = rowsWithin(index, within);
  const parts = partsOf(index, signs, history, settings);
  const dates = dateWeights(index, signs, left);
  const prior = priorOf(index, left, found, settings);
  const products = new Products(prior.map((p, r) => p * (dates[r] ?? 1)));
  for (const part of parts) products.timesPart(index, part);
  const logs = products.logs();
  const datedAlone = signs.map((sign) => aloneByDate(index, sign));
  refine(
    left,
    logs,
    prior,
    byMonth(index, signs, parts, datedAlone, (whole) => donorMeans(index, whole, settings)),
  );
  const listedPrior = left.length > 0 ? 1 - index.frequency.unlisted : 0;
  const listedLog = Math.log(listedPrior);
  const otherLog = Math.log(1 - listedPrior);
  let listedTop = -Infinity;
  for (let i = 0; i < left.length; i++)
    listedTop = Math.max(listedTop, (logs[left[i] ?? 0] ?? -Infinity) + listedLog);
  const unlistedLog =
    otherLog +
    unlistedLogLikelihood(
      index,
      signs,
      parts,
      unlistedStart(index, prior, dates),
      left,
      listedTop - otherLog + NEGLIGIBLE_LOG,
      settings,
    );
  const top = Math.max(unlistedLog, listedTop);
  const probability = new Float64Array(index.rows.length);
  let sum = Math.exp(unlistedLog - top);
  for (let i = 0; i < left.length; i++) {
    const r = left[i] ?? 0;
    const p = Math.exp((logs[r] ?? -Infinity) + listedLog - top);
    probability[r] = p;
    sum += p;
  }
  for (let r = 0; r < probability.length; r++) probability[r] = (probability[r] ?? 0) / sum;
  const ranked = leading(index, left, probability);
  return {
    left,
    ranked,
    probability,
    unlisted: Math.exp(unlistedLog - top) / sum,
    parts,
    datedAlone,
  };
}

/** Leading rows that are weighed month by month, and how far behind the first one a row may be for it. */
const REFINED = 120;
const REFINED_LOG = Math.log(1e-5);

function refine(
  left: Int32Array,
  logs: Float64Array,
  prior: Float64Array,
  exactly: ((row: number) => number) | undefined,
): void {
  if (!exactly) return;
  let top = -Infinity;
  for (let i = 0; i < left.length; i++) top = Math.max(top, logs[left[i] ?? 0] ?? -Infinity);
  const near = left.filter((r) => (logs[r] ?? -Infinity) > top + REFINED_LOG);
  const leading =
    near.length <= REFINED ? near : near.sort((a, b) => (logs[b] ?? 0) - (logs[a] ?? 0)).subarray(0, REFINED);
  for (const r of leading) logs[r] = Math.log(prior[r] ?? 0) + exactly(r);
}

function atLeast(rows: Int32Array, probability: Float64Array, least: number): Int32Array {
  const kept = new Int32Array(rows.length);
  let n = 0;
  for (let i = 0; i < rows.length; i++) {
    const r = rows[i] ?? 0;
    if ((probability[r] ?? 0) >= least) kept[n++] = r;
  }
  return kept.subarray(0, n);
}

/** Candidates that are put in order; nobody looks further down. */
const RANKED = 400;

function leading(index: ReferenceIndex, left: Int32Array, probability: Float64Array): Row[] {
  let rows = left;
  if (left.length > RANKED) {
    let most = 0;
    for (let r = 0; r < probability.length; r++) most = Math.max(most, probability[r] ?? 0);
    // mostly the rows above a low mark are enough, and few to put in order
    for (let share = 1e-3; share > 1e-240; share *= 1e-5) {
      const above = atLeast(left, probability, most * share);
      if (above.length < RANKED) continue;
      rows = above;
      break;
    }
    const chances = new Float64Array(rows.length);
    for (let i = 0; i < rows.length; i++) chances[i] = probability[rows[i] ?? 0] ?? 0;
    chances.sort();
    rows = atLeast(rows, probability, chances[chances.length - RANKED] ?? 0);
  }
  return [...rows]
    .sort((a, b) => (probability[b] ?? 0) - (probability[a] ?? 0) || a - b)
    .slice(0, RANKED)
    .flatMap((r) => index.rows[r] ?? []);
}

/** How often each row left comes to a bench; counterfeits by where it was found. Per row; adds up to 1. */
function priorOf(
  index: ReferenceIndex,
  left: Int32Array,
  found: FoundPlace,
  settings: BenchSettings,
): Float64Array {
  const { counterfeit, frequency } = index;
  const prior = new Float64Array(index.rows.length);
  const share = settings.counterfeits[found];
  const odds = share / (1 - share);
  let sum = 0;
  for (let i = 0; i < left.length; i++) {
    const r = left[i] ?? 0;
    const weight = (frequency.weight[r] ?? 0) * (counterfeit[r] ? odds : 1);
    prior[r] = weight;
    sum += weight;
  }
  for (let i = 0; i < left.length; i++) {
    const r = left[i] ?? 0;
    prior[r] = (prior[r] ?? 0) / (sum || 1);
  }
  return prior;
}

function partsOf(
  index: ReferenceIndex,
  signs: readonly ObservationEvidence[],
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
    const whole = new Float64Array(index.rows.length).fill(1);
    let background = 1;
    for (const i of members) {
      const sign = signs[i];
      if (!sign) continue;
      background *= sign.background;
      multiplyByCells(whole, sign.cellOf, sign.likelihood);
    }
    // features of one part may differ in swap class; the part goes as easily as its easiest feature
    const swaps = members.map((i) => signs[i]?.swap ?? 'hard');
    const swap = swaps.reduce((a, b) => (settings.exchange[b] > settings.exchange[a] ? b : a));
    const s = exchangeChance(history, part, settings.exchange[swap], settings);
    // a variant that bears the stamp by making was made as it is; any other was changed
    const exchange = mark
      ? Float64Array.from(index.rows, (row) =>
          row.variant.marks?.includes(mark.id) ? s : settings.changedByRework,
        )
      : s;
    const donors = donorMeans(index, whole, settings);
    return { part, swap, reworked: mark !== undefined, exchange, signs: members, whole, donors, background };
  });
}

/** Mean of the part's likelihood over plausible donors: same construction, mostly the same maker. Per group. */
function donorMeans(index: ReferenceIndex, whole: Float64Array, settings: BenchSettings): Float64Array {
  const { groupOf, groupSize, constructionOf, constructionSize } = index;
  const ofGroup = new Float64Array(groupSize.length);
  for (let r = 0; r < whole.length; r++) {
    const group = groupOf[r] ?? 0;
    ofGroup[group] = (ofGroup[group] ?? 0) + (whole[r] ?? 0);
  }
  const anyone = new Float64Array(constructionSize.length);
  ofGroup.forEach((total, g) => {
    const at = constructionOf[g] ?? 0;
    anyone[at] = (anyone[at] ?? 0) + total;
  });
  const same = settings.donorSameMaker;
  return ofGroup.map((total, g) => {
    const at = constructionOf[g] ?? 0;
    return (
      (same * total) / (groupSize[g] || 1) + ((1 - same) * (anyone[at] ?? 0)) / (constructionSize[at] || 1)
    );
  });
}

function aloneByDate(
  index: ReferenceIndex,
  sign: ObservationEvidence,
): ((row: number) => number) | undefined {
  const dated = sign.dated;
  if (!dated) return undefined;
  const prefixes: Float64Array[] = [];
  const known = new Float64Array(index.rows.length).fill(NaN);
  return (r) => {
    const before = known[r] ?? NaN;
    if (!Number.isNaN(before)) return before;
    const at = dated.classOf[r] ?? -1;
    const factor = dated.factors[at];
    return (known[r] = factor
      ? overMonths(index, (prefixes[at] ??= prefixOf(factor)), index.judgedAs[r] ?? r)
      : 1);
  };
}

/** Σ_t P(t|v)·ΠP(o|t): rows that fall under the same factors share one table of prefix sums. */
function dateWeights(
  index: ReferenceIndex,
  signs: readonly ObservationEvidence[],
  left: Int32Array,
): Float64Array {
  const weights = new Float64Array(index.rows.length).fill(1);
  const dated = signs.flatMap((sign) => (sign.dated ? [sign.dated] : []));
  if (dated.length === 0) return weights;
  const keys = classKeys(index, dated);
  const tables = new Map<number, Float64Array>();
  for (let i = 0; i < left.length; i++) {
    const r = left[i] ?? 0;
    const key = keys[r] ?? 0;
    if (key === 0) continue;
    let prefix = tables.get(key);
    if (!prefix) {
      const classes = dated.map((d) => d.classOf[r] ?? -1);
      prefix = prefixOf(productOf(index, dated, classes));
      tables.set(key, prefix);
    }
    weights[r] = overMonths(index, prefix, index.judgedAs[r] ?? r);
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

/** Where what is unlisted starts from: the genuine rows as they turn up, in the months the dates allow. */
function unlistedStart(index: ReferenceIndex, prior: Float64Array, dates: Float64Array): Float64Array {
  let genuine = 0;
  for (let r = 0; r < prior.length; r++) if (!index.imitation[r]) genuine += prior[r] ?? 0;
  return prior.map((p, r) => (index.imitation[r] ? 0 : (p * (dates[r] ?? 1)) / (genuine || 1)));
}
