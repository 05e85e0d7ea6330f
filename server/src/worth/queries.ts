/** Appraisals as they are stored, and what stands beside the prices they rest on. */
import { money } from '@jutbank/core/money';
import type { AppraisalRecord, AppraisalSummary, NearSale } from '@jutbank/contract/worth';
import { instant, type Queries, type Transaction } from '../db/index.ts';
import { COUNTS_IN } from '../market/index.ts';

const places = (list: readonly unknown[]) => list.map(() => '?').join(',');

export async function cellsOf(
  db: Queries,
  ids: readonly string[],
): Promise<Map<string, Record<string, string>>> {
  if (ids.length === 0) return new Map();
  const rows = await db.rows<{ id: string; cells: Record<string, string> }>(
    `SELECT id, cells FROM comparable WHERE id IN (${places(ids)})`,
    ids,
  );
  return new Map(rows.map((row) => [row.id, row.cells]));
}

export async function venuesOf(db: Queries, ids: readonly string[]): Promise<Map<string, string>> {
  if (ids.length === 0) return new Map();
  const rows = await db.rows<{ id: string; venue: string | null; venue_kind: string }>(
    `SELECT id, venue, venue_kind FROM comparable WHERE id IN (${places(ids)})`,
    ids,
  );
  return new Map(rows.map((row) => [row.id, row.venue ?? row.venue_kind]));
}

export async function namesOfVariants(db: Queries, pattern: string): Promise<Map<string, string>> {
  const rows = await db.rows<{ id: string; name: string }>(
    'SELECT id, name FROM reference_variant WHERE pattern_id = ?',
    [pattern],
  );
  return new Map(rows.map((row) => [row.id, row.name]));
}

/** Prices of a pattern that a person set aside or merged into another, newest first. */
export async function rejectedOf(
  db: Queries,
  pattern: string,
  asOf: string,
  limit: number,
): Promise<NearSale[]> {
  const rows = await db.rows<{
    id: string;
    sale_date: string;
    price: string;
    currency: string;
    venue: string | null;
    venue_kind: string;
    state: string;
    state_reason: string | null;
    name: string | null;
  }>(
    `SELECT c.id, c.sale_date, c.price, c.currency, c.venue, c.venue_kind, c.state, c.state_reason, v.name
     FROM comparable c LEFT JOIN reference_variant v ON v.id = c.variant_id
     WHERE c.pattern_id = ? AND c.sale_day <= ? AND c.state <> 'kept' ORDER BY c.sale_day DESC, c.id DESC LIMIT ?`,
    [pattern, asOf, limit],
  );
  return rows.map((row) => ({
    id: row.id,
    saleDate: row.sale_date,
    venue: row.venue ?? row.venue_kind,
    price: money(row.price, row.currency),
    variant: row.name,
    why: `${row.state === 'merged' ? 'the same sale as another' : 'set aside by hand'}${row.state_reason ? `: ${row.state_reason}` : ''}`,
  }));
}

/** Where rates came from, as they were known in a revision; by `currency day`. */
export async function rateSources(
  db: Queries,
  revision: number,
  used: readonly (readonly [currency: string, day: string])[],
): Promise<Map<string, string>> {
  const keys = [...new Set(used.map((pair) => pair.join(' ')))];
  if (keys.length === 0) return new Map();
  const days = used.map(([, day]) => day).sort();
  const rows = await db.rows<{ currency: string; day: string; source: string }>(
    `SELECT currency, day, source FROM exchange_rate
       WHERE day BETWEEN ? AND ? AND known_from <= ? AND CONCAT(currency, ' ', day) IN (${places(keys)})
     UNION ALL SELECT currency, day, source FROM exchange_rate_past
       WHERE day BETWEEN ? AND ? AND known_from <= ? AND known_to > ? AND CONCAT(currency, ' ', day) IN (${places(keys)})`,
    [
      ...[days[0] ?? '', days.at(-1) ?? '', revision, ...keys],
      ...[days[0] ?? '', days.at(-1) ?? '', revision, revision, ...keys],
    ],
  );
  return new Map(rows.map((row) => [`${row.currency} ${row.day}`, row.source]));
}

/** Who last wrote down its condition, and when; nobody where it was never inspected. */
export async function lastInspection(
  db: Queries,
  pieceId: string,
): Promise<{ by: string | null; at: string | null }> {
  const row = await db.row<{ noted_by: string; noted_at: string }>(
    'SELECT noted_by, noted_at FROM condition_state WHERE piece_id = ? ORDER BY id DESC LIMIT 1',
    [pieceId],
  );
  return { by: row?.noted_by ?? null, at: row ? instant(row.noted_at) : null };
}

/** The last sale known up to a day, and how many there were in the two years before it. */
export async function marketFacts(
  db: Queries,
  day: string,
): Promise<{ lastSale: string | null; soldInTwoYears: number }> {
  const row = await db.row<{ last: string | null; n: number | null }>(
    `SELECT MAX(sale_day) AS last, SUM(sale_day > DATE_SUB(?, INTERVAL 2 YEAR)) AS n FROM comparable
     WHERE state = 'kept' AND price_kind = 'sold' AND sale_day <= ?`,
    [day, day],
  );
  return { lastSale: row?.last ?? null, soldInTwoYears: Number(row?.n ?? 0) };
}

/** Sales that count in one revision and not in the other. */
export async function salesBetween(
  db: Queries,
  from: number,
  to: number,
  asOf: string,
): Promise<{ came: number; went: number }> {
  const row = await db.row<{ came: number | null; went: number | null }>(
    `SELECT SUM(${COUNTS_IN} AND NOT ${COUNTS_IN}) AS came, SUM(${COUNTS_IN} AND NOT ${COUNTS_IN}) AS went
     FROM comparable WHERE sale_day <= ?`,
    [to, to, to, from, from, from, from, from, from, to, to, to, asOf],
  );
  return { came: Number(row?.came ?? 0), went: Number(row?.went ?? 0) };
}

/** Rates that were entered or replaced between two revisions. */
export async function ratesBetween(db: Queries, from: number, to: number): Promise<number> {
  const row = await db.row<{ n: number }>(
    'SELECT COUNT(*) AS n FROM exchange_rate WHERE known_from > ? AND known_from <= ?',
    [from, to],
  );
  return Number(row?.n ?? 0);
}

export interface StoredAppraisal {
  readonly id: string;
  readonly pieceId: string;
  readonly text: string;
  readonly record: AppraisalRecord;
  readonly fingerprint: string;
  readonly ledgerSeq: number;
}

export async function storeAppraisal(
  tx: Transaction,
  of: StoredAppraisal & { readonly person: string },
): Promise<void> {
  const { record } = of;
  await tx.run(
    'INSERT INTO appraisal (id, piece_id, number, person, effective_date, made_at, currency, concluded, record, fingerprint, ledger_seq) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)',
    [
      of.id,
      of.pieceId,
      record.number,
      of.person,
      record.effectiveDate,
      record.issuedAt.slice(0, -1).replace('T', ' '),
      record.concluded.currency,
      record.concluded.amount,
      of.text,
      of.fingerprint,
      of.ledgerSeq,
    ],
  );
}

export async function appraisalById(db: Queries, id: string): Promise<StoredAppraisal | undefined> {
  const row = await db.row<{
    id: string;
    piece_id: string;
    record: string;
    fingerprint: string;
    ledger_seq: number;
  }>('SELECT id, piece_id, record, fingerprint, ledger_seq FROM appraisal WHERE id = ?', [id]);
  return (
    row && {
      id: row.id,
      pieceId: row.piece_id,
      text: row.record,
      record: JSON.parse(row.record) as AppraisalRecord,
      fingerprint: row.fingerprint,
      ledgerSeq: Number(row.ledger_seq),
    }
  );
}

export async function appraisalsOf(db: Queries, pieceId: string): Promise<AppraisalSummary[]> {
  const rows = await db.rows<{
    id: string;
    number: string;
    person: string;
    effective_date: string;
    made_at: string;
    currency: string;
    concluded: string;
    purpose: AppraisalSummary['purpose'];
    basis: AppraisalSummary['basis'];
  }>(
    `SELECT id, number, person, effective_date, made_at, currency, concluded,
       JSON_VALUE(record, '$.purpose') AS purpose, JSON_VALUE(record, '$.basis') AS basis
     FROM appraisal WHERE piece_id = ? ORDER BY id DESC LIMIT 200`,
    [pieceId],
  );
  return rows.map((row) => ({
    id: row.id,
    pieceId,
    number: row.number,
    person: row.person,
    madeAt: instant(row.made_at),
    effectiveDate: row.effective_date,
    concluded: money(row.concluded, row.currency),
    purpose: row.purpose,
    basis: row.basis,
  }));
}
