/** What a piece has cost: its price, and everything that was paid for it since. */
import { convert, money, type Money } from '@jutbank/core/money';
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
export function costOf(
  record: PieceRecord,
  currency: string,
  rate: (currency: string) => string | undefined,
): Money | null {
  if (!record.intake.price) return null;
  let sum = new Decimal(0);
  for (const paid of costsOf(record)) {
    const here = convert(paid, currency, rate);
    if (!here) return null;
    sum = sum.plus(here.amount);
  }
  return money(sum, currency);
}
