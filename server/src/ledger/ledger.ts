/** The append-only ledger: each entry hashed over the one before it (SHA-256 of canonical JSON, RFC 8785). */
import { createHash } from 'node:crypto';
import canonicalize from 'canonicalize';
import type { LedgerCheck, LedgerEntry } from '@jutbank/contract/provenance';
import type { Person } from '@jutbank/contract/shop';
import type { Queries, Transaction } from '../db/index.ts';

const GENESIS = '0'.repeat(64);

interface Hashed {
  readonly seq: number;
  readonly pieceId: string | null;
  readonly kind: string;
  readonly at: string;
  readonly by: string;
  readonly body: unknown;
  readonly previous: string;
}

export const canonical = (value: unknown): string => {
  const text = canonicalize(value as object);
  if (text === undefined) throw new Error('a ledger entry must be JSON');
  return text;
};
export const sha256 = (text: string): string => createHash('sha256').update(text).digest('hex');
export const hashOf = (entry: Hashed): string => sha256(canonical(entry));

export interface NewEntry {
  readonly pieceId: string | null;
  readonly kind: string;
  readonly person: Person;
  readonly body: unknown;
}

/**
 * Appends inside the caller's transaction; the head stays locked to its end, so entries stand in one line.
 * @returns where the last of them stands
 */
export async function appendEntries(
  tx: Transaction,
  entries: readonly NewEntry[],
): Promise<{ seq: number; hash: string }> {
  const head = await tx.row<{ seq: number; hash: string }>(
    'SELECT seq, hash FROM ledger_head WHERE id = 1 FOR UPDATE',
  );
  if (!head) throw new Error('the ledger has lost its head');
  let { hash } = head;
  let seq = Number(head.seq);
  const at = new Date().toISOString();
  const rows = entries.map(({ pieceId, kind, person, body: given }) => {
    const body: unknown = JSON.parse(canonical(given));
    const hashed: Hashed = { seq: ++seq, pieceId, kind, at, by: person.name, body, previous: hash };
    hash = hashOf(hashed);
    return [seq, pieceId, kind, at, person.id, person.name, canonical(body), hashed.previous, hash];
  });
  await tx.insertMany(
    'INSERT INTO ledger_entry (seq, piece_id, kind, at, person_id, person, body, previous, hash) VALUES ?',
    rows,
  );
  await tx.run('UPDATE ledger_head SET seq = ?, hash = ? WHERE id = 1', [seq, hash]);
  return { seq, hash };
}
export const appendLedger = (tx: Transaction, entry: NewEntry): Promise<{ seq: number; hash: string }> =>
  appendEntries(tx, [entry]);

export interface LedgerRow {
  seq: number;
  piece_id: string | null;
  kind: string;
  at: string;
  person: string;
  body: string;
  previous: string;
  hash: string;
}
export const entryOf = (row: LedgerRow): LedgerEntry => ({
  seq: Number(row.seq),
  pieceId: row.piece_id,
  kind: row.kind,
  at: row.at,
  by: row.person,
  body: JSON.parse(row.body) as unknown,
  previous: row.previous,
  hash: row.hash,
});

export async function ledgerOfPiece(
  db: Queries,
  pieceId: string,
  before: number | undefined,
  limit: number,
): Promise<LedgerEntry[]> {
  const rows = await db.rows<LedgerRow>(
    'SELECT seq, piece_id, kind, at, person, body, previous, hash FROM ledger_entry WHERE piece_id = ? AND seq < ? ORDER BY seq DESC LIMIT ?',
    [pieceId, before ?? Number.MAX_SAFE_INTEGER, limit],
  );
  return rows.map(entryOf);
}

export async function countLedger(db: Queries, pieceId: string): Promise<number> {
  const row = await db.row<{ n: number }>('SELECT COUNT(*) AS n FROM ledger_entry WHERE piece_id = ?', [
    pieceId,
  ]);
  return Number(row?.n ?? 0);
}

const WALK = 2000;

/** Walks the chain from its beginning; tells the first entry that does not follow from the one before it. */
export async function verifyLedger(db: Queries): Promise<LedgerCheck> {
  let previous = GENESIS;
  let seq = 0;
  for (;;) {
    const rows = await db.rows<LedgerRow>(
      'SELECT seq, piece_id, kind, at, person, body, previous, hash FROM ledger_entry WHERE seq > ? ORDER BY seq LIMIT ?',
      [seq, WALK],
    );
    for (const entry of rows.map(entryOf)) {
      const { seq: number, pieceId, kind, at, by, body } = entry;
      const right =
        number === seq + 1 &&
        entry.previous === previous &&
        entry.hash === hashOf({ seq: number, pieceId, kind, at, by, body, previous });
      if (!right) return { intact: false, entries: seq, head: previous, firstBroken: number };
      seq = number;
      previous = entry.hash;
    }
    if (rows.length < WALK) break;
  }
  const head = await db.row<{ seq: number; hash: string }>('SELECT seq, hash FROM ledger_head WHERE id = 1');
  const whole = Number(head?.seq) === seq && head?.hash === previous;
  return { intact: whole, entries: seq, head: previous, firstBroken: whole ? null : seq + 1 };
}

/** Whether one entry still has the hash it was given; what a public check asks. */
export async function entryIntact(
  db: Queries,
  seq: number,
): Promise<{ hash: string; intact: boolean; body: Record<string, unknown> | null }> {
  const row = await db.row<LedgerRow>(
    'SELECT seq, piece_id, kind, at, person, body, previous, hash FROM ledger_entry WHERE seq = ?',
    [seq],
  );
  if (!row) return { hash: '', intact: false, body: null };
  const { hash, ...hashed } = entryOf(row);
  const body =
    typeof hashed.body === 'object' && hashed.body !== null ? { ...(hashed.body as object) } : null;
  return { hash, intact: hash === hashOf(hashed), body };
}

/** As much of a hash as stands at the foot of a paper. */
const SHORT = 16;
/** How a paper names the state of the record it was made from: the newest entry of the piece’s ledger. */
export async function recordMark(db: Queries, pieceId: string): Promise<string> {
  const row = await db.row<{ hash: string }>(
    'SELECT hash FROM ledger_entry WHERE piece_id = ? ORDER BY seq DESC LIMIT 1',
    [pieceId],
  );
  return markOf(row?.hash ?? '');
}
export const markOf = (hash: string): string => `record ${hash.slice(0, SHORT)}`;
