/** Counters by which every copy of the server knows whether what it remembers is still so. */
import type { Queries, Transaction } from './database.ts';

export type RevisionName =
  'reference' | 'comparables' | 'rates' | 'rules' | 'encounters' | 'record' | 'trail';

export async function revisionOf(db: Queries, name: RevisionName): Promise<number> {
  const row = await db.row<{ number: number }>('SELECT number FROM revision WHERE name = ?', [name]);
  return Number(row?.number ?? 0);
}

export async function revisions(db: Queries): Promise<Record<RevisionName, number>> {
  const rows = await db.rows<{ name: RevisionName; number: number }>('SELECT name, number FROM revision');
  const found = Object.fromEntries(rows.map((r) => [r.name, Number(r.number)]));
  return {
    reference: found.reference ?? 0,
    comparables: found.comparables ?? 0,
    rates: found.rates ?? 0,
    rules: found.rules ?? 0,
    encounters: found.encounters ?? 0,
    record: found.record ?? 0,
    trail: found.trail ?? 0,
  };
}

/** The number it now has. */
export async function raiseRevision(tx: Transaction, name: RevisionName): Promise<number> {
  await tx.run('UPDATE revision SET number = number + 1 WHERE name = ?', [name]);
  const number = await revisionOf(tx, name);
  await tx.run('INSERT INTO revision_log (name, number) VALUES (?, ?)', [name, number]);
  return number;
}
