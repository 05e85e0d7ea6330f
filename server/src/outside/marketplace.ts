/** The marketplace as the shop sees it; the real one would stand behind the same interface. */
import { z } from 'zod';
import type { Money } from '@jutbank/core/money';
import { caller, Unanswered } from './caller.ts';

export interface OutsideListing {
  readonly stockNumber: string;
  readonly title: string;
  readonly body: string;
  readonly price: Money;
  /** the last day on which it is up; absent: until it is ended */
  readonly until?: string;
  /** the same in further languages */
  readonly translations?: readonly {
    readonly language: string;
    readonly title: string;
    readonly body: string;
  }[];
}
export interface OutsideMessage {
  id: string;
  kind: 'question' | 'offer';
  from: string;
  text: string;
  amount: Money | null;
}
/** Everything told to it carries a key: told again after a lost answer, it is done once. */
export interface Marketplace {
  publish(listing: OutsideListing, key: string): Promise<string>;
  messages(ref: string): Promise<OutsideMessage[]>;
  /** its price has changed */
  reprice(ref: string, price: Money, key: string): Promise<void>;
  /** @param counter another price for whoever made an offer */
  answer(ref: string, message: string, text: string, counter: Money | null, key: string): Promise<void>;
  end(ref: string, key: string): Promise<void>;
}

const NAME = 'The marketplace';
const money = z.object({
  amount: z.string().regex(/^\d{1,12}(\.\d{1,3})?$/),
  currency: z.string().length(3),
});
const published = z.object({ ref: z.string().min(1).max(120) });
const messageList = z.object({
  items: z
    .array(
      z.object({
        id: z.string().max(120),
        kind: z.enum(['question', 'offer']),
        from: z.string().max(160),
        text: z.string().max(4000),
        amount: money.nullable(),
      }),
    )
    .max(500),
});

export function httpMarketplace(url: string): Marketplace {
  const call = caller(NAME, url);
  const understood = <T>(shape: z.ZodType<T>, told: unknown): T => {
    const read = shape.safeParse(told);
    if (!read.success) throw new Unanswered(NAME, false, 'answered what nobody understands');
    return read.data;
  };
  const ref = (text: string) => encodeURIComponent(text);
  return {
    publish: async (listing, key) =>
      understood(published, await call('/listings', { body: listing, key })).ref,
    messages: async (of) => understood(messageList, await call(`/listings/${ref(of)}/messages`)).items,
    reprice: async (of, price, key) =>
      void (await call(`/listings/${ref(of)}/price`, { body: { price }, key })),
    answer: async (of, message, text, counter, key) =>
      void (await call(`/listings/${ref(of)}/messages/${ref(message)}/answer`, {
        body: { text, ...(counter ? { counter } : {}) },
        key,
      })),
    end: async (of, key) => void (await call(`/listings/${ref(of)}/end`, { body: {}, key })),
  };
}
