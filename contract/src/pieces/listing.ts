/** A listing as the record of its piece keeps it. */
import { z } from 'zod';
import { POSTAGE_ZONES } from '@jutbank/core/listing';
import { moneyShape } from '../http/index.ts';

export const marketMessage = z
  .object({
    id: z.string(),
    kind: z.enum(['question', 'offer']),
    from: z.string(),
    text: z.string(),
    amount: moneyShape.nullable(),
    state: z.enum(['open', 'answered', 'accepted', 'declined', 'countered']),
    answer: z.string().nullable(),
    at: z.string(),
  })
  .meta({ id: 'MarketMessage' });
export type MarketMessage = z.infer<typeof marketMessage>;
export const waitingErrand = z
  .object({
    kind: z.enum(['publish', 'reprice', 'answer', 'end']),
    since: z.string(),
    /** what came of the last try; null before the first */
    problem: z.string().nullable(),
    /** it said no, and is not asked again */
    refused: z.boolean(),
  })
  .meta({ id: 'WaitingErrand' });
export const listingRecord = z
  .object({
    state: z.enum(['draft', 'published', 'ended']),
    title: z.string(),
    body: z.string(),
    publishedAt: z.string().nullable(),
    /** the day after which it is up no longer, where listings run out */
    expiresOn: z.string().nullable(),
    marketplaceRef: z.string().nullable(),
    messages: z.array(marketMessage),
    /** what the marketplace has not been told yet, oldest first */
    waiting: z.array(waitingErrand),
  })
  .meta({ id: 'ListingRecord' });
export type ListingRecord = z.infer<typeof listingRecord>;
export type WaitingErrand = z.infer<typeof waitingErrand>;

/** What a carrier asked, as the shop took it for this piece. */
export const takenPostage = z
  .object({
    askedOn: z.string(),
    quotes: z.array(
      z.object({
        zone: z.enum(POSTAGE_ZONES),
        carrier: z.string(),
        service: z.string(),
        price: moneyShape,
        tracked: z.boolean(),
      }),
    ),
  })
  .meta({ id: 'TakenPostage' });
export type TakenPostage = z.infer<typeof takenPostage>;
