/** Estimates as the shop asks for them: in a venue, brought to its currency. */
import type { Money } from '@jutbank/core/money';
import {
  amountInBase,
  estimateWorth,
  type Estimate,
  type EstimateSubject,
  type VenueKind,
} from '@jutbank/core/market';
import type { MarketOnDay } from './market.ts';

export const estimateIn = async (
  on: MarketOnDay,
  subject: EstimateSubject,
  venue: VenueKind,
): Promise<Estimate> => estimateWorth(on.market, await on.evidence(subject), subject, venue, on.day);

/** An amount brought to the base at the day's rate; undefined where there is none, or no rate for it. */
export const inBase = (on: MarketOnDay, amount: Money | null | undefined): string | undefined =>
  amountInBase(on.rates, on.base, on.day, amount);
