/** The reference as the price regression reads it, from the database. */
import type { Feature, Pattern, Variant } from '@jutbank/core/reference';
import { marketReferenceOf, type MarketReference } from '@jutbank/core/market';
import type { Queries } from '../db/index.ts';

export async function marketReference(db: Queries): Promise<MarketReference> {
  const bodies = async <T>(table: string) =>
    (await db.rows<{ body: string }>(`SELECT body FROM ${table} ORDER BY id`)).map(
      (row) => JSON.parse(row.body) as T,
    );
  return marketReferenceOf(
    await bodies<Pattern>('reference_pattern'),
    await bodies<Variant>('reference_variant'),
    await bodies<Feature>('reference_feature'),
  );
}
