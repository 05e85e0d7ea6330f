/** A stored piece between what it cost and what it may bring: estimates by venue, patience, what is left of a price. */
import { money, type Money } from '@jutbank/core/money';
import {
  leftOf,
  askCurve,
  learnHazard,
  type AskPoint,
  type Hazard,
  type Standing,
} from '@jutbank/core/worth';
import { VENUE_OF_SHOP, type Estimate, type EstimateSubject, type VenueKind } from '@jutbank/core/market';
import type { PricingSettings } from '@jutbank/contract/shop';
import type { Queries } from '../db/index.ts';
import { costOf, type PieceRecord, type Readers } from '../pieces/index.ts';
import { usualChannel, pricingSettingsOf } from '../shop/index.ts';
import { subjectAsked, type MarketOnDay, type Markets, estimateIn } from '../market/index.ts';
import { todayIso } from '../clock/index.ts';

/** Where most pieces change hands, and where those who deal in them trade. */
const MARKET: VenueKind = 'online';
const TRADE: VenueKind = 'private';
const WEEKS_PER_MONTH = 52 / 12;

/** The day's market with the shop's habits: what all pieces share. */
export interface ShopPrices {
  readonly on: MarketOnDay;
  readonly settings: PricingSettings;
  readonly hazard: Hazard;
  /** a week of keeping a piece */
  readonly holding: number;
}

export async function shopPrices(db: Queries, markets: Markets): Promise<ShopPrices> {
  const on = await markets.on(todayIso());
  const { settings } = await pricingSettingsOf(db);
  return {
    on,
    settings,
    hazard: learnHazard(await standingsOf(db, on)),
    holding: Number(settings.holdingPerMonth) / WEEKS_PER_MONTH,
  };
}

/** A stored piece with its prices, in the base currency. */
export interface PiecePrices extends ShopPrices {
  readonly subject: EstimateSubject;
  readonly retail: Estimate;
  /** what was paid for it and for what was done to it, brought to the base */
  readonly cost: string | undefined;
  /** what is left of a price after the usual channel and tax */
  readonly net: (price: number) => number;
  readonly points: readonly AskPoint[];
  readonly best: AskPoint;
}

/** Undefined while nothing says which pattern it is. */
export async function piecePrices(
  shop: ShopPrices,
  readers: Readers,
  record: PieceRecord,
): Promise<PiecePrices | undefined> {
  const question = await readers.question(record);
  if (!question) return undefined;
  const { on, settings, hazard, holding } = shop;
  const subject = subjectAsked(question.subject);
  const retail = await estimateIn(on, subject, VENUE_OF_SHOP);
  const cost = costOf(record, on.base, (currency) => on.rates(currency, on.day)?.toString())?.amount;
  const { channel } = usualChannel(settings);
  const net = (price: number) =>
    Number(leftOf(on.base, channel, money(price, on.base).amount, settings.tax, cost ?? '0').left);
  return { ...shop, subject, retail, cost, net, ...askCurve(retail.estimate, hazard, net, holding) };
}

/** The same piece in the market at large and in the trade. */
export async function otherVenues({
  on,
  subject,
}: PiecePrices): Promise<{ market: Estimate; trade: Estimate }> {
  return { market: await estimateIn(on, subject, MARKET), trade: await estimateIn(on, subject, TRADE) };
}

/** The shop's own days on the market: what was asked against what it brought, or stands at. */
async function standingsOf(db: Queries, on: MarketOnDay): Promise<Standing[]> {
  const rows = await db.rows<{
    ask: string | null;
    ask_currency: string | null;
    price: string | null;
    currency: string | null;
    weeks: number;
    body: { worth: { estimate: Money } | null } | null;
  }>(
    `SELECT p.ask, p.ask_currency, s.price, s.currency,
       TIMESTAMPDIFF(HOUR, l.published_at, COALESCE(s.sold_at, UTC_TIMESTAMP(3))) / 168 AS weeks, r.body
     FROM listing l JOIN piece p ON p.id = l.piece_id LEFT JOIN sale s ON s.piece_id = p.id AND s.returned_on IS NULL
     LEFT JOIN piece_reading r ON r.piece_id = p.id
     WHERE l.published_at IS NOT NULL LIMIT 2000`,
  );
  return rows.flatMap((row): Standing[] => {
    const rate = row.ask_currency === null ? undefined : on.rates(row.ask_currency, on.day);
    const estimate = Number(row.body?.worth?.estimate.amount ?? 0);
    if (row.ask === null || rate === undefined || !(estimate > 0)) return [];
    const ratio = Math.max(0.3, Math.min(3, Number(row.ask) / rate / estimate));
    return [{ ratio, weeks: Math.max(0.1, Number(row.weeks)), sold: row.price !== null }];
  });
}
