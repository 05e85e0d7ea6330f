/**
 * Other people's lists of prices: which of their columns says what, how they write dates and decimals. A guess from the
 * header and the first rows, which a person corrects; then each row in Jutbank's own columns.
 */
import { PRICE_KINDS, VENUE_KINDS } from './comparable.ts';
import { nameKey, type NamesMeant } from './naming.ts';

export const DATE_ORDERS = ['ymd', 'dmy', 'mdy'] as const;
export type DateOrder = (typeof DATE_ORDERS)[number];

export interface ColumnMapping {
  /** their column to ours; what is not named is kept as a note under its own name */
  readonly columns: Readonly<Record<string, string>>;
  readonly dateOrder: DateOrder;
  readonly decimalComma: boolean;
  /** what stands in every row that does not say it itself */
  readonly fixed: Readonly<Record<string, string>>;
  readonly names?: NamesMeant;
}

/** Words by which a column is known; the first that fits wins. */
const KNOWN_BY: readonly (readonly [column: string, words: RegExp])[] = [
  ['buyer_premium_pct', /premium|aufgeld/],
  ['shipping_included', /postage|shipping|carriage/],
  ['condition_index', /condition.?index|^index$/],
  ['grade_scale', /scale$/],
  ['grade', /grade|condition/],
  ['price_kind', /price.?kind|^kind$|type.?of.?price|asked.?or.?sold/],
  ['venue_kind', /venue.?kind|kind.?of.?venue|channel/],
  ['venue', /venue|house|saleroom|shop|seller|where/],
  ['sale_date', /date|day|sold.?on|when|datum/],
  ['price', /price|hammer|amount|paid|sum|preis|prix/],
  ['currency', /curr|^cur$|ccy|währung/],
  ['pattern', /pattern|model/],
  ['variant', /variant|form$|version/],
  ['box', /box/],
  ['papers', /paper|certificate/],
  ['sheath', /sheath|scabbard/],
  ['alterations', /alter|change|repair/],
  ['source', /source|link|catalogue/],
  ['note', /note|remark|comment|description|lot/],
];

export function guessMapping(header: readonly string[], rows: readonly (readonly string[])[]): ColumnMapping {
  const columns: Record<string, string> = {};
  const taken = new Set<string>();
  const give = (name: string, column: string | undefined) => {
    if (column === undefined || taken.has(column)) return;
    columns[name] = column;
    taken.add(column);
  };
  const plain = (name: string) => name.trim().toLowerCase();
  for (const name of header) give(name, KNOWN_BY.find(([column]) => column === plain(name))?.[0]);
  for (const name of header)
    if (columns[name] === undefined)
      give(name, KNOWN_BY.find(([column, words]) => !taken.has(column) && words.test(plain(name)))?.[0]);
  const cellsOf = (column: string) => {
    const at = header.findIndex((name) => columns[name] === column);
    return at < 0 ? [] : rows.map((row) => (row[at] ?? '').trim()).filter(Boolean);
  };
  return {
    columns,
    dateOrder: orderOf(cellsOf('sale_date')),
    decimalComma: cellsOf('price').some((cell) => /,\d{1,2}$/.test(cell)),
    fixed: {},
  };
}

const DATE = /^(\d{1,4})[./-](\d{1,2})(?:[./-](\d{1,4}))?$/;

/** Day before month unless some date says otherwise: most of the world writes so. */
function orderOf(cells: readonly string[]): DateOrder {
  const parts = cells.flatMap((cell) => {
    const match = DATE.exec(cell);
    return match ? [match.slice(1).map((part) => part ?? '')] : [];
  });
  if (parts.length === 0 || parts.some(([first]) => first?.length === 4)) return 'ymd';
  return parts.some(([, second]) => Number(second) > 12) ? 'mdy' : 'dmy';
}

/** `30.10.2026` as the mapping reads it, in the order of the calendar; what is no date stays as it is. */
function dateIn(order: DateOrder, cell: string): string {
  const match = DATE.exec(cell.trim());
  if (!match) return cell;
  const [a = '', b = '', c] = match.slice(1);
  if (c === undefined) return order === 'ymd' ? `${a}-${b.padStart(2, '0')}` : `${b}-${a.padStart(2, '0')}`;
  const [year, month, day] = order === 'ymd' ? [a, b, c] : order === 'dmy' ? [c, b, a] : [c, a, b];
  const full = year.length === 2 ? `20${year}` : year;
  return `${full}-${month.padStart(2, '0')}-${day.padStart(2, '0')}`;
}

/** Thousands separators and currency signs go; a decimal comma becomes a point. */
function numberIn(decimalComma: boolean, cell: string): string {
  const bare = cell.replace(/[^\d.,-]/g, '');
  if (bare === '') return cell;
  const grouped = decimalComma ? bare.replaceAll('.', '') : bare.replaceAll(',', '');
  return grouped.replace(',', '.');
}

const NUMBERS = new Set(['price', 'buyer_premium_pct', 'condition_index']);
const YES = new Set(['yes', 'y', 'true', '1', 'included']);

/** One row in Jutbank's own columns; cells that no column takes are kept under their own name. */
export function mapRow(
  mapping: ColumnMapping,
  cells: Readonly<Record<string, string>>,
): Record<string, string> {
  const row: Record<string, string> = { ...mapping.fixed };
  for (const [name, value] of Object.entries(cells)) {
    if (value.trim() === '') continue;
    const column = mapping.columns[name];
    if (column === undefined) row[name] = value;
    else if (column === 'sale_date') row[column] = dateIn(mapping.dateOrder, value);
    else if (NUMBERS.has(column)) row[column] = numberIn(mapping.decimalComma, value);
    else if (column === 'shipping_included') row[column] = YES.has(value.trim().toLowerCase()) ? 'yes' : 'no';
    else if (column === 'currency') row[column] = currencyIn(value);
    else if (column === 'price_kind' || column === 'venue_kind')
      row[column] = wordIn(column === 'price_kind' ? PRICE_KINDS : VENUE_KINDS, value);
    else row[column] = value;
  }
  return mapping.names ? meant(row, mapping.names) : row;
}

/** Their names as ids; what they called it is kept as a note. A variant that means none of ours is left open. */
function meant(row: Readonly<Record<string, string>>, names: NamesMeant): Record<string, string> {
  const { pattern, variant, ...others } = row;
  const id = pattern === undefined ? undefined : (names.pattern[nameKey(pattern.trim())] ?? '');
  const own = id === undefined || id === '' ? pattern : id;
  const form = variant === undefined ? undefined : names.variant[nameKey(variant.trim(), own ?? '')];
  const told = form ?? variant;
  return {
    ...others,
    ...(own === undefined ? {} : { pattern: own }),
    ...(own !== pattern && pattern !== undefined ? { 'pattern as listed': pattern } : {}),
    ...(told === undefined || told === '' ? {} : { variant: told }),
    ...(form !== undefined && variant !== undefined ? { 'variant as listed': variant } : {}),
  };
}

const SIGNS: Readonly<Record<string, string>> = { '€': 'EUR', '£': 'GBP', $: 'USD', kr: 'SEK' };
const currencyIn = (cell: string) => SIGNS[cell.trim().toLowerCase()] ?? cell.trim().toUpperCase();
const wordIn = (words: readonly string[], cell: string) =>
  words.find((word) => cell.toLowerCase().includes(word)) ?? cell;
