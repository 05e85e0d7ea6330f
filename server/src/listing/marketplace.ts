/** The marketplace as the shop sees it; the real one would stand behind the same interface. */
import { z } from 'zod';
import type { Money } from '@jutbank/core/money';
import { HttpProblem } from '../http/index.ts';

export interface OutsideMessage {
  id: string;
  kind: 'question' | 'offer';
  from: string;
  text: string;
  amount: Money | null;
}
export interface Marketplace {
  publish(listing: { stockNumber: string; title: string; body: string; price: Money }): Promise<string>;
  messages(ref: string): Promise<OutsideMessage[]>;
  answer(ref: string, message: string, text: string): Promise<void>;
  end(ref: string): Promise<void>;
}

const money = z.object({
  amount: z.string().regex(/^\d{1,12}(\.\d{1,3})?$/),
  currency: z.string().length(3),
});
const messageList = z.object({
  items: z.array(
    z.object({
      id: z.string().max(120),
      kind: z.enum(['question', 'offer']),
      from: z.string().max(160),
      text: z.string().max(4000),
      amount: money.nullable(),
    }),
  ),
});
const TIMEOUT_MS = 8000;

export function httpMarketplace(url: string): Marketplace {
  const call = async (path: string, body?: unknown): Promise<unknown> => {
    const response = await fetch(`${url}${path}`, {
      signal: AbortSignal.timeout(TIMEOUT_MS),
      ...(body === undefined
        ? {}
        : { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) }),
    }).catch(() => {
      throw new HttpProblem(502, 'The marketplace does not answer. Nothing was changed; try again later.');
    });
    if (!response.ok)
      throw new HttpProblem(502, `The marketplace answered ${response.status}. Nothing was changed.`);
    return response.json();
  };
  const ref = (text: string) => encodeURIComponent(text);
  return {
    publish: async (listing) =>
      z.object({ ref: z.string().min(1).max(120) }).parse(await call('/listings', listing)).ref,
    messages: async (of) => messageList.parse(await call(`/listings/${ref(of)}/messages`)).items,
    answer: async (of, message, text) =>
      void (await call(`/listings/${ref(of)}/messages/${ref(message)}/answer`, { text })),
    end: async (of) => void (await call(`/listings/${ref(of)}/end`, {})),
  };
}
