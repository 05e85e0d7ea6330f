/** What a piece has cost: its price, and everything that was paid for it since. */
import { convert, money, type Money } from '@jutbank/core/money';
import type { Channel } from '@jutbank/core/worth';
import { Decimal } from 'decimal.js';
import type { PieceRecord } from './record.ts';

/** Every amount that was paid: the purchase first, then treatments, the parts and sheaths that came with them included. */
export const costsOf = ({
  intake,
  treatments,
}: Pick<PieceRecord, 'intake' | 'treatments'>): readonly Money[] => [
  ...(intake.price ? [intake.price] : []),
  ...treatments.flatMap((t) => t.cost ?? []),
];

/**
 * All of it in one currency.
 * @param rate units of a currency for one of the base
 * @returns null where nobody knows what was paid for the piece itself, or no rate is known for an amount
 */
export const costOf = (
  record: Pick<PieceRecord, 'intake' | 'treatments'>,
  currency: string,
  rate: (currency: string) => string | undefined,
): Money | null => (record.intake.price ? sumIn(costsOf(record), currency, rate) : null);

/** Amounts added up in one currency; null where no rate is known for one of them. */
export function sumIn(
  amounts: readonly Money[],
  currency: string,
  rate: (currency: string) => string | undefined,
): Money | null {
  let sum = new Decimal(0);
  for (const paid of amounts) {
    const here = convert(paid, currency, rate);
    if (!here) return null;
    sum = sum.plus(here.amount);
  }
  return money(sum, currency);
}

/** The channel of the shop's in which nothing is posted. */
export const COUNTER = 'counter';

/**
 * What a carrier asked for this piece at home is what its buyer pays for postage and what posting it costs, in place of
 * the channel's usual amounts; only where such a quote was taken in its currency, and not over the counter.
 */
export function withPostage<T extends { readonly id?: string; readonly channel: Channel }>(
  of: T,
  { postage }: Pick<PieceRecord, 'postage'>,
  currency: string,
): T {
  const home = postage?.quotes.find((q) => q.zone === 'home' && q.price.currency === currency);
  if (!home || (of.id ?? COUNTER) === COUNTER) return of;
  const { amount } = home.price;
  return { ...of, channel: { ...of.channel, postageCharged: amount, postageCost: amount } };
}
