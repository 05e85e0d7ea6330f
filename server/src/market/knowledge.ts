/**
 * What was known when: revisions name a state of the comparables and the rates exactly, and every day has the revisions
 * that stood at its end.
 */
import { createHash } from 'node:crypto';
import { deserialize, serialize } from 'node:v8';
import type { MarketReference } from '@jutbank/core/market';
import type { Queries, Transaction } from '../db/index.ts';

/** A state of everything that prices are reckoned from; `reference` is a fingerprint, undefined for what stands now. */
export interface Knowledge {
  readonly comparables: number;
  readonly rates: number;
  readonly reference?: string | undefined;
  /** what a grade word stood for by its band, `scale grade`; undefined for the rules in use */
  readonly middles?: Readonly<Record<string, number>> | undefined;
}

/** A row of `comparable` that counts in a revision, given three times: kept since, or between two changes. */
export const COUNTS_IN = `((state = 'kept' AND changed_in <= ?) OR EXISTS (
  SELECT 1 FROM comparable_past p WHERE p.comparable_id = comparable.id AND p.known_from <= ? AND p.known_to > ?))`;

/** What had been entered by the end of a day (UTC). */
export async function knownOnDay(db: Queries, day: string): Promise<Knowledge> {
  const rows = await db.rows<{ name: string; number: number }>(
    "SELECT name, MAX(number) AS number FROM revision_log WHERE name IN ('comparables', 'rates') AND at < DATE_ADD(?, INTERVAL 1 DAY) GROUP BY name",
    [day],
  );
  const of = (name: string) => Number(rows.find((row) => row.name === name)?.number ?? 0);
  return { comparables: of('comparables'), rates: of('rates') };
}

/** What had been entered when a piece was sold, its own sale left out; by its day for sales from before that was noted. */
export async function knownBeforeSale(db: Queries, pieceId: string, soldOn: string): Promise<Knowledge> {
  const noted = await db.row<{ comparables: number | null; rates: number | null }>(
    'SELECT known_comparables AS comparables, known_rates AS rates FROM sale WHERE piece_id = ? AND returned_on IS NULL',
    [pieceId],
  );
  return noted?.comparables == null || noted.rates == null
    ? knownOnDay(db, soldOn)
    : { comparables: Number(noted.comparables), rates: Number(noted.rates) };
}

/** Keeps a reference as the regression read it. @returns its fingerprint */
export async function keepReference(tx: Transaction, reference: MarketReference): Promise<string> {
  const body = serialize({ patterns: [...reference.patterns], variants: [...reference.variants] });
  const fingerprint = createHash('sha256').update(body).digest('hex');
  await tx.run('INSERT IGNORE INTO market_reference (fingerprint, body) VALUES (?, ?)', [fingerprint, body]);
  return fingerprint;
}

/** @throws where nothing was kept under the fingerprint */
export async function keptReference(db: Queries, fingerprint: string): Promise<MarketReference> {
  const row = await db.row<{ body: Buffer }>('SELECT body FROM market_reference WHERE fingerprint = ?', [
    fingerprint,
  ]);
  if (!row) throw new Error(`no reference is kept under ${fingerprint}`);
  const { patterns, variants } = deserialize(row.body) as {
    patterns: [string, never][];
    variants: [string, never][];
  };
  return { patterns: new Map(patterns), variants: new Map(variants) };
}
