/** Estimates as the shop asks for them: in a venue, brought to its currency, and what to pay at most for what they say. */
import { Decimal } from 'decimal.js';
import { money, type Money } from '@jutbank/core/money';
import { mostToPay, type MostToPay, type Target } from '@jutbank/core/worth';
import {
  estimateWorth,
  mixtureQuantile,
  type Estimate,
  type EstimateSubject,
  type VenueKind,
} from '@jutbank/core/market';
import { CARE, type Care, type PricingSettings } from '@jutbank/contract/shop';
import { usualChannel } from '../shop/index.ts';
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

/** The point of the estimate that is counted on, and the most to pay for it. */
export function ceiling(
  base: string,
  settings: PricingSettings,
  estimate: Estimate,
  care: Care,
): { readonly price: string; readonly most: MostToPay } {
  const price = money(Math.exp(mixtureQuantile(estimate.byVariant, CARE[care])), base).amount;
  const { channel } = usualChannel(settings);
  const most = mostToPay(base, settings.buying, channel, price, settings.target as Target, settings.tax);
  return { price, most };
}
