/** Pieces that were found together: said of one, it holds of both. */
import type { Transaction } from '../db/index.ts';
import { invalid } from '../http/index.ts';

/** @throws 422 for a piece that is not there, or is the same */
export async function writeCompanions(
  tx: Transaction,
  id: string,
  companions: readonly string[],
): Promise<void> {
  const wanted = [...new Set(companions)];
  const there = new Set(
    wanted.length === 0
      ? []
      : (
          await tx.rows<{ id: string }>(
            `SELECT id FROM piece WHERE id IN (${wanted.map(() => '?').join(', ')})`,
            wanted,
          )
        ).map((row) => row.id),
  );
  const wrong = companions.findIndex((other) => other === id || !there.has(other));
  if (wrong >= 0)
    throw invalid([
      {
        pointer: `/companions/${wrong}`,
        message: companions[wrong] === id ? 'A piece does not come with itself' : 'There is no such piece',
      },
    ]);
  await tx.run('DELETE FROM companion WHERE piece_id = ? OR with_id = ?', [id, id]);
  if (wanted.length > 0)
    await tx.insertMany(
      'INSERT INTO companion (piece_id, with_id) VALUES ?',
      wanted.map((other) => (other < id ? [other, id] : [id, other])),
    );
}
