/** The fitted market of a day: fitted once for what it rests on, then shared. Never older than an answered import. */
import { dayOf } from '@jutbank/core/dates';
import { money, type Money } from '@jutbank/core/money';
import {
  estimateWorth,
  fitMarket,
  type EstimateSubject,
  type Market,
  type MarketReference,
  type RateOn,
  type VenueKind,
} from '@jutbank/core/value';
import type { EstimateAnswer, EstimateQuestion } from '@jutbank/contract/value';
import { revisions, type Database, type Queries } from '../db/index.ts';
import { invalid } from '../http/index.ts';
import type { Library } from '../reference/index.ts';
import { shopOf } from '../shop/index.ts';
import { comparablesByIds, loadRates, rateOn, salesUpTo } from './queries.ts';

const MOST_MARKETS = 8;

export interface MarketOnDay {
  readonly market: Market;
  readonly rates: RateOn;
  readonly base: string;
  readonly day: number;
}

const dayNumber = (iso: string) =>
  dayOf(Number(iso.slice(0, 4)), Number(iso.slice(5, 7)), Number(iso.slice(8, 10)));

export class Markets {
  readonly #fitted = new Map<string, Promise<MarketOnDay>>();

  constructor(
    readonly database: Database,
    readonly library: Library,
  ) {}

  async on(asOf: string): Promise<MarketOnDay> {
    const now = await revisions(this.database);
    const key = [now.reference, now.comparables, now.rates, asOf].join(' ');
    const known = this.#fitted.get(key);
    if (known) return known;
    const fitting = this.#fit(asOf);
    this.#fitted.set(key, fitting);
    fitting.catch(() => this.#fitted.delete(key));
    for (const old of this.#fitted.keys()) {
      if (this.#fitted.size <= MOST_MARKETS) break;
      this.#fitted.delete(old);
    }
    return fitting;
  }

  async #fit(asOf: string): Promise<MarketOnDay> {
    const [sales, table, shop, index] = await Promise.all([
      salesUpTo(this.database, asOf),
      loadRates(this.database),
      shopOf(this.database),
      this.library.index(),
    ]);
    const rates = rateOn(table, shop.baseCurrency);
    const reference: MarketReference = {
      patterns: index.patterns,
      variants: new Map(
        index.rows.map((row) => [
          row.variant.id,
          { id: row.variant.id, pattern: row.pattern.id, kind: row.variant.kind },
        ]),
      ),
    };
    const day = dayNumber(asOf);
    return { market: fitMarket(sales, reference, rates, day), rates, base: shop.baseCurrency, day };
  }
}

/** An estimate in the asked currency, with the sales it rests on. */
export async function answerEstimate(
  db: Queries,
  on: MarketOnDay,
  question: EstimateQuestion,
): Promise<EstimateAnswer> {
  const { subject } = question;
  const rate = on.rates(question.currency, on.day);
  if (rate === undefined)
    throw invalid([
      {
        pointer: '/currency',
        message: `no exchange rate for ${question.currency} is known on or before ${question.asOf}`,
      },
    ]);
  const reference = on.market.design.reference;
  if (!reference.patterns.has(subject.pattern))
    throw invalid([{ pointer: '/subject/pattern', message: `there is no pattern “${subject.pattern}”` }]);
  const strange = subject.variants.findIndex((v) => reference.variants.get(v.variant)?.pattern === undefined);
  if (strange >= 0)
    throw invalid([
      {
        pointer: `/subject/variants/${strange}/variant`,
        message: `there is no variant “${subject.variants[strange]?.variant ?? ''}”`,
      },
    ]);
  const asked: EstimateSubject = {
    pattern: subject.pattern,
    variants: subject.variants,
    conditionIndex: subject.conditionIndex ?? undefined,
    box: subject.box ?? undefined,
    papers: subject.papers ?? undefined,
    sheath: subject.sheath ?? undefined,
    alterations: subject.alterations ?? [],
  };
  const estimate = estimateWorth(on.market, asked, question.venueKind, on.day);
  const amount = (base: number): Money => money((base * rate).toFixed(6), question.currency);
  const logRate = Math.log(rate);
  const records = await comparablesByIds(
    db,
    estimate.comparables.map((row) => row.sale.id),
  );
  return {
    estimate: amount(estimate.estimate),
    low: amount(estimate.low),
    high: amount(estimate.high),
    level: estimate.level,
    byVariant: estimate.byVariant.map((v) => ({
      ...v,
      estimate: amount(v.estimate),
      low: amount(v.low),
      high: amount(v.high),
      predictive: { ...v.predictive, location: v.predictive.location + logRate },
    })),
    comparables: estimate.comparables.map((row) => {
      const record = records.get(row.sale.id);
      return {
        id: row.sale.id,
        saleDate: record?.saleDate ?? '',
        venue: record?.cells.venue ?? row.sale.venueKind,
        priceKind: row.sale.priceKind,
        variant: row.sale.variant ?? null,
        paid: row.sale.price,
        converted: row.excluded === null ? amount(row.converted) : null,
        adjusted: row.excluded === null ? amount(row.adjusted) : null,
        weight: Math.round(row.weight * 1e8) / 1e8,
        adjustments: row.adjustments.map((a) => ({ name: a.name, percent: a.percent })),
        excluded: row.excluded,
      };
    }),
    rest: {
      weight: Math.round(estimate.rest.weight * 1e8) / 1e8,
      adjusted: amount(estimate.rest.adjusted),
      count: estimate.rest.count,
    },
    methods: estimate.methods.map((m) => ({ name: m.name, estimate: amount(m.estimate) })),
    thin: estimate.thin,
    notes: [...estimate.notes],
  };
}

export const VENUE_OF_SHOP: VenueKind = 'retail';
