import type { Person, PersonOnList, Role, Shop } from '@jutbank/contract/shop';
import type { Secret } from '@jutbank/contract/http';
import type { Queries, Transaction } from '../db/index.ts';

interface ShopRow {
  name: string;
  base_currency: string;
  stock_scheme: string;
  reader_sees: Secret[] | null;
  day_first: number;
}

export async function findShop(db: Queries): Promise<Shop | undefined> {
  const row = await db.row<ShopRow>(
    'SELECT name, base_currency, stock_scheme, reader_sees, day_first FROM shop WHERE id = 1',
  );
  return (
    row && {
      name: row.name,
      baseCurrency: row.base_currency,
      stockScheme: row.stock_scheme,
      channelName: 'Quayside market (simulated)',
      demo: process.env.JUTBANK_DEMO === '1',
      readerSees: row.reader_sees ?? [],
      dayFirst: Boolean(row.day_first),
    }
  );
}

export async function shopOf(db: Queries): Promise<Shop> {
  const shop = await findShop(db);
  if (!shop) throw new Error('the shop has not been set up');
  return shop;
}

const personOf = (row: { id: string; name: string; email: string; role: Role }): Person => ({
  id: row.id,
  name: row.name,
  email: row.email,
  role: row.role,
});

/** Every so often it is noted that a session is in use; not at each request. */
const SEEN_EVERY_MINUTES = 5;

export async function personBySession(db: Queries, tokenHash: string): Promise<Person | undefined> {
  const row = await db.row<{ id: string; name: string; email: string; role: Role; stale: number }>(
    `SELECT p.id, p.name, p.email, p.role, s.seen_at < DATE_SUB(UTC_TIMESTAMP(3), INTERVAL ${SEEN_EVERY_MINUTES} MINUTE) AS stale
     FROM session s JOIN person p ON p.id = s.person_id WHERE s.token_hash = ? AND s.expires_at > UTC_TIMESTAMP(3) AND p.removed_at IS NULL`,
    [tokenHash],
  );
  if (!row) return undefined;
  if (row.stale)
    // that it cannot be noted keeps nobody out
    await db
      .run('UPDATE session SET seen_at = UTC_TIMESTAMP(3) WHERE token_hash = ?', [tokenHash])
      .catch(() => undefined);
  return personOf(row);
}

export interface Credentials {
  readonly person: Person;
  readonly passwordHash: string;
  /** of the second factor; null where none is asked for */
  readonly secret: string | null;
  /** of the code that was taken last */
  readonly lastStep: number | null;
}
const credentialsWhere =
  (column: 'email' | 'id') =>
  async (db: Queries, value: string): Promise<Credentials | undefined> => {
    const row = await db.row<{
      id: string;
      name: string;
      email: string;
      role: Role;
      password_hash: string;
      secret: string | null;
      totp_counter: number | null;
    }>(
      `SELECT id, name, email, role, password_hash, IF(totp_since IS NULL, NULL, totp_secret) AS secret, totp_counter
       FROM person WHERE ${column} = ? AND removed_at IS NULL`,
      [value],
    );
    return (
      row && {
        person: personOf(row),
        passwordHash: row.password_hash,
        secret: row.secret,
        lastStep: row.totp_counter === null ? null : Number(row.totp_counter),
      }
    );
  };
export const credentialsByEmail = credentialsWhere('email');
export const credentialsById = credentialsWhere('id');

export async function listPeople(db: Queries): Promise<PersonOnList[]> {
  const rows = await db.rows<{
    id: string;
    name: string;
    email: string;
    role: Role;
    second: number;
    sessions: number;
  }>(
    `SELECT p.id, p.name, p.email, p.role, p.totp_since IS NOT NULL AS second,
       (SELECT COUNT(*) FROM session s WHERE s.person_id = p.id AND s.expires_at > UTC_TIMESTAMP(3)) AS sessions
     FROM person p WHERE p.removed_at IS NULL ORDER BY p.created_at, p.id`,
  );
  return rows.map((row) => ({
    ...personOf(row),
    secondFactor: Boolean(row.second),
    sessions: Number(row.sessions),
  }));
}

/**
 * Takes the next number of a series, or so many from it on; the row stays locked to the end of the transaction.
 * @returns the first of them
 */
export async function takeNumber(
  tx: Transaction,
  series: 'next_stock' | 'next_invoice' | 'next_appraisal' | 'next_credit' | 'next_settlement',
  count = 1,
): Promise<number> {
  const row = await tx.row<{ n: number }>(`SELECT ${series} AS n FROM shop WHERE id = 1 FOR UPDATE`);
  if (!row) throw new Error('the shop has not been set up');
  await tx.run(`UPDATE shop SET ${series} = ${series} + ? WHERE id = 1`, [count]);
  return Number(row.n);
}
