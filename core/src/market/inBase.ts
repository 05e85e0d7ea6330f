/** Amounts brought to the base currency of a market. */
import { Decimal } from 'decimal.js';
import { money, type Money } from '../money/index.ts';
import type { RateOn } from './comparable.ts';

/** At the rate of a day, rounded once; undefined where there is no amount, or no rate for it. */
export function amountInBase(
  rateOn: RateOn,
  base: string,
  day: number,
  amount: Money | null | undefined,
): string | undefined {
  const rate = amount ? rateOn(amount.currency, day) : undefined;
  return amount && rate !== undefined ? money(new Decimal(amount.amount).div(rate), base).amount : undefined;
}
