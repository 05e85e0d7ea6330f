/**
 * How prices moved over a year: the tide of the market and of a maker as the regression has them, and of a pattern what
 * its own sales did beyond that. Nothing is said where too few sales speak.
 */
import { describeSubject } from './columns.ts';
import type { Comparable, EstimateSubject } from './comparable.ts';
import type { Market } from './market.ts';
import { varianceOf } from './predict.ts';

const YEAR = 365;

export const TREND_SETTINGS = {
  /** sold prices that each of the two years must have */
  fromMarket: 20,
  fromMaker: 12,
  fromPattern: 8,
  /** sd of what a pattern does beyond its maker within a year, in logs */
  ownSd: 0.08,
} as const;

export interface Trend {
  readonly of: 'market' | 'maker' | 'pattern';
  /** null for the market as a whole */
  readonly id: string | null;
  /** percent a year, with the ends of its 80 % range */
  readonly percent: number;
  readonly low: number;
  readonly high: number;
  /** sold prices of the last year and of the one before */
  readonly sales: readonly [now: number, before: number];
}

/** Sold prices in the year up to a day, and in the year before that. */
export interface SoldOfPattern {
  readonly pattern: string;
  readonly now: number;
  readonly before: number;
}

const percent = (log: number) => 100 * (Math.exp(log) - 1);
function trend(of: Trend['of'], id: string | null, log: number, sd: number, sales: Trend['sales']): Trend {
  return {
    of,
    id,
    percent: percent(log),
    low: percent(log - 1.2816 * sd),
    high: percent(log + 1.2816 * sd),
    sales,
  };
}

/** What a year did to prices of a pattern by the tides alone: its log, and how uncertain. */
function trendOver(market: Market, pattern: string, day: number): { log: number; sd: number } {
  const subject: EstimateSubject = {
    pattern,
    variants: [],
    conditionIndex: undefined,
    box: 'none',
    papers: 'none',
    sheath: 'none',
    alterations: [],
  };
  const at = (when: number) => market.describe(describeSubject(subject, undefined, 'retail', when));
  const [now, before] = [at(day), at(day - YEAR)];
  // everything but the time is the same in both and falls out
  const difference = {
    columns: [...now.columns, ...before.columns],
    values: [...now.values, ...before.values.map((v) => -v)],
    variant: -1,
  };
  const unseen = Math.max(0, now.beyondVariance - before.beyondVariance);
  return {
    log: market.withoutVariant(now) - market.withoutVariant(before),
    sd: Math.sqrt(varianceOf(market.fitted, difference) + unseen),
  };
}

/** The market and every maker with enough sales, the most sold first. */
export function trendsOfMarket(
  market: Market,
  sold: readonly SoldOfPattern[],
  day: number,
  settings = TREND_SETTINGS,
): Trend[] {
  const byMaker = new Map<string, { now: number; before: number; pattern: string; most: number }>();
  let [now, before] = [0, 0];
  for (const row of sold) {
    now += row.now;
    before += row.before;
    const maker = market.reference.patterns.get(row.pattern)?.maker;
    if (maker === undefined) continue;
    const sum = byMaker.get(maker) ?? { now: 0, before: 0, pattern: row.pattern, most: 0 };
    byMaker.set(maker, { ...sum, now: sum.now + row.now, before: sum.before + row.before });
  }
  const makers = [...byMaker]
    .filter(([, n]) => n.now >= settings.fromMaker && n.before >= settings.fromMaker)
    .sort(([a, m], [b, n]) => n.now - m.now || (a < b ? -1 : 1))
    .map(([id, n]) => {
      const tide = trendOver(market, n.pattern, day);
      return trend('maker', id, tide.log, tide.sd, [n.now, n.before]);
    });
  if (now < settings.fromMarket || before < settings.fromMarket) return makers;
  // a pattern that the regression does not know has the tide of the market alone
  const tide = trendOver(market, '', day);
  return [trend('market', null, tide.log, tide.sd, [now, before]), ...makers];
}

/**
 * One pattern: the tides, and the mean residual of its last year less that of the year before, shrunk.
 * @param sales of the pattern up to the day; undefined where they are too few
 */
export function trendOfPattern(
  market: Market,
  pattern: string,
  sales: readonly Comparable[],
  day: number,
  settings = TREND_SETTINGS,
): Trend | undefined {
  const years = [
    { weight: 0, sum: 0, n: 0 },
    { weight: 0, sum: 0, n: 0 },
  ] as const;
  for (const sale of sales) {
    const year = years[Math.floor((day - sale.day) / YEAR)];
    const row = year && sale.priceKind === 'sold' && sale.day <= day ? market.price(sale) : undefined;
    if (!year || !row) continue;
    Object.assign(year, {
      weight: year.weight + row.weight,
      sum: year.sum + row.weight * row.residual,
      n: year.n + 1,
    });
  }
  const [now, before] = years;
  if (now.n < settings.fromPattern || before.n < settings.fromPattern) return undefined;
  const variance = 1 / now.weight + 1 / before.weight;
  const keep = settings.ownSd ** 2 / (settings.ownSd ** 2 + variance);
  const tide = trendOver(market, pattern, day);
  const own = keep * (now.sum / now.weight - before.sum / before.weight);
  return trend('pattern', pattern, tide.log + own, Math.hypot(tide.sd, Math.sqrt(keep * variance)), [
    now.n,
    before.n,
  ]);
}
