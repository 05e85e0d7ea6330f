/** A listing as the record of its piece keeps it. */
import { z } from 'zod';
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
    marketplaceRef: z.string().nullable(),
    messages: z.array(marketMessage),
    /** what the marketplace has not been told yet, oldest first */
    waiting: z.array(waitingErrand),
  })
  .meta({ id: 'ListingRecord' });
export type ListingRecord = z.infer<typeof listingRecord>;
export type WaitingErrand = z.infer<typeof waitingErrand>;
