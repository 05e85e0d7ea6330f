/** Exact money: decimal strings and whole minor units, never a float. */
import { Decimal } from 'decimal.js';
import { fail, succeed, type InputProblem, type Result } from '../result/index.ts';

export interface Money {
  /** decimal string in the currency's own minor unit, e.g. "182.50" */
  readonly amount: string;
  /** ISO 4217 */
  readonly currency: string;
}

const CURRENCIES = new Set(Intl.supportedValuesOf('currency'));
const digitsCache = new Map<string, number>();

export const isCurrency = (code: string): boolean => CURRENCIES.has(code);

/** Decimal places of the currency's minor unit: 2 for EUR, 0 for JPY, 3 for KWD. */
export function minorDigits(currency: string): number {
  const known = digitsCache.get(currency);
  if (known !== undefined) return known;
  const digits =
    new Intl.NumberFormat('en', { style: 'currency', currency }).resolvedOptions().maximumFractionDigits ?? 2;
  digitsCache.set(currency, digits);
  return digits;
}

export const isAmount = (text: string): boolean => /^-?\d{1,15}(\.\d{1,6})?$/.test(text);

/** Rounds half away from zero to the currency's minor unit. */
export function money(amount: Decimal.Value, currency: string): Money {
  const digits = minorDigits(currency);
  return { amount: new Decimal(amount).toFixed(digits, Decimal.ROUND_HALF_UP), currency };
}

/** An amount and a currency that stand beside each other where either may be missing: in a table, in a form. */
export const moneyOrNull = (amount: string | null, currency: string | null): Money | null =>
  amount === null || currency === null ? null : money(amount, currency);

/** Whole minor units (cents) of an amount. @throws when the amount has more decimals than the currency */
export function toMinor(amount: string, currency: string): bigint {
  const scaled = new Decimal(amount).times(new Decimal(10).pow(minorDigits(currency)));
  if (!scaled.isInteger()) throw new RangeError(`${amount} has more decimals than ${currency} allows`);
  return BigInt(scaled.toFixed(0));
}

export function fromMinor(minor: bigint, currency: string): string {
  const digits = minorDigits(currency);
  return new Decimal(minor.toString()).div(new Decimal(10).pow(digits)).toFixed(digits);
}

/** Checks an amount typed or sent for a currency. */
export function parseAmount(text: string, currency: string, pointer: string): Result<Money, InputProblem> {
  const plain = text.trim();
  if (!isAmount(plain)) return fail({ pointer, message: `“${text}” is not an amount; write it like 182.50` });
  const digits = minorDigits(currency);
  if (new Decimal(plain).decimalPlaces() > digits)
    return fail({ pointer, message: `${currency} has ${digits} decimals, “${text}” has more` });
  return succeed(money(plain, currency));
}

export function addMoney(a: Money, b: Money): Money {
  if (a.currency !== b.currency) throw new RangeError(`cannot add ${a.currency} and ${b.currency}`);
  return money(new Decimal(a.amount).plus(b.amount), a.currency);
}

export function subtractMoney(a: Money, b: Money): Money {
  return addMoney(a, { amount: new Decimal(b.amount).negated().toString(), currency: b.currency });
}

/** A share of an amount, rounded half up to the currency's smallest unit. */
export const shareOfMoney = (value: Money, share: Decimal.Value): Money =>
  money(new Decimal(value.amount).times(share), value.currency);

/** Text for a person, in tabular figures by the caller: `€146.00`, or `€146` without cents. */
export function formatMoney(value: Money, options: { whole?: boolean } = {}): string {
  return new Intl.NumberFormat('en-IE', {
    style: 'currency',
    currency: value.currency,
    currencyDisplay: 'narrowSymbol',
    ...(options.whole ? { maximumFractionDigits: 0, minimumFractionDigits: 0 } : {}),
  }).format(Number(value.amount));
}

/** Units of a currency for one unit of the base, as `POST /exchange-rates` stores them. */
export interface ExchangeRate {
  readonly date: string;
  readonly currency: string;
  readonly rate: string;
}

/** Converts at the given rates (units per base unit), rounding once, to the target's minor unit. */
export function convert(
  value: Money,
  to: string,
  ratePerBase: (currency: string) => string | undefined,
): Money | undefined {
  if (value.currency === to) return value;
  const from = ratePerBase(value.currency);
  const target = ratePerBase(to);
  if (from === undefined || target === undefined) return undefined;
  return money(new Decimal(value.amount).div(from).times(target), to);
}
