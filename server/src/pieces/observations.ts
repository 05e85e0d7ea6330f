/** What was seen at a piece, row by row. */
import { bearsNumber, subjectKey, type Observation, type ReferenceIndex } from '@jutbank/core/bench';
import { raiseRevision, type Transaction } from '../db/index.ts';

/** @param now what was seen, checked against the index; of several about one thing the last holds */
export async function writeObservations(
  tx: Transaction,
  index: ReferenceIndex,
  pieceId: string,
  before: readonly Observation[],
  now: readonly Observation[],
): Promise<void> {
  // another piece may bear the same number, and so stands in doubt or no longer does
  if (bearsNumber(index, before) || bearsNumber(index, now)) await raiseRevision(tx, 'encounters');
  await tx.run('DELETE FROM observation WHERE piece_id = ?', [pieceId]);
  const bySubject = new Map<string, Observation>(now.map((o) => [subjectKey(o), o]));
  const rows = [...bySubject].map(([subject, body], position) => [
    pieceId,
    subject,
    position,
    JSON.stringify(body),
  ]);
  if (rows.length > 0)
    await tx.insertMany('INSERT INTO observation (piece_id, subject, position, body) VALUES ?', rows);
}
