/**
 * The prices an estimate is shown with, gathered once for a market: a variant may have ten thousand of them, of which
 * a person is shown the fifty that weigh most.
 */
import type { Comparable, EstimateSubject } from './comparable.ts';
import type { ExcludedSale } from './fitted.ts';
import type { Market, PricedRow } from './market.ts';

/** What the plain methods need of a sold price. */
export interface PlainSale {
  readonly converted: number;
  readonly conditionIndex: number | undefined;
  readonly box: boolean;
  readonly papers: boolean;
  readonly altered: boolean;
}
export interface GatheredPrices {
  /** those that weigh most, heaviest first */
  readonly heaviest: readonly PricedRow[];
  readonly count: number;
  /** sum of all weights, and of their squares */
  readonly total: number;
  readonly squares: number;
  /** newest sold prices */
  readonly sold: readonly PlainSale[];
  /** all sold prices, ascending */
  readonly soldPrices: Float64Array;
}

export const NOTHING_GATHERED: GatheredPrices = {
  heaviest: [],
  count: 0,
  total: 0,
  squares: 0,
  sold: [],
  soldPrices: new Float64Array(0),
};

export interface Evidence {
  /** prices of each variant that is asked about */
  readonly own: ReadonlyMap<string, GatheredPrices>;
  /** those of the pattern, for the plain methods where the variant has none */
  readonly pattern: GatheredPrices;
  /** prices of the pattern that could not be used */
  readonly excluded: readonly { readonly sale: Comparable; readonly reason: ExcludedSale['reason'] }[];
}

export const MOST_ROWS = 50;
const MOST_PLAIN = 1000;

/**
 * @param sales up to the day of the estimate, newest first
 * @param before gathered already for the same columns, to which these are added
 */
export function gatherPrices(
  market: Market,
  sales: readonly Comparable[],
  before: GatheredPrices = NOTHING_GATHERED,
): GatheredPrices {
  const rows = sales.flatMap((sale) => market.price(sale) ?? []);
  const sold = rows.filter((row) => row.sale.priceKind === 'sold');
  return {
    heaviest: [...before.heaviest, ...rows]
      .sort((a, b) => b.weight - a.weight || (a.sale.id < b.sale.id ? -1 : 1))
      .slice(0, MOST_ROWS),
    count: before.count + rows.length,
    total: rows.reduce((sum, row) => sum + row.weight, before.total),
    squares: rows.reduce((sum, row) => sum + row.weight ** 2, before.squares),
    sold: [
      ...sold.slice(0, MOST_PLAIN).map(({ sale, converted }) => ({
        converted,
        conditionIndex: sale.conditionIndex,
        box: sale.box === 'original',
        papers: sale.papers === 'original',
        altered: sale.alterations.length > 0,
      })),
      ...before.sold,
    ].slice(0, MOST_PLAIN),
    soldPrices: Float64Array.from([...before.soldPrices, ...sold.map((row) => row.converted)]).sort(),
  };
}

/** Evidence picked from a list that is at hand. @param sales those up to the day of the estimate */
export function evidenceIn(sales: readonly Comparable[], market: Market, subject: EstimateSubject): Evidence {
  const of = sales.filter((s) => s.pattern === subject.pattern).sort((a, b) => b.day - a.day);
  const reasons = new Map(market.fitted.excluded.map((e) => [e.id, e.reason]));
  return {
    own: new Map(
      subject.variants.map(({ variant }) => [
        variant,
        gatherPrices(
          market,
          of.filter((s) => s.variant === variant),
        ),
      ]),
    ),
    pattern: gatherPrices(market, of),
    excluded: of.flatMap((sale) => {
      const reason = reasons.get(sale.id);
      return reason === undefined ? [] : [{ sale, reason }];
    }),
  };
}

/** NaN of nothing. */
export const median = (values: readonly number[]): number => medianOfSorted(Float64Array.from(values).sort());
export function medianOfSorted(sorted: Float64Array): number {
  const middle = sorted.length / 2;
  return ((sorted[Math.ceil(middle) - 1] ?? NaN) + (sorted[Math.floor(middle)] ?? NaN)) / 2;
}
