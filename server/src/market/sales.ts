/** Prices as the regression reads them, and what changed among them between two revisions. */
import { asDay, dayOf, isoOf } from '@jutbank/core/dates';
import { middleOfGrade, type RuleSet } from '@jutbank/core/condition';
import type { Alteration, Comparable, ItemState, PriceKind, VenueKind } from '@jutbank/core/market';
import type { Queries } from '../db/index.ts';
import { COUNTS_IN } from './knowledge.ts';

/** Index that stands for a grade word, by `scale grade`. */
export type GradeIndex = Readonly<Record<string, number>>;

interface SaleRow {
  id: string;
  sale_day: string;
  price: string;
  currency: string;
  price_kind: PriceKind;
  venue_kind: VenueKind;
  venue: string | null;
  pattern_id: string;
  variant_id: string | null;
  condition_index: string | null;
  grade_scale: string | null;
  grade: string | null;
  box: ItemState | null;
  papers: ItemState | null;
  sheath: ItemState | null;
  alterations: string;
  buyer_premium_pct: string | null;
  shipping_included: number;
}
const COLUMNS =
  'id, sale_day, price, currency, price_kind, venue_kind, venue, pattern_id, variant_id, condition_index, grade_scale, grade, box, papers, sheath, alterations, buyer_premium_pct, shipping_included';

export const numberDay = (iso: string) =>
  dayOf(Number(iso.slice(0, 4)), Number(iso.slice(5, 7)), Number(iso.slice(8, 10)));

export const isoDay = (day: number): string => isoOf(asDay(day));

const gradeKey = (row: SaleRow) =>
  row.grade === null || row.grade_scale === null ? undefined : `${row.grade_scale} ${row.grade}`;

/** How firmly a grade word is held to the middle of its band, in sales. */
const GRADE_HOLD = 8;
/** The middle of every grade's band in the scales that a shop grades by, by `scale grade`. */
export const middlesOf = (rules: RuleSet): GradeIndex =>
  Object.fromEntries(
    rules.scales.flatMap((scale) =>
      scale.grades.map(({ grade }) => [
        `${scale.id} ${grade}`,
        middleOfGrade(scale.id, grade, rules.scales) ?? 0,
      ]),
    ),
  );

/** A grade alone stands for what the rows that tell both say, held to the middle of its band. */
function gradesOf(rows: readonly SaleRow[], middles: GradeIndex): GradeIndex {
  const sums = new Map<string, { total: number; n: number }>();
  for (const row of rows) {
    const key = gradeKey(row);
    if (key === undefined) continue;
    const sum = sums.get(key) ?? { total: 0, n: 0 };
    sums.set(key, sum);
    if (row.condition_index === null) continue;
    sum.total += Number(row.condition_index);
    sum.n++;
  }
  // a grade that no row shows stands for the middle of its band
  return {
    ...middles,
    ...Object.fromEntries(
      [...sums].flatMap(([key, { total, n }]) => {
        const middle = middles[key];
        return middle === undefined ? [] : [[key, (total + GRADE_HOLD * middle) / (n + GRADE_HOLD)]];
      }),
    ),
  };
}

function saleOf(row: SaleRow, grades: GradeIndex): Comparable {
  const key = gradeKey(row);
  const byGrade = row.condition_index !== null || key === undefined ? undefined : grades[key];
  return {
    id: row.id,
    day: numberDay(row.sale_day),
    price: { amount: row.price, currency: row.currency },
    priceKind: row.price_kind,
    venueKind: row.venue_kind,
    venue: row.venue ?? undefined,
    pattern: row.pattern_id,
    variant: row.variant_id ?? undefined,
    conditionIndex: row.condition_index === null ? byGrade : Number(row.condition_index),
    ...(byGrade === undefined ? {} : { conditionBy: 'grade' as const }),
    gradeScale: row.grade_scale ?? undefined,
    box: row.box ?? undefined,
    papers: row.papers ?? undefined,
    sheath: row.sheath ?? undefined,
    alterations: row.alterations === '' ? [] : (row.alterations.split('|') as Alteration[]),
    buyerPremiumPct: row.buyer_premium_pct === null ? undefined : Number(row.buyer_premium_pct),
    shippingIncluded: Boolean(row.shipping_included),
  };
}

/** All sales up to a day, and what a grade word stands for among them. */
export async function salesUpTo(
  db: Queries,
  day: string,
  middles: GradeIndex,
): Promise<{ sales: Comparable[]; grades: GradeIndex }> {
  const rows = await db.rows<SaleRow>(
    `SELECT ${COLUMNS} FROM comparable WHERE sale_day <= ? AND state = 'kept' ORDER BY id`,
    [day],
  );
  const grades = gradesOf(rows, middles);
  return { sales: rows.map((row) => saleOf(row, grades)), grades };
}

/** All sales up to a day that counted in a revision, whatever became of them since. */
export async function salesKnown(
  db: Queries,
  { asOf, comparables }: SalesSnapshot,
  middles: GradeIndex,
): Promise<{ sales: Comparable[]; grades: GradeIndex }> {
  const rows = await db.rows<SaleRow>(
    `SELECT ${COLUMNS} FROM comparable WHERE sale_day <= ? AND ${COUNTS_IN} ORDER BY id`,
    [asOf, comparables, comparables, comparables],
  );
  const grades = gradesOf(rows, middles);
  return { sales: rows.map((row) => saleOf(row, grades)), grades };
}

/**
 * Sales of a variant, or of whole patterns, up to a day, newest first: those that stand and have not changed
 * since a revision, or those that counted then.
 */
export async function salesOf(
  db: Queries,
  of: { readonly variant: string } | { readonly pattern: string } | { readonly patterns: readonly string[] },
  { asOf, comparables }: SalesSnapshot,
  grades: GradeIndex,
  known: 'since' | 'then' = 'since',
): Promise<Comparable[]> {
  const [column, which] =
    'variant' in of
      ? ['variant_id', [of.variant]]
      : ['pattern_id', 'pattern' in of ? [of.pattern] : of.patterns];
  if (which.length === 0) return [];
  const rows = await db.rows<SaleRow>(
    `SELECT ${COLUMNS} FROM comparable WHERE ${column} IN (${which.map(() => '?').join(',')}) AND sale_day <= ? AND ${known === 'then' ? COUNTS_IN : "state = 'kept' AND changed_in <= ?"} ORDER BY sale_day DESC, id DESC`,
    [...which, asOf, comparables, ...(known === 'then' ? [comparables, comparables] : [])],
  );
  return rows.map((row) => saleOf(row, grades));
}

export async function salesByIds(
  db: Queries,
  ids: readonly string[],
  grades: GradeIndex,
): Promise<Comparable[]> {
  if (ids.length === 0) return [];
  const rows = await db.rows<SaleRow>(
    `SELECT ${COLUMNS} FROM comparable WHERE id IN (${ids.map(() => '?').join(',')})`,
    ids,
  );
  return rows.map((row) => saleOf(row, grades));
}

/** A set of sales: those that were known in a revision, up to a day. */
export interface SalesSnapshot {
  readonly comparables: number;
  readonly asOf: string;
}
export interface SalesChange {
  readonly added: readonly Comparable[];
  readonly removed: readonly Comparable[];
}

/** What came and went from one set to a later-known one; undefined when it is more than `most`, or cannot be told. */
export async function changeBetween(
  db: Queries,
  from: SalesSnapshot,
  to: SalesSnapshot,
  grades: GradeIndex,
  most: number,
): Promise<SalesChange | undefined> {
  if (to.comparables < from.comparables) return undefined;
  const [early, late] = from.asOf < to.asOf ? [from.asOf, to.asOf] : [to.asOf, from.asOf];
  const rows = await db.rows<SaleRow & { state: string; changed_in: number; changed_before: number | null }>(
    // each by itself no more than asked for: a union is made whole before it is cut
    `(SELECT ${COLUMNS}, state, changed_in, changed_before FROM comparable WHERE changed_in > ? AND sale_day <= ? LIMIT ?)
     UNION (SELECT ${COLUMNS}, state, changed_in, changed_before FROM comparable WHERE sale_day > ? AND sale_day <= ? LIMIT ?)`,
    [from.comparables, late, most + 1, early, late, most + 1],
  );
  if (rows.length > most) return undefined;
  const added: Comparable[] = [];
  const removed: Comparable[] = [];
  for (const row of rows) {
    const kept = row.state === 'kept';
    const changed = Number(row.changed_in) > from.comparables;
    // the state of a row that changed twice since is not written down
    if (changed && row.changed_before !== null && Number(row.changed_before) > from.comparables)
      return undefined;
    const knownThen = changed ? row.changed_before !== null && !kept : kept;
    const before = knownThen && row.sale_day <= from.asOf;
    const after = kept && row.sale_day <= to.asOf;
    if (after && !before) added.push(saleOf(row, grades));
    if (before && !after) removed.push(saleOf(row, grades));
  }
  return { added, removed };
}
