/** Amounts as people write them: `58`, `58,50`, `£58`, `58 GBP`, `1,234.56`, `1.234,56`, `1 234.50`. */
import { fail, type InputProblem, type Result } from '../result/index.ts';
import { isCurrency, minorDigits, parseAmount, type Money } from './money.ts';

/** Signs that mean one currency; a dollar is the shop's own where it has one. */
const SIGNS: Readonly<Record<string, string>> = {
  '£': 'GBP',
  '€': 'EUR',
  '¥': 'JPY',
  '₹': 'INR',
  '₩': 'KRW',
  '₽': 'RUB',
};
const DOLLARS: readonly string[] = ['USD', 'CAD', 'AUD', 'NZD', 'SGD', 'HKD'];
/** Currencies of places where a comma parts thousands. */
const COMMA_GROUPS: readonly string[] = [...DOLLARS, 'GBP', 'JPY', 'INR', 'KRW', 'CNY', 'ILS', 'MXN', 'THB'];

const WRITTEN = /^([£€¥₹₩₽$]|[A-Za-z]{3})?\s*([\d.,'’\s\u00a0\u202f]*\d)\s*([£€¥₹₩₽$]|[A-Za-z]{3})?$/u;

/**
 * @param currency the shop's: what is meant where no other is written
 * @returns a problem where the text is no amount, or could be two: `1.234` is a thousand and more to one person, not to another
 */
export function readAmount(typed: string, currency: string): Result<Money, InputProblem> {
  const wrong = (message: string) => fail({ pointer: '', message });
  const match = WRITTEN.exec(typed.trim());
  const [, before, figures, after] = match ?? [];
  if (figures === undefined || (before !== undefined && after !== undefined))
    return wrong('Write an amount like 58.00 or 58 GBP');
  const named = (before ?? after)?.toUpperCase();
  const meant = named === undefined ? currency : currencyOf(named, currency);
  if (!isCurrency(meant)) return wrong(`“${before ?? after ?? ''}” is not a currency`);
  const plain = plainFigures(figures, meant);
  if (plain === undefined)
    return wrong(`“${figures}” could be two amounts: write it without a mark for thousands`);
  return parseAmount(plain, meant, '');
}
const currencyOf = (named: string, currency: string): string =>
  named === '$' ? (DOLLARS.includes(currency) ? currency : 'USD') : (SIGNS[named] ?? named);

/** The figures with a point for the decimals and nothing for thousands; undefined where both readings are possible. */
function plainFigures(figures: string, currency: string): string | undefined {
  const text = figures.replaceAll(/[\s\u00a0\u202f'’]/g, '');
  const last = Math.max(text.lastIndexOf('.'), text.lastIndexOf(','));
  if (last < 0) return text;
  const mark = text.charAt(last);
  const other = mark === '.' ? ',' : '.';
  const decimals = text.length - last - 1;
  const whole = text.slice(0, last);
  const grouped = (part: string, by: string) => new RegExp(`^\\d{1,3}(\\${by}\\d{3})+$`).test(part);
  if (whole.includes(other))
    return grouped(whole, other) && !whole.includes(mark)
      ? `${whole.replaceAll(other, '')}.${text.slice(last + 1)}`
      : undefined;
  if (whole.includes(mark)) return grouped(text, mark) ? text.replaceAll(mark, '') : undefined;
  if (decimals === 3 && minorDigits(currency) < 3)
    return mark === ',' && COMMA_GROUPS.includes(currency) ? whole + text.slice(last + 1) : undefined;
  return `${whole}.${text.slice(last + 1)}`;
}
