/** A listing as the record of its piece keeps it. */
import type { Money } from '@jutbank/core/money';

export interface MarketMessage {
  id: string;
  kind: 'question' | 'offer';
  from: string;
  text: string;
  amount: Money | null;
  state: 'open' | 'answered' | 'accepted' | 'declined';
  answer: string | null;
  at: string;
}
export interface ListingRecord {
  state: 'draft' | 'published' | 'ended';
  title: string;
  body: string;
  publishedAt: string | null;
  marketplaceRef: string | null;
  messages: MarketMessage[];
  /** what the marketplace has not been told yet, oldest first */
  waiting: WaitingErrand[];
}
export interface WaitingErrand {
  kind: 'publish' | 'answer' | 'end';
  since: string;
  /** what came of the last try; null before the first */
  problem: string | null;
  /** it said no, and is not asked again */
  refused: boolean;
}
