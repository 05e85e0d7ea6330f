/** Somebody's list of exchange rates: a row a rate (date, currency, rate), or a row a day with a column per currency. */
import { isCurrency, type ExchangeRate } from '../money/index.ts';

export interface RateCells {
  /** physical line on which the row begins; the header is 1 */
  readonly line: number;
  readonly cells: readonly string[];
}
export interface RateError {
  readonly line: number;
  readonly column: string | null;
  readonly value: string;
  readonly message: string;
}
export interface RateList {
  readonly rates: readonly ExchangeRate[];
  readonly errors: readonly RateError[];
}

const DATE = /^\d{4}-\d{2}-\d{2}$/;
const RATE = /^\d{1,12}(\.\d{1,12})?$/;
/** The 30th of February has the shape of a day and is none. */
function isDay(text: string): boolean {
  const day = DATE.test(text) ? new Date(`${text}T00:00:00Z`) : undefined;
  return day !== undefined && !Number.isNaN(day.getTime()) && day.toISOString().slice(0, 10) === text;
}

/**
 * @param decimalComma how a list parted by semicolons or tabs may write its decimals
 * @param today an ISO day; a later rate is an error
 * @returns undefined where the header names neither a rate nor any currency
 */
export function readRateList(
  header: readonly string[],
  rows: readonly RateCells[],
  decimalComma: boolean,
  today: string,
): RateList | undefined {
  const names = header.map((name) => name.trim().toLowerCase());
  const date = names.findIndex((name) => /^(date|day)$/.test(name));
  const currency = names.findIndex((name) => /^(currency|code)$/.test(name));
  const rate = names.findIndex((name) => /^rate$/.test(name));
  const wide = header.flatMap((name, at) => {
    const code = name.trim().toUpperCase();
    return at !== date && code.length === 3 && isCurrency(code) ? [{ at, code }] : [];
  });
  if (date < 0 || (rate >= 0 ? currency < 0 : wide.length === 0)) return undefined;
  const rates: ExchangeRate[] = [];
  const errors: RateError[] = [];
  for (const { line, cells } of rows) {
    const wrong = (at: number, message: string) =>
      errors.push({ line, column: header[at] ?? null, value: cells[at] ?? '', message });
    const day = (cells[date] ?? '').trim();
    const unknownDay = !isDay(day)
      ? 'write the day like 2026-11-25'
      : day > today
        ? 'this day has not come yet'
        : undefined;
    if (unknownDay !== undefined) {
      wrong(date, unknownDay);
      continue;
    }
    const own = rate >= 0 ? [{ at: rate, code: (cells[currency] ?? '').trim().toUpperCase() }] : wide;
    for (const { at, code } of own) {
      const text = (cells[at] ?? '').trim();
      // a day without a rate of this currency, as wide lists have on a holiday
      if (rate < 0 && (text === '' || /^(-|n\/?a)$/i.test(text))) continue;
      const number = decimalComma ? text.replace(',', '.') : text;
      if (!isCurrency(code)) wrong(currency, `“${code}” is not a currency`);
      else if (!RATE.test(number) || !(Number(number) > 0)) wrong(at, 'a rate is a number above 0');
      else rates.push({ date: day, currency: code, rate: number });
    }
  }
  return { rates, errors };
}
