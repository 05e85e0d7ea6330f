/** Estimates as the shop asks for them: in a venue, brought to its currency. */
import { Decimal } from 'decimal.js';
import { money, type Money } from '@jutbank/core/money';
import { estimateWorth, type Estimate, type EstimateSubject, type VenueKind } from '@jutbank/core/market';
import type { MarketOnDay } from './market.ts';

export const estimateIn = async (
  on: MarketOnDay,
  subject: EstimateSubject,
  venue: VenueKind,
): Promise<Estimate> => estimateWorth(on.market, await on.evidence(subject), subject, venue, on.day);

/** An amount brought to the base at the day's rate; undefined where there is none, or no rate for it. */
export function inBase(on: MarketOnDay, amount: Money | null | undefined): string | undefined {
  const rate = amount ? on.rates(amount.currency, on.day) : undefined;
  return amount && rate !== undefined
    ? money(new Decimal(amount.amount).div(rate), on.base).amount
    : undefined;
}
