/** The queue of what can be listed, and a second example of what was listed before. */
import { emptyIntake } from '@jutbank/contract/pieces';
import { listingRoutes, type DeskRow } from '@jutbank/contract/listing';
import type { Observation } from '@jutbank/core/bench';
import { subjectKey } from '@jutbank/core/bench';
import { answer, type Mount } from '../http/index.ts';
import { createPiece, loadPieces, pieceRecord, type Readers } from '../pieces/index.ts';
import { blocksOf, isUp } from './ready.ts';

/** Pieces that are looked through, and how much one may miss to be nearly ready. */
const LOOKED_THROUGH = 400;
const MOST_MISSING = 2;

export function mountDesk(mount: Mount, readers: Readers): void {
  const { database } = mount;
  mount.handle(listingRoutes.desk, async () => {
    const ids = await database.rows<{ id: string }>(
      `SELECT id FROM piece WHERE stage NOT IN ('sold', 'given-back') AND NOT EXISTS (
         SELECT 1 FROM listing l WHERE l.piece_id = piece.id AND l.state = 'published' AND (l.expires_on IS NULL OR l.expires_on >= UTC_DATE()))
       ORDER BY changed_at DESC, id DESC LIMIT ?`,
      [LOOKED_THROUGH],
    );
    const records = await loadPieces(
      database,
      ids.map((row) => row.id),
    );
    const rows = records
      .filter((record) => !isUp(record) && record.quarantinedUntil === null)
      .map((record): DeskRow => ({
        id: record.id,
        version: record.version,
        stockNumber: record.stockNumber,
        title: record.intake.title,
        picture: record.pictures[0]?.hash ?? null,
        ask: record.pricing.ask,
        missing: blocksOf(record),
      }))
      .filter((row) => row.missing.length <= MOST_MISSING)
      // what lacks least comes first, in the order of its number
      .sort((a, b) => a.missing.length - b.missing.length || (a.stockNumber < b.stockNumber ? -1 : 1));
    const ready = rows.filter((row) => row.missing.length === 0).length;
    return answer({ items: rows, ready, waiting: rows.length - ready });
  });

  mount.handleInTransaction(
    listingRoutes.secondExample,
    async (tx, { params, person }) => {
      const first = await pieceRecord(tx, params.id);
      // a second example of a copy is one too
      const { title, construction, takenInAs } = first.intake;
      const id = await createPiece(tx, { ...emptyIntake, title, construction, takenInAs }, person);
      const rows = first.observations
        .filter(isOfTheKind)
        .map((o, i) => [id, subjectKey(o), i, JSON.stringify(o)]);
      if (rows.length > 0)
        await tx.insertMany('INSERT INTO observation (piece_id, subject, position, body) VALUES ?', rows);
      return { id };
    },
    readers.tellSheet,
  );
}

/** Features and stamps are common to a kind; sizes, numbers and what a code says are the piece’s own. */
const isOfTheKind = (o: Observation): boolean => 'value' in o || 'mark' in o;
