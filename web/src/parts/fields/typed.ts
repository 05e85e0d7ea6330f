/** What people type for figures, read. */
import { readAmount, type Money } from '@jutbank/core/money';

/** A number as it is typed, with a decimal comma or a printed minus, as it is sent. */
export const decimal = (typed: string): string => typed.trim().replace(',', '.').replace('−', '-');

/** `2,5` is 2.5, nothing is null; undefined for what is no number. */
export function readNumber(typed: string): number | null | undefined {
  const text = decimal(typed);
  if (text === '') return null;
  return Number.isFinite(Number(text)) ? Number(text) : undefined;
}

/** An amount and its currency as people write them; nothing typed is nothing. */
export function readMoney(typed: string, currency: string): { money: Money } | { wrong: string } | undefined {
  if (typed.trim() === '') return undefined;
  const read = readAmount(typed, currency);
  return read.ok ? { money: read.value } : { wrong: read.error.message };
}
