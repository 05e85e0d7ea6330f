/** Whose piece was sold for them. */
import type { Queries } from '../db/index.ts';
import type { StoredSale } from './queries.ts';

/** The address of the owner of a consigned piece; empty where they asked to be forgotten. */
export async function contactOfSale(db: Queries, sale: StoredSale): Promise<string> {
  const row = await db.row<{ address: string }>(
    'SELECT c.address FROM consignment g JOIN contact c ON c.id = g.contact_id WHERE g.piece_id = ?',
    [sale.pieceId],
  );
  return row?.address ?? '';
}
