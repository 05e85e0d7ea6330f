/** The ledger asked as an auditor asks: by person, kind, piece and day. */
import type { AuditEntry, AuditFilter } from '@jutbank/contract/provenance';
import type { Queries, Value } from '../db/index.ts';
import { entryOf, type LedgerRow } from '../ledger/index.ts';

const dayAfter = (day: string): string => new Date(Date.parse(day) + 86_400_000).toISOString().slice(0, 10);

function filterSql({ person, kind, piece, from, to }: AuditFilter): { where: string[]; values: Value[] } {
  const asked = [
    ['e.person = ?', person],
    ['e.kind = ?', kind],
    ['e.piece_id = ?', piece],
    ['e.at >= ?', from],
    // the whole of the last day
    ['e.at < ?', to === undefined ? undefined : dayAfter(to)],
  ] as const;
  const told = asked.flatMap(([condition, value]) => (value === undefined ? [] : [{ condition, value }]));
  return { where: told.map((t) => t.condition), values: told.map((t) => t.value) };
}

export async function auditEntries(
  db: Queries,
  filter: AuditFilter,
  before: number | undefined,
  limit: number,
): Promise<AuditEntry[]> {
  const { where, values } = filterSql(filter);
  const rows = await db.rows<LedgerRow & { stock_number: string | null; title: string | null }>(
    `SELECT e.seq, e.piece_id, e.kind, e.at, e.person, e.body, e.previous, e.hash, p.stock_number, p.title
     FROM ledger_entry e LEFT JOIN piece p ON p.id = e.piece_id
     WHERE ${['e.seq < ?', ...where].join(' AND ')} ORDER BY e.seq DESC LIMIT ?`,
    [before ?? Number.MAX_SAFE_INTEGER, ...values, limit],
  );
  return rows.map((row) => ({ ...entryOf(row), stockNumber: row.stock_number, title: row.title }));
}

export async function countAudit(db: Queries, filter: AuditFilter): Promise<number> {
  const { where, values } = filterSql(filter);
  const row = await db.row<{ n: number }>(
    `SELECT COUNT(*) AS n FROM ledger_entry e${where.length === 0 ? '' : ` WHERE ${where.join(' AND ')}`}`,
    values,
  );
  return Number(row?.n ?? 0);
}
