/** Carriers as the shop sees them; real ones would stand behind the same interface. */
import { POSTAGE_ZONES } from '@jutbank/contract/listing';
import { z } from 'zod';
import { caller, Unanswered } from './caller.ts';

export interface Parcel {
  readonly zone: (typeof POSTAGE_ZONES)[number];
  readonly grams: number;
  /** millimetres */
  readonly size: readonly [number, number, number];
  /** to be insured for */
  readonly value: number;
  readonly content: string;
}
const quote = z.object({
  carrier: z.string().min(1).max(120),
  service: z.string().min(1).max(120),
  price: z.string().regex(/^\d{1,9}(\.\d{1,3})?$/),
  currency: z.string().regex(/^[A-Z]{3}$/),
  tracked: z.boolean(),
  insuredUpTo: z.number(),
  days: z.tuple([z.number(), z.number()]),
  topics: z.array(z.string().max(200)).max(20),
});
export type CarrierQuote = z.infer<typeof quote>;
export interface Carriers {
  quotes(parcel: Parcel): Promise<CarrierQuote[]>;
  /** @returns the tracking number; empty where the service has none. @param key told again with it, it is one parcel */
  label(order: { carrier: string; service: string; to: string }, key: string): Promise<string>;
}

const NAME = 'The carrier';
const quotes = z.object({ items: z.array(quote).max(60) });
const label = z.object({ tracking: z.string().max(120) });

export function httpCarriers(url: string): Carriers {
  const call = caller(NAME, url);
  const understood = <T>(shape: z.ZodType<T>, told: unknown): T => {
    const read = shape.safeParse(told);
    if (!read.success) throw new Unanswered(NAME, false, 'answered what nobody understands');
    return read.data;
  };
  return {
    // asking for a price is no order: the same parcel may be asked for twice
    quotes: async (parcel) =>
      understood(quotes, await call('/quotes', { body: parcel, key: JSON.stringify(parcel) })).items,
    label: async (order, key) => understood(label, await call('/labels', { body: order, key })).tracking,
  };
}
