/** What the shop has met, counted for the engine: sold comparables, and pieces it identified itself. */
import { NO_ENCOUNTERS, type Encounters } from '@jutbank/core/bench';
import type { Queries } from '../db/index.ts';

interface Met {
  variant: string | null;
  pattern: string | null;
  n: number;
}

/**
 * Sales of the shop's own pieces are left out: those pieces count once, by what was decided of them. A decision counts
 * where it says which variant or which pattern a piece is, or that none of the reference's is right.
 * @returns none where the shop does not want to learn
 */
export async function loadEncounters(db: Queries): Promise<Encounters> {
  const shop = await db.row<{ learns_frequency: number }>('SELECT learns_frequency FROM shop WHERE id = 1');
  if (!shop?.learns_frequency) return NO_ENCOUNTERS;
  const sold = await db.rows<Met>(
    `SELECT variant_id AS variant, pattern_id AS pattern, COUNT(*) AS n FROM comparable
     WHERE price_kind = 'sold' AND state = 'kept' AND piece_id IS NULL GROUP BY variant_id, pattern_id`,
  );
  const own = await db.rows<Met>(
    `SELECT decided_variant AS variant, decided_pattern AS pattern, COUNT(*) AS n FROM piece
     WHERE decided_tier IN ('confirmed', 'probable', 'type-consistent', 'rejected')
     GROUP BY decided_variant, decided_pattern`,
  );
  return {
    sold: counted(sold, (m) => m.variant),
    soldOfPattern: counted(sold, (m) => (m.variant === null ? m.pattern : null)),
    own: counted(own, (m) => m.variant),
    ownOfPattern: counted(own, (m) => (m.variant === null ? m.pattern : null)),
    unlisted: own.reduce((sum, m) => sum + (m.variant === null && m.pattern === null ? Number(m.n) : 0), 0),
  };
}

function counted(met: readonly Met[], of: (m: Met) => string | null): Map<string, number> {
  const counts = new Map<string, number>();
  for (const m of met) {
    const id = of(m);
    if (id !== null) counts.set(id, (counts.get(id) ?? 0) + Number(m.n));
  }
  return counts;
}
