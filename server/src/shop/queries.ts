import type { Person, Role, Shop } from '@jutbank/contract/shop';
import type { Queries, Transaction } from '../db/index.ts';

interface ShopRow {
  name: string;
  base_currency: string;
  stock_scheme: string;
}

export async function findShop(db: Queries): Promise<Shop | undefined> {
  const row = await db.row<ShopRow>('SELECT name, base_currency, stock_scheme FROM shop WHERE id = 1');
  return (
    row && {
      name: row.name,
      baseCurrency: row.base_currency,
      stockScheme: row.stock_scheme,
      channelName: 'Quayside market (simulated)',
      demo: process.env.JUTBANK_DEMO === '1',
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

export async function personBySession(db: Queries, tokenHash: string): Promise<Person | undefined> {
  const row = await db.row<{ id: string; name: string; email: string; role: Role }>(
    'SELECT p.id, p.name, p.email, p.role FROM session s JOIN person p ON p.id = s.person_id WHERE s.token_hash = ? AND s.expires_at > UTC_TIMESTAMP(3)',
    [tokenHash],
  );
  return row && personOf(row);
}

export async function credentialsByEmail(
  db: Queries,
  email: string,
): Promise<{ person: Person; passwordHash: string } | undefined> {
  const row = await db.row<{ id: string; name: string; email: string; role: Role; password_hash: string }>(
    'SELECT id, name, email, role, password_hash FROM person WHERE email = ?',
    [email],
  );
  return row && { person: personOf(row), passwordHash: row.password_hash };
}

export async function listPeople(db: Queries): Promise<Person[]> {
  const rows = await db.rows<{ id: string; name: string; email: string; role: Role }>(
    'SELECT id, name, email, role FROM person ORDER BY created_at, id',
  );
  return rows.map(personOf);
}

/** Takes the next number of a series; the row stays locked to the end of the transaction. */
export async function takeNumber(
  tx: Transaction,
  series: 'next_stock' | 'next_invoice' | 'next_appraisal',
): Promise<number> {
  const row = await tx.row<{ n: number }>(`SELECT ${series} AS n FROM shop WHERE id = 1 FOR UPDATE`);
  if (!row) throw new Error('the shop has not been set up');
  await tx.run(`UPDATE shop SET ${series} = ${series} + 1 WHERE id = 1`);
  return Number(row.n);
}
