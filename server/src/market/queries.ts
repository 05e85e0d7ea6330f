/** SQL of comparables and rates. */
import { monotonicFactory } from 'ulid';
import { money } from '@jutbank/core/money';
import type { ItemState, PriceKind, RateOn, VenueKind } from '@jutbank/core/market';
import {
  COMPARABLE_COLUMNS,
  type ComparableFilter,
  type ComparableRecord,
  type ComparableState,
} from '@jutbank/contract/market';
import { raiseRevision, type Queries, type Transaction, type Value } from '../db/index.ts';
import type { NormalRow } from './normalise.ts';
import { numberDay } from './sales.ts';

/** One after the other within a millisecond: rows of one list are written where the last one was. */
const nextId = monotonicFactory();

const COLUMNS =
  'id, row_hash, sale_date, sale_day, price, currency, price_kind, venue_kind, pattern_id, variant_id, condition_index, box, papers, sheath, alterations, buyer_premium_pct, shipping_included, cells, piece_id, import_id, venue, grade_scale, grade, words';

/** With the variant's name, for lists a person reads. */
const SHOWN = `${COLUMNS}, state, state_reason, (SELECT v.name FROM reference_variant v WHERE v.id = comparable.variant_id) AS variant_name`;

const LONGEST_VENUE = 200;
const LONGEST_WORDS = 240;

/** Adds rows that are not known yet; the number added. They count once `nowCounted` has said so, in the same transaction. */
export async function insertComparables(
  tx: Transaction,
  rows: readonly NormalRow[],
  from: { readonly pieceId?: string; readonly importId?: string } = {},
): Promise<{ added: number; ids: string[] }> {
  const ids = rows.map(() => nextId());
  const values = rows.map((r, i): Value[] => [
    ids[i] ?? nextId(),
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
    from.pieceId ?? null,
    from.importId ?? null,
    r.cells.venue?.slice(0, LONGEST_VENUE) ?? null,
    r.cells.grade_scale ?? null,
    r.cells.grade ?? null,
    folded([r.cells.venue, r.cells.source, r.cells.note].filter(Boolean).join(' ')).slice(0, LONGEST_WORDS),
  ]);
  if (values.length === 0) return { added: 0, ids };
  // every cell was checked against the reference before; IGNORE passes over rows that are known by their hash
  const added = await tx.insertMany(`INSERT IGNORE INTO comparable (${COLUMNS}) VALUES ?`, values);
  return { added, ids };
}

/** New rows count from now on: a revision in which they came is written beside them. */
export async function stampRevision(
  tx: Transaction,
  which: { readonly ids: readonly string[] } | { readonly importId: string },
): Promise<void> {
  const revision = await raiseRevision(tx, 'comparables');
  if ('importId' in which)
    await tx.run('UPDATE comparable SET changed_in = ? WHERE import_id = ?', [revision, which.importId]);
  else if (which.ids.length > 0)
    await tx.run(`UPDATE comparable SET changed_in = ? WHERE id IN (${which.ids.map(() => '?').join(',')})`, [
      revision,
      ...which.ids,
    ]);
}

/** Sets rows aside, merges them into another or takes them back; those already so are passed over. The number changed. */
export async function changeStates(
  tx: Transaction,
  ids: readonly string[],
  to: { readonly state: ComparableState; readonly reason: string | null; readonly mergedInto: string | null },
): Promise<number> {
  if (ids.length === 0) return 0;
  const revision = await raiseRevision(tx, 'comparables');
  if (to.state !== 'kept')
    await tx.run(
      `INSERT INTO comparable_past (comparable_id, known_from, known_to)
       SELECT id, changed_in, ? FROM comparable WHERE id IN (${ids.map(() => '?').join(',')}) AND state = 'kept'`,
      [revision, ...ids],
    );
  return tx.run(
    `UPDATE comparable SET changed_before = changed_in, changed_in = ?, state = ?, state_reason = ?, merged_into = ?
     WHERE id IN (${ids.map(() => '?').join(',')}) AND state <> ?`,
    [revision, to.state, to.reason, to.mergedInto, ...ids, to.state],
  );
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
  state: ComparableState;
  state_reason: string | null;
}

const recordOf = (row: ComparableRow): ComparableRecord => ({
  id: row.id,
  state: row.state,
  stateReason: row.state_reason,
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

/** As `words` are stored: without case and accents. */
const folded = (text: string): string => text.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase();

function filterSql(filter: ComparableFilter): { where: string[]; values: Value[] } {
  const where = ['state = ?'];
  const values: Value[] = [filter.state ?? 'kept'];
  for (const [condition, value] of [
    ['pattern_id = ?', filter.pattern],
    ['variant_id = ?', filter.variant],
    ['price_kind = ?', filter.priceKind],
    ['venue_kind = ?', filter.venueKind],
    ['currency = ?', filter.currency],
    ['sale_day >= ?', filter.from],
    ['sale_day <= ?', filter.to],
  ] as const)
    if (value !== undefined && value !== '') {
      where.push(condition);
      values.push(value);
    }
  for (const word of folded(filter.q ?? '')
    .split(/\s+/)
    .filter(Boolean)) {
    where.push('words LIKE ?');
    values.push(`%${word.replace(/[%_\\]/g, '\\$&')}%`);
  }
  return { where, values };
}

/** One pattern's prices have an index of their own; all others are looked for in the one that holds what is asked. */
const searchedIn = (filter: ComparableFilter): string =>
  filter.pattern === undefined && filter.variant === undefined ? ' FORCE INDEX (comparable_newest)' : '';

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
    `SELECT ${SHOWN} FROM comparable JOIN (
       SELECT id AS found FROM comparable${searchedIn(filter)} WHERE ${where.join(' AND ')}
       ORDER BY sale_day DESC, id DESC LIMIT ?
     ) page ON page.found = comparable.id ORDER BY sale_day DESC, id DESC`,
    [...values, limit],
  );
  return rows.map((row) => ({ ...recordOf(row), sale_day: row.sale_day }));
}

export async function countComparables(db: Queries, filter: ComparableFilter): Promise<number> {
  const { where, values } = filterSql(filter);
  const row = await db.row<{ n: number }>(
    `SELECT COUNT(*) AS n FROM comparable${searchedIn(filter)} WHERE ${where.join(' AND ')}`,
    values,
  );
  return Number(row?.n ?? 0);
}

/** Columns under which lists kept something that Jutbank has no column for, in the order of the alphabet. */
export async function furtherColumns(db: Queries, filter: ComparableFilter): Promise<string[]> {
  const { where, values } = filterSql(filter);
  const rows = await db.rows<{ names: string[] }>(
    `SELECT DISTINCT JSON_KEYS(cells) AS names FROM comparable WHERE ${where.join(' AND ')}`,
    values,
  );
  const own = new Set<string>(COMPARABLE_COLUMNS);
  const read = (names: unknown) =>
    typeof names === 'string' ? (JSON.parse(names) as string[]) : (names as string[]);
  return [...new Set(rows.flatMap((row) => read(row.names)))].filter((name) => !own.has(name)).sort();
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

export interface RateTable {
  /** per currency: days (since 1970) and rates, oldest first */
  readonly byCurrency: ReadonlyMap<string, { day: number; iso: string; rate: number }[]>;
}

/** @param revision in which they were known; without it, as they stand */
export async function loadRates(db: Queries, revision?: number): Promise<RateTable> {
  const rows = await db.rows<{ currency: string; day: string; rate: string }>(
    revision === undefined
      ? 'SELECT currency, day, rate FROM exchange_rate ORDER BY currency, day'
      : `SELECT currency, day, rate FROM exchange_rate WHERE known_from <= ?
         UNION ALL SELECT currency, day, rate FROM exchange_rate_past WHERE known_from <= ? AND known_to > ?
         ORDER BY currency, day`,
    revision === undefined ? [] : [revision, revision, revision],
  );
  const byCurrency = new Map<string, { day: number; iso: string; rate: number }[]>();
  for (const row of rows) {
    const list = byCurrency.get(row.currency) ?? [];
    list.push({ day: numberDay(row.day), iso: row.day, rate: Number(row.rate) });
    byCurrency.set(row.currency, list);
  }
  return { byCurrency };
}

/** The last rate on or before a day, with the day it is of. */
export function rateUsed(
  table: RateTable,
  currency: string,
  day: number,
): { readonly rate: number; readonly iso: string } | undefined {
  const list = table.byCurrency.get(currency);
  if (!list) return undefined;
  let [low, high] = [0, list.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if ((list[middle]?.day ?? Infinity) <= day) low = middle + 1;
    else high = middle;
  }
  return list[low - 1];
}

/** Units of a currency for one of the base on a day; 1 for the base. */
export const rateOn =
  (table: RateTable, base: string): RateOn =>
  (currency, day) =>
    currency === base ? 1 : rateUsed(table, currency, day)?.rate;
