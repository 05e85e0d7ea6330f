/** One row of cells to one comparable: every cell checked, normalised and, if wrong, named. */
import { createHash } from 'node:crypto';
import { Decimal } from 'decimal.js';
import { dayOf, calendarOf } from '@jutbank/core/dates';
import { isCurrency, minorDigits } from '@jutbank/core/money';
import { ALTERATIONS, GRADE_WORDS, ITEM_STATES, PRICE_KINDS, VENUE_KINDS } from '@jutbank/core/market';
import { COMPARABLE_COLUMNS } from '@jutbank/contract/market';
import { canonical } from '../ledger/index.ts';

export interface NormalRow {
  readonly cells: Readonly<Record<string, string>>;
  readonly hash: string;
  readonly saleDate: string;
  readonly saleDay: string;
  readonly price: string;
  readonly currency: string;
  readonly priceKind: string;
  readonly venueKind: string;
  readonly pattern: string;
  readonly variant: string | null;
  readonly conditionIndex: string | null;
  readonly box: string | null;
  readonly papers: string | null;
  readonly sheath: string | null;
  readonly alterations: string;
  readonly buyerPremiumPct: string | null;
  readonly shippingIncluded: boolean;
}
export interface CellProblem {
  readonly column: string;
  readonly value: string;
  readonly message: string;
}
export interface ReferenceIds {
  readonly patterns: ReadonlyMap<string, unknown>;
  /** variant to its pattern */
  readonly variants: ReadonlyMap<string, string>;
  /** ISO day; later sales have not happened */
  readonly today: string;
}
export interface Normalised {
  readonly row: NormalRow | undefined;
  readonly errors: readonly CellProblem[];
  readonly warnings: readonly CellProblem[];
}

const LONGEST_CELL = 8192;
const OLDEST_SALE = '1800-01-01';
/** Sums of many prices must still have room where they are kept. */
const DEAREST = 1e12;
const GRADES: ReadonlyMap<string, readonly string[]> = new Map(Object.entries(GRADE_WORDS));

/** @param decimalComma the separator leaves the comma free for decimals */
export function normaliseRow(
  raw: Readonly<Record<string, string>>,
  known: ReferenceIds,
  decimalComma: boolean,
): Normalised {
  const errors: CellProblem[] = [];
  const warnings: CellProblem[] = [];
  const wrong = (column: string, message: string) => {
    errors.push({ column, value: (raw[column] ?? '').slice(0, 200), message });
  };
  // a list may call a column whatever it likes: none is assigned by name to an object that has a prototype
  const cells: Record<string, string> = Object.fromEntries(
    Object.entries(raw)
      .map(([column, value]) => [column, value.trim()])
      .filter(([, value]) => value !== ''),
  );
  for (const [column, value] of Object.entries(raw)) {
    if (value.length > LONGEST_CELL)
      wrong(column, `a cell may have ${LONGEST_CELL} characters, this one has ${value.length}`);
    const trimmed = value.trim();
    const isText =
      !(COMPARABLE_COLUMNS as readonly string[]).includes(column) ||
      column === 'venue' ||
      column === 'source' ||
      column === 'note';
    if (isText && /^[=+\-@]/.test(trimmed))
      warnings.push({
        column,
        value: trimmed.slice(0, 200),
        message: 'begins like a spreadsheet formula; kept as text',
      });
  }
  const need = (column: string): string => {
    if (cells[column] === undefined) wrong(column, 'must not be empty');
    return cells[column] ?? '';
  };
  const oneOf = (column: string, values: readonly string[], required: boolean): string | null => {
    const value = cells[column]?.toLowerCase();
    if (value === undefined) {
      if (required) wrong(column, 'must not be empty');
      return null;
    }
    if (!values.includes(value)) {
      wrong(column, `“${cells[column]}” is not one of ${values.join(', ')}`);
      return null;
    }
    cells[column] = value;
    return value;
  };
  const decimal = (column: string, check: (x: Decimal) => string | undefined): string | null => {
    const text = cells[column];
    if (text === undefined) return null;
    const plain = decimalComma && /^\d+,\d+$/.test(text) ? text.replace(',', '.') : text;
    if (!/^\d{1,15}(\.\d{1,6})?$/.test(plain)) {
      wrong(column, `“${text}” is not a number; write it without thousands separators`);
      return null;
    }
    const why = check(new Decimal(plain));
    if (why !== undefined) {
      wrong(column, why);
      return null;
    }
    cells[column] = new Decimal(plain).toString();
    return cells[column];
  };

  const saleDate = need('sale_date');
  const day = saleDate === '' ? undefined : middleOf(saleDate);
  if (saleDate !== '' && !day) wrong('sale_date', `“${saleDate}” is not a day, month or year`);
  if (day && day.first > known.today) wrong('sale_date', 'this date is in the future');
  if (day && day.first < OLDEST_SALE) wrong('sale_date', 'a price that old says nothing of a market');
  const currency = need('currency').toUpperCase();
  if (currency !== '' && !isCurrency(currency)) wrong('currency', `“${currency}” is not a currency`);
  else if (currency !== '') cells.currency = currency;
  if (cells.price === undefined) wrong('price', 'must not be empty');
  const price = decimal('price', (x) => {
    if (x.lte(0)) return 'a price is above 0';
    if (x.gte(DEAREST)) return 'no price is that high';
    return isCurrency(currency) && x.decimalPlaces() > minorDigits(currency)
      ? `${currency} has ${minorDigits(currency)} decimals`
      : undefined;
  });
  const priceKind = oneOf('price_kind', PRICE_KINDS, true);
  const venueKind = oneOf('venue_kind', VENUE_KINDS, true);
  const pattern = need('pattern');
  if (pattern !== '' && !known.patterns.has(pattern))
    wrong('pattern', `there is no pattern “${pattern}” in the reference`);
  const variant = cells.variant ?? null;
  if (variant !== null) {
    const of = known.variants.get(variant);
    if (of === undefined) wrong('variant', `there is no variant “${variant}” in the reference`);
    else if (of !== pattern) wrong('variant', `“${variant}” is a variant of ${of}, not of ${pattern}`);
  }
  const conditionIndex = decimal('condition_index', (x) => (x.gt(100) ? 'at most 100' : undefined));
  const scale = oneOf('grade_scale', [...GRADES.keys()], false);
  if (cells.grade !== undefined) {
    if (scale === null) wrong('grade_scale', 'a grade needs its scale');
    else oneOf('grade', GRADES.get(scale) ?? [], false);
  }
  const box = oneOf('box', ITEM_STATES, false);
  const papers = oneOf('papers', ITEM_STATES, false);
  const sheath = oneOf('sheath', ITEM_STATES, false);
  const alterations = [
    ...new Set(
      (cells.alterations ?? '')
        .split('|')
        .map((a) => a.trim().toLowerCase())
        .filter(Boolean),
    ),
  ].sort();
  const strange = alterations.find((a) => !(ALTERATIONS as readonly string[]).includes(a));
  if (strange !== undefined) wrong('alterations', `“${strange}” is not one of ${ALTERATIONS.join(', ')}`);
  if (cells.alterations !== undefined) cells.alterations = alterations.join('|');
  const buyerPremiumPct = decimal('buyer_premium_pct', (x) =>
    x.gt(100) ? 'at most 100 percent' : undefined,
  );
  const shipping = oneOf('shipping_included', ['yes', 'no'], false);
  if (errors.length > 0 || !day || price === null || priceKind === null || venueKind === null)
    return { row: undefined, errors, warnings };
  return {
    row: {
      cells,
      hash: createHash('sha256').update(canonical(cells)).digest('hex'),
      saleDate,
      saleDay: day.middle,
      price,
      currency,
      priceKind,
      venueKind,
      pattern,
      variant,
      conditionIndex,
      box,
      papers,
      sheath,
      alterations: alterations.join('|'),
      buyerPremiumPct,
      shippingIncluded: shipping === 'yes',
    },
    errors,
    warnings,
  };
}

/** A day, or the middle of a month or year, and the first day it could be. */
export function middleOf(text: string): { middle: string; first: string } | undefined {
  const match = /^(\d{4})(?:-(\d{2})(?:-(\d{2}))?)?$/.exec(text);
  if (!match) return undefined;
  const [year, month, day] = [
    Number(match[1]),
    match[2] === undefined ? undefined : Number(match[2]),
    match[3] === undefined ? undefined : Number(match[3]),
  ];
  if (month === undefined) return { middle: `${match[1]}-07-02`, first: `${match[1]}-01-01` };
  if (month < 1 || month > 12) return undefined;
  if (day === undefined) return { middle: `${match[1]}-${match[2]}-15`, first: `${match[1]}-${match[2]}-01` };
  const back = calendarOf(dayOf(year, month, day));
  return back.month === month && back.day === day ? { middle: text, first: text } : undefined;
}
