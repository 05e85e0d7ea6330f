/** What people type for figures, read. */
import { parseAmount, type Money } from '@jutbank/core/money';

/** A number as it is typed, with a decimal comma or a printed minus, as it is sent. */
export const decimal = (typed: string): string => typed.trim().replace(',', '.').replace('−', '-');

/** `2,5` is 2.5, nothing is null; undefined for what is no number. */
export function readNumber(typed: string): number | null | undefined {
  const text = decimal(typed);
  if (text === '') return null;
  return Number.isFinite(Number(text)) ? Number(text) : undefined;
}

/** An amount and its currency: `58`, `58,50`, `58.00 GBP`. */
export function readMoney(typed: string, currency: string): { money: Money } | { wrong: string } | undefined {
  if (typed.trim() === '') return undefined;
  const match = /^\s*([\d.,]+)\s*([A-Za-z]{3})?\s*$/.exec(typed);
  if (!match?.[1]) return { wrong: 'Write an amount like 58.00 or 58 GBP' };
  try {
    const parsed = parseAmount(decimal(match[1]), (match[2] ?? currency).toUpperCase(), '');
    return parsed.ok ? { money: parsed.value } : { wrong: parsed.error.message };
  } catch {
    return { wrong: `“${match[2] ?? ''}” is not a currency` };
  }
}
