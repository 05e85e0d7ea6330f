/** Dates and numbers as other people write them. What cannot be read for certain stays as it is, for the check to name. */
import { foldedText, LANGUAGES } from './fold.ts';

export const DATE_ORDERS = ['ymd', 'dmy', 'mdy'] as const;
export type DateOrder = (typeof DATE_ORDERS)[number];

const DATE = /^(\d{1,4})[./-](\d{1,2}|\d{4})(?:[./-](\d{1,4}))?$/;
const TIME_OF_DAY = /[T ,]+\d{1,2}:\d{2}(?::\d{2})?(?:\.\d+)?(?: ?[ap]m)?(?:Z|[+-]\d{2}:?\d{2})?$/i;
/** `70` and above are of the last century, as in most programs that write years with two digits. */
const LAST_CENTURY_FROM = 70;

const MONTHS: readonly (readonly string[])[] = Array.from({ length: 12 }, (_, month) =>
  LANGUAGES.map((language) =>
    foldedText(
      new Intl.DateTimeFormat(language, { month: 'long', timeZone: 'UTC' }).format(Date.UTC(2000, month, 15)),
    ),
  ),
);
const SHORTEST_MONTH = 3;

/** 1–12 of a month's name or its beginning in any of the languages; undefined where it could be two. */
function monthCalled(word: string): number | undefined {
  const name = foldedText(word);
  if (name.length < SHORTEST_MONTH) return undefined;
  const fits = MONTHS.flatMap((names, i) => (names.some((one) => one.startsWith(name)) ? [i + 1] : []));
  return fits.length === 1 ? fits[0] : undefined;
}

/** Day before month unless some date says otherwise: most of the world writes so. */
export function orderOf(cells: readonly string[]): DateOrder {
  const parts = cells.flatMap((cell) => {
    const match = DATE.exec(cell.trim().replace(TIME_OF_DAY, ''));
    return match ? [match.slice(1).map((part) => part ?? '')] : [];
  });
  if (parts.length === 0 || parts.some(([first]) => first?.length === 4)) return 'ymd';
  return parts.some(([, second]) => Number(second) > 12) ? 'mdy' : 'dmy';
}

const fullYear = (year: string): string =>
  year.length === 2 ? `${Number(year) >= LAST_CENTURY_FROM ? '19' : '20'}${year}` : year;

const TWO = (part: number | string): string => String(part).padStart(2, '0');

/** `30.10.2026` or `30 oct. 2026` as the calendar writes it; what is no date comes back unchanged. */
export function dateIn(order: DateOrder, cell: string): string {
  const text = cell.trim().replace(TIME_OF_DAY, '');
  const match = DATE.exec(text);
  if (!match) return dateInWords(text) ?? cell;
  const [a = '', b = '', c] = match.slice(1);
  if (c === undefined) return a.length === 4 ? `${a}-${TWO(b)}` : b.length === 4 ? `${b}-${TWO(a)}` : cell;
  // a year of four digits in front is never a day, whatever the others do
  const [year, month, day] =
    order === 'ymd' || a.length === 4 ? [a, b, c] : order === 'dmy' ? [c, b, a] : [c, a, b];
  return `${fullYear(year)}-${TWO(month)}-${TWO(day)}`;
}

/** A month told by its name, with a year and perhaps a day, in any order. */
function dateInWords(text: string): string | undefined {
  const parts = text.split(/[^\p{L}\p{N}]+/u).filter(Boolean);
  const months = parts.flatMap((part) => (/^\p{L}/u.test(part) ? [monthCalled(part)] : []));
  const numbers = parts.flatMap((part) => /^(\d{1,4})(?:st|nd|rd|th|er)?$/i.exec(part)?.[1] ?? []);
  const [month] = months;
  if (months.length !== 1 || month === undefined || months.length + numbers.length !== parts.length)
    return undefined;
  const years = numbers.filter((n) => n.length === 4);
  const [first = '', second] = numbers;
  if (numbers.length === 1) return years.length === 1 ? `${first}-${TWO(month)}` : undefined;
  if (numbers.length !== 2 || second === undefined) return undefined;
  const [year, day] = years.length === 1 && first.length === 4 ? [first, second] : [second, first];
  return year.length === 4 || year.length === 2 ? `${fullYear(year)}-${TWO(month)}-${TWO(day)}` : undefined;
}

/** A number's own part of a cell and what stands beside it: a sign or a word of its currency. */
function numberAndRest(cell: string): { number: string; rest: string } | undefined {
  const text = cell
    .trim()
    .replaceAll(/[\u00a0\u2009\u202f]/g, ' ')
    .replaceAll('’', "'");
  const match = /^([^\d-]*?)\s*(\d[\d .,':]*\d|\d)\s*([^\d]*)$/u.exec(text);
  if (!match) return undefined;
  const [, before = '', number = '', after = ''] = match;
  // `1.200,–` and `1200:-`: no cents
  const rest = `${before} ${after.replace(/^[.,:]?[-–—]{1,2}/, '')}`.trim();
  return { number, rest };
}

/** Most characters a currency or a sign of percent is written in. */
const LONGEST_UNIT = 9;

/**
 * Thousands separators and signs of currency or percent go, a decimal comma becomes a point. A cell that could be read
 * in two ways, or says more than a number, stays as it is.
 */
export function numberIn(decimalComma: boolean, cell: string): string {
  const parts = numberAndRest(cell);
  if (!parts || parts.rest.length > LONGEST_UNIT || /\s\S+\s/.test(parts.rest)) return cell;
  const number = parts.number.replace(/:(\d{2})$/, decimalComma ? ',$1' : '.$1');
  const [group, point] = decimalComma ? ["[ .']", ','] : ["[ ,']", '\\.'];
  const shape = new RegExp(`^(\\d{1,3}(?:(?:${group})\\d{3})+|\\d+)(?:${point}(\\d+))?$`).exec(number);
  if (!shape) return cell;
  const [, whole = '', cents] = shape;
  return `${whole.replace(/\D/g, '')}${cents === undefined ? '' : `.${cents}`}`;
}

/** What stands beside a price: `€`, `SEK`, `kr`; empty where nothing does. */
export const unitBeside = (cell: string): string => numberAndRest(cell)?.rest ?? '';

/** `8/10` and `80 %` as points of a hundred. */
export function indexIn(decimalComma: boolean, cell: string): string {
  const share = /^(\d{1,3}(?:[.,]\d+)?)\s*\/\s*(\d{1,3})$/.exec(cell.trim());
  if (!share) return numberIn(decimalComma, cell);
  const [, of = '', full = ''] = share;
  const points = (Number(of.replace(',', '.')) / Number(full)) * 100;
  return Number.isFinite(points) ? String(Math.round(points * 10) / 10) : cell;
}

/** A comma ends in one or two decimals, or a point parts thousands, and nothing says the contrary. */
export function commaIsDecimal(cells: readonly string[]): boolean {
  const numbers = cells.flatMap((cell) => numberAndRest(cell)?.number ?? []);
  const said = (shape: RegExp) => numbers.filter((number) => shape.test(number)).length;
  const comma = said(/,\d{1,2}$/) + said(/\.\d{3}(?:,\d+)?$/);
  const point = said(/\.\d{1,2}$/) + said(/,\d{3}(?:\.\d+)?$/);
  return comma > point;
}
