/** SQL of comparables and rates. */
import { ulid } from 'ulid';
import { dayOf } from '@jutbank/core/dates';
import { money } from '@jutbank/core/money';
import { middleOfGrade } from '@jutbank/core/condition';
import type { Alteration, Comparable, ItemState, PriceKind, VenueKind } from '@jutbank/core/value';
import type { ComparableRecord } from '@jutbank/contract/value';
import type { Queries, Value } from '../db/index.ts';
import type { NormalRow } from './normalise.ts';

const COLUMNS =
  'id, row_hash, sale_date, sale_day, price, currency, price_kind, venue_kind, pattern_id, variant_id, condition_index, box, papers, sheath, alterations, buyer_premium_pct, shipping_included, cells, piece_id';

/** With the variant's name, for lists a person reads. */
const SHOWN = `${COLUMNS}, (SELECT v.name FROM reference_variant v WHERE v.id = comparable.variant_id) AS variant_name`;

/** Adds rows that are not known yet; the number added. */
export async function insertComparables(
  tx: Queries,
  rows: readonly NormalRow[],
  pieceId: string | null = null,
): Promise<{ added: number; ids: string[] }> {
  const ids = rows.map(() => ulid());
  const values = rows.map((r, i): Value[] => [
    ids[i] ?? ulid(),
    r.hash,
    r.saleDate,
    r.saleDay,
    r.price,
    r.currency,
    r.priceKind,
    r.venueKind,
    r.pattern,
    r.variant,
    r.conditionIndex,
    r.box,
    r.papers,
    r.sheath,
    r.alterations,
    r.buyerPremiumPct,
    r.shippingIncluded,
    JSON.stringify(r.cells),
    pieceId,
  ]);
  if (values.length === 0) return { added: 0, ids };
  // every cell was checked against the reference before; IGNORE passes over rows that are known by their hash
  const added = await tx.insertMany(`INSERT IGNORE INTO comparable (${COLUMNS}) VALUES ?`, values);
  return { added, ids };
}

export async function knownHashes(db: Queries, hashes: readonly string[]): Promise<Set<string>> {
  const known = new Set<string>();
  for (let at = 0; at < hashes.length; at += 1000) {
    const part = hashes.slice(at, at + 1000);
    const rows = await db.rows<{ row_hash: string }>(
      `SELECT row_hash FROM comparable WHERE row_hash IN (${part.map(() => '?').join(',')})`,
      part,
    );
    for (const row of rows) known.add(row.row_hash);
  }
  return known;
}

interface ComparableRow {
  id: string;
  sale_date: string;
  sale_day: string;
  price: string;
  currency: string;
  price_kind: PriceKind;
  venue_kind: VenueKind;
  pattern_id: string;
  variant_id: string | null;
  variant_name: string | null;
  condition_index: string | null;
  box: ItemState | null;
  papers: ItemState | null;
  sheath: ItemState | null;
  alterations: string;
  buyer_premium_pct: string | null;
  shipping_included: number;
  cells: Record<string, string>;
}

const recordOf = (row: ComparableRow): ComparableRecord => ({
  id: row.id,
  cells: row.cells,
  saleDate: row.sale_date,
  price: money(row.price, row.currency),
  priceKind: row.price_kind,
  venueKind: row.venue_kind,
  pattern: row.pattern_id,
  variant: row.variant_id,
  variantName: row.variant_name,
  conditionIndex: row.condition_index === null ? null : Number(row.condition_index),
});

export interface ComparableFilter {
  readonly pattern: string | undefined;
  readonly variant: string | undefined;
  readonly priceKind: string | undefined;
}

function filterSql(filter: ComparableFilter): { where: string[]; values: Value[] } {
  const where: string[] = [];
  const values: Value[] = [];
  for (const [column, value] of [
    ['pattern_id', filter.pattern],
    ['variant_id', filter.variant],
    ['price_kind', filter.priceKind],
  ] as const)
    if (value !== undefined) {
      where.push(`${column} = ?`);
      values.push(value);
    }
  return { where, values };
}

export async function listComparables(
  db: Queries,
  filter: ComparableFilter,
  after: readonly (string | number)[] | undefined,
  limit: number,
): Promise<(ComparableRecord & { sale_day: string })[]> {
  const { where, values } = filterSql(filter);
  const [day, id] = after ?? [];
  if (day !== undefined && id !== undefined) {
    where.push('(sale_day < ? OR (sale_day = ? AND id < ?))');
    values.push(day, day, id);
  }
  const rows = await db.rows<ComparableRow>(
    `SELECT ${SHOWN} FROM comparable ${where.length > 0 ? `WHERE ${where.join(' AND ')}` : ''} ORDER BY sale_day DESC, id DESC LIMIT ?`,
    [...values, limit],
  );
  return rows.map((row) => ({ ...recordOf(row), sale_day: row.sale_day }));
}

export async function countComparables(db: Queries, filter: ComparableFilter): Promise<number> {
  const { where, values } = filterSql(filter);
  const row = await db.row<{ n: number }>(
    `SELECT COUNT(*) AS n FROM comparable ${where.length > 0 ? `WHERE ${where.join(' AND ')}` : ''}`,
    values,
  );
  return Number(row?.n ?? 0);
}

export async function comparablesByIds(
  db: Queries,
  ids: readonly string[],
): Promise<Map<string, ComparableRecord>> {
  if (ids.length === 0) return new Map();
  const rows = await db.rows<ComparableRow>(
    `SELECT ${SHOWN} FROM comparable WHERE id IN (${ids.map(() => '?').join(',')})`,
    ids,
  );
  return new Map(rows.map((row) => [row.id, recordOf(row)]));
}

const numberDay = (iso: string) =>
  dayOf(Number(iso.slice(0, 4)), Number(iso.slice(5, 7)), Number(iso.slice(8, 10)));

/** How firmly a grade word is held to the middle of its band, in sales. */
const GRADE_HOLD = 8;

/** All sales up to a day, ready for the regression; a grade alone stands for what rows with both say. */
export async function salesUpTo(db: Queries, day: string): Promise<Comparable[]> {
  const rows = await db.rows<ComparableRow>(
    `SELECT ${COLUMNS}, NULL AS variant_name FROM comparable WHERE sale_day <= ? ORDER BY id`,
    [day],
  );
  const sums = new Map<string, { total: number; n: number }>();
  for (const row of rows) {
    const key = gradeKey(row);
    if (key === undefined || row.condition_index === null) continue;
    const sum = sums.get(key) ?? { total: 0, n: 0 };
    sums.set(key, { total: sum.total + Number(row.condition_index), n: sum.n + 1 });
  }
  const indexOf = (row: ComparableRow): number | undefined => {
    if (row.condition_index !== null) return Number(row.condition_index);
    const key = gradeKey(row);
    const middle = middleOfGrade(row.cells.grade_scale ?? '', row.cells.grade ?? '');
    if (key === undefined || middle === undefined) return undefined;
    const sum = sums.get(key) ?? { total: 0, n: 0 };
    return (sum.total + GRADE_HOLD * middle) / (sum.n + GRADE_HOLD);
  };
  return rows.map((row) => ({
    id: row.id,
    day: numberDay(row.sale_day),
    price: money(row.price, row.currency),
    priceKind: row.price_kind,
    venueKind: row.venue_kind,
    pattern: row.pattern_id,
    variant: row.variant_id ?? undefined,
    conditionIndex: indexOf(row),
    box: row.box ?? undefined,
    papers: row.papers ?? undefined,
    sheath: row.sheath ?? undefined,
    alterations: row.alterations === '' ? [] : (row.alterations.split('|') as Alteration[]),
    buyerPremiumPct: row.buyer_premium_pct === null ? undefined : Number(row.buyer_premium_pct),
    shippingIncluded: Boolean(row.shipping_included),
  }));
}

const gradeKey = (row: ComparableRow) =>
  row.cells.grade !== undefined && row.cells.grade_scale !== undefined
    ? `${row.cells.grade_scale} ${row.cells.grade}`
    : undefined;

export async function storeRates(
  tx: Queries,
  rates: readonly { date: string; currency: string; rate: string }[],
): Promise<{ added: number; updated: number; unchanged: number }> {
  const known = new Map(
    (
      await tx.rows<{ currency: string; day: string; rate: string }>(
        'SELECT currency, day, rate FROM exchange_rate',
      )
    ).map((r) => [`${r.currency} ${r.day}`, r.rate]),
  );
  const last = new Map(rates.map((r) => [`${r.currency} ${r.date}`, r]));
  let added = 0;
  let updated = 0;
  const changed = [...last].filter(([key, rate]) => {
    const before = known.get(key);
    if (before === undefined) added++;
    else if (Number(before) !== Number(rate.rate)) updated++;
    else return false;
    return true;
  });
  if (changed.length > 0)
    await tx.insertMany(
      'INSERT INTO exchange_rate (currency, day, rate) VALUES ? ON DUPLICATE KEY UPDATE rate = VALUES(rate)',
      changed.map(([, r]) => [r.currency, r.date, r.rate]),
    );
  return { added, updated, unchanged: rates.length - added - updated };
}

export interface RateTable {
  /** per currency: days (since 1970) and rates, oldest first */
  readonly byCurrency: ReadonlyMap<string, { day: number; iso: string; rate: number }[]>;
}

export async function loadRates(db: Queries): Promise<RateTable> {
  const rows = await db.rows<{ currency: string; day: string; rate: string }>(
    'SELECT currency, day, rate FROM exchange_rate ORDER BY currency, day',
  );
  const byCurrency = new Map<string, { day: number; iso: string; rate: number }[]>();
  for (const row of rows) {
    const list = byCurrency.get(row.currency) ?? [];
    list.push({ day: numberDay(row.day), iso: row.day, rate: Number(row.rate) });
    byCurrency.set(row.currency, list);
  }
  return { byCurrency };
}

/** The last rate on or before a day; 1 for the base. */
export function rateOn(
  table: RateTable,
  base: string,
): (currency: string, day: number) => number | undefined {
  return (currency, day) => {
    if (currency === base) return 1;
    const list = table.byCurrency.get(currency);
    if (!list) return undefined;
    let [low, high] = [0, list.length];
    while (low < high) {
      const middle = (low + high) >> 1;
      if ((list[middle]?.day ?? Infinity) <= day) low = middle + 1;
      else high = middle;
    }
    return list[low - 1]?.rate;
  };
}
