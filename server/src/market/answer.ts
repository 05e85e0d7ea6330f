/** Estimates as they are answered: in the asked currency, with the sales they rest on. */
import { money, type Money } from '@jutbank/core/money';
import {
  estimateWorth,
  type Comparable,
  type Estimate,
  type EstimateSubject,
  type ValueSettings,
} from '@jutbank/core/market';
import type { EstimateAnswer, EstimateQuestion, EstimateRow } from '@jutbank/contract/market';
import type { Queries } from '../db/index.ts';
import { invalid } from '../http/index.ts';
import { pricingSettingsOf } from '../shop/index.ts';
import type { MarketOnDay } from './market.ts';
import { comparablesByIds, rateUsed } from './queries.ts';

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
  const { reference } = on.market;
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
  const asked = subjectAsked(subject);
  const { fixed } = (await pricingSettingsOf(db)).settings;
  const estimate = estimateWorth(
    on.market,
    await on.evidence(asked),
    asked,
    question.venueKind,
    on.day,
    fixed,
  );
  const amount = (base: number): Money => money((base * rate).toFixed(6), question.currency);
  const logRate = Math.log(rate);
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
    comparables: await answeredRows(db, on, estimate, amount),
    rest: {
      weight: Math.round(estimate.rest.weight * 1e8) / 1e8,
      adjusted: amount(estimate.rest.adjusted),
      count: estimate.rest.count,
    },
    methods: estimate.methods.map((m) => ({ name: m.name, estimate: amount(m.estimate) })),
    thin: estimate.thin,
    supported: estimate.supported,
    notes: [...estimate.notes, ...houseNote(on.market.settings)],
  };
}

/** The rows of an estimate as they are answered and kept. @param amount brings the base currency to the asked one */
export async function answeredRows(
  db: Queries,
  on: MarketOnDay,
  estimate: Estimate,
  amount: (base: number) => Money,
): Promise<EstimateRow[]> {
  const records = await comparablesByIds(
    db,
    estimate.comparables.map((row) => row.sale.id),
  );
  return estimate.comparables.map((row) => {
    const record = records.get(row.sale.id);
    return {
      id: row.sale.id,
      saleDate: record?.saleDate ?? '',
      venue: record?.cells.venue ?? row.sale.venueKind,
      priceKind: row.sale.priceKind,
      variant: row.sale.variant ?? null,
      paid: money(row.sale.price.amount, row.sale.price.currency),
      rate: shownRate(on, row.sale),
      converted: row.excluded === null ? amount(row.converted) : null,
      adjusted: row.excluded === null ? amount(row.adjusted) : null,
      weight: Math.round(row.weight * 1e8) / 1e8,
      adjustments: row.adjustments.map((a) => ({ name: a.name, percent: a.percent })),
      excluded: row.excluded,
    };
  });
}

/** Why ranges are not as wide as the market alone says. */
function houseNote({ houseStretch }: ValueSettings): string[] {
  if (houseStretch === 1) return [];
  const percent = Math.round(100 * Math.abs(houseStretch - 1));
  return [
    `The range is ${percent} % ${houseStretch > 1 ? 'wider' : 'narrower'} than the market alone says, by how ranges of this house have held against its own sales.`,
  ];
}

function shownRate(on: MarketOnDay, sale: Comparable): { rate: string; date: string } | null {
  if (sale.price.currency === on.base) return null;
  const used = rateUsed(on.table, sale.price.currency, sale.day);
  return used ? { rate: String(used.rate), date: used.iso } : null;
}

/** The subject in the engine's words: what is null on the wire is unknown. */
export const subjectAsked = (subject: EstimateQuestion['subject']): EstimateSubject => ({
  pattern: subject.pattern,
  variants: subject.variants,
  conditionIndex: subject.conditionIndex ?? undefined,
  box: subject.box ?? undefined,
  papers: subject.papers ?? undefined,
  sheath: subject.sheath ?? undefined,
  alterations: subject.alterations ?? [],
});
