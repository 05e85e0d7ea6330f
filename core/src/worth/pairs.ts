/**
 * Paired sales: two of the same variant that differ in one thing only. What the engine says of that thing can be held
 * against what buyers paid for it.
 */
import { type Comparable, type Line, median, type Market, type PricedRow } from '../market/index.ts';

export interface SalePair {
  /** the one that has more of it, and the one that has less */
  readonly more: Comparable;
  readonly less: Comparable;
  /** what all of it came to in the base currency */
  readonly paidMore: number;
  readonly paidLess: number;
  readonly percent: number;
  /** what the engine says of the same difference, how prices moved between them left out */
  readonly engine: number;
  readonly daysApart: number;
}
export interface PairsOfLine {
  readonly line: Line;
  /** in words: `box against none` */
  readonly said: string;
  /** median of the pairs, and of what the engine says of them */
  readonly middle: number;
  readonly engine: number;
  /** nearest in time first */
  readonly pairs: readonly SalePair[];
}

/** Prices farther apart were paid in another market. */
const MOST_DAYS = 730;
/** Indexes that near are one condition; that far, two. */
const SAME_CONDITION = 4;
const OTHER_CONDITION = 10;
const MOST_OF_A_VARIANT = 250;
const SOUND = 0.5;
export const PAIRS_SHOWN = 6;

interface Difference {
  readonly line: Line;
  readonly said: string;
  /** the first of the two is the one with more */
  readonly first: boolean;
  /** by how much of the thing they differ, in the units that `said` speaks of */
  readonly by: number;
}

/** @param sales of one pattern; asked and offered prices are held against sold ones only */
export function pairsBehind(market: Market, sales: readonly Comparable[]): PairsOfLine[] {
  const byVariant = new Map<string, PricedRow[]>();
  for (const sale of sales.toSorted((a, b) => b.day - a.day || (a.id < b.id ? -1 : 1))) {
    if (sale.variant === undefined || sale.priceKind === 'offer') continue;
    const list = byVariant.get(sale.variant) ?? [];
    byVariant.set(sale.variant, list);
    if (list.length >= MOST_OF_A_VARIANT) continue;
    const row = market.price(sale);
    // what the engine takes for an error says nothing of a box
    if (row && row.sound >= SOUND) list.push(row);
  }
  const found = new Map<string, { line: Line; said: string; pairs: SalePair[] }>();
  for (const rows of byVariant.values())
    rows.forEach((one, i) => {
      for (const other of rows.slice(i + 1)) {
        const difference = onlyDifference(one.sale, other.sale);
        if (!difference) continue;
        const entry = found.get(difference.said) ?? {
          line: difference.line,
          said: difference.said,
          pairs: [],
        };
        found.set(difference.said, entry);
        entry.pairs.push(pairOf(market, difference, one, other));
      }
    });
  return [...found.values()]
    .map(({ line, said, pairs }): PairsOfLine => ({
      line,
      said,
      middle: median(pairs.map((p) => p.percent)),
      engine: median(pairs.map((p) => p.engine)),
      pairs: pairs.sort((a, b) => a.daysApart - b.daysApart),
    }))
    .sort((a, b) => b.pairs.length - a.pairs.length || (a.said < b.said ? -1 : 1));
}

function pairOf(market: Market, { first, by }: Difference, one: PricedRow, other: PricedRow): SalePair {
  const [more, less] = first ? [one, other] : [other, one];
  const percent = (log: number) => 100 * (Math.exp(log / by) - 1);
  return {
    more: more.sale,
    less: less.sale,
    paidMore: more.converted,
    paidLess: less.converted,
    percent: percent(Math.log(more.converted / less.converted)),
    engine: percent(timeless(market, more) - timeless(market, less)),
    daysApart: Math.abs(more.sale.day - less.sale.day),
  };
}

/** What the columns say of a price, but for its day. */
function timeless(market: Market, { x }: PricedRow): number {
  const { plan, theta } = market.fitted;
  return x.columns.reduce(
    (sum, j, n) => (plan.columns[j]?.line === 'time' ? sum : sum + (x.values[n] ?? 0) * (theta[j] ?? 0)),
    x.untouched.reduce((sum, { line, log }) => (line === 'time' ? sum : sum + log), 0),
  );
}

/** The one thing in which two sales of a variant differ; undefined where it is none, or more than one. */
function onlyDifference(a: Comparable, b: Comparable): Difference | undefined {
  if (Math.abs(a.day - b.day) > MOST_DAYS) return undefined;
  // a premium that nobody told is a second unknown
  if ((a.buyerPremiumPct === undefined) !== (b.buyerPremiumPct === undefined)) return undefined;
  const found: Difference[] = [];
  for (const item of ['box', 'papers', 'sheath'] as const) {
    if (a[item] === b[item]) continue;
    const states = new Set([a[item], b[item]]);
    if (!states.has('original') || !states.has('none')) return undefined;
    found.push({ line: item, said: `${item} against none`, first: a[item] === 'original', by: 1 });
  }
  const more = a.alterations.filter((x) => !b.alterations.includes(x));
  const less = b.alterations.filter((x) => !a.alterations.includes(x));
  if (more.length + less.length > 1) return undefined;
  for (const [first, alteration] of [[true, more[0]] as const, [false, less[0]] as const])
    if (alteration !== undefined)
      found.push({ line: 'alterations', said: `${alteration} against not`, first, by: 1 });
  if (a.priceKind !== b.priceKind)
    found.push({ line: 'price kind', said: 'asked against sold', first: a.priceKind === 'asking', by: 1 });
  if (a.venueKind !== b.venueKind) {
    const [first, second] = [a.venueKind, b.venueKind].sort();
    found.push({
      line: 'venue',
      said: `${first ?? ''} against ${second ?? ''}`,
      first: a.venueKind === first,
      by: 1,
    });
  }
  if ((a.conditionIndex === undefined) !== (b.conditionIndex === undefined)) return undefined;
  const points = (a.conditionIndex ?? 0) - (b.conditionIndex ?? 0);
  if (Math.abs(points) > SAME_CONDITION) {
    if (Math.abs(points) < OTHER_CONDITION) return undefined;
    found.push({
      line: 'condition',
      said: 'ten points of condition',
      first: points > 0,
      by: Math.abs(points) / 10,
    });
  }
  return found.length === 1 ? found[0] : undefined;
}
