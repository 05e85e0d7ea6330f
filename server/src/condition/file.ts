/** What is kept about a piece's condition besides its findings of today. */
import type { ReferenceIndex } from '@jutbank/core/bench';
import type { ConditionFile, ConditionState, PartMove, QuarantineRecord } from '@jutbank/contract/condition';
import { instant, type Queries } from '../db/index.ts';
import { type PieceRecord } from '../pieces/index.ts';
import { materialsOf } from './materials.ts';

interface StateRow {
  id: string;
  why: ConditionState['why'];
  body: Pick<ConditionState, 'findings' | 'completeness' | 'inspection'>;
  grade: ConditionState['grade'];
  noted_by: string;
  noted_at: string;
}

interface QuarantineRow {
  id: string;
  piece_id: string;
  stock_number: string;
  title: string;
  since: string;
  review_on: string;
  reason: string;
  set_by: string;
  ended_on: string | null;
  outcome: string;
}
const QUARANTINES =
  'SELECT q.id, q.piece_id, p.stock_number, p.title, q.since, q.review_on, q.reason, q.set_by, q.ended_on, q.outcome FROM quarantine q JOIN piece p ON p.id = q.piece_id';
const quarantineOf = (row: QuarantineRow): QuarantineRecord => ({
  id: row.id,
  piece: { id: row.piece_id, stockNumber: row.stock_number, title: row.title },
  since: row.since,
  reviewOn: row.review_on,
  reason: row.reason,
  setBy: row.set_by,
  endedOn: row.ended_on,
  outcome: row.outcome,
});

/** Pieces that are kept apart now, the one to be looked at next first. */
export const quarantined = async (db: Queries): Promise<QuarantineRecord[]> =>
  (
    await db.rows<QuarantineRow>(
      `${QUARANTINES} WHERE q.ended_on IS NULL ORDER BY q.review_on, q.id LIMIT 500`,
    )
  ).map(quarantineOf);

export async function quarantineWith(db: Queries, id: string): Promise<QuarantineRecord | undefined> {
  const row = await db.row<QuarantineRow>(`${QUARANTINES} WHERE q.id = ?`, [id]);
  return row && quarantineOf(row);
}

interface MoveRow {
  id: string;
  part: PartMove['part'];
  from_piece: string | null;
  from_stock: string | null;
  from_title: string | null;
  from_where: string;
  to_piece: string | null;
  to_stock: string | null;
  to_title: string | null;
  to_where: string;
  moved_on: string | null;
  why: PartMove['why'];
  note: string;
  noted_by: string;
}
const MOVES =
  'SELECT m.*, f.stock_number AS from_stock, f.title AS from_title, t.stock_number AS to_stock, t.title AS to_title FROM part_move m LEFT JOIN piece f ON f.id = m.from_piece LEFT JOIN piece t ON t.id = m.to_piece';
const end = (id: string | null, stockNumber: string | null, title: string | null, where: string) => ({
  piece: id === null ? null : { id, stockNumber: stockNumber ?? '', title: title ?? '' },
  where,
});
const moveOf = (row: MoveRow): PartMove => ({
  id: row.id,
  part: row.part,
  from: end(row.from_piece, row.from_stock, row.from_title, row.from_where),
  to: end(row.to_piece, row.to_stock, row.to_title, row.to_where),
  movedOn: row.moved_on,
  why: row.why,
  note: row.note,
  notedBy: row.noted_by,
});
export async function moveWith(db: Queries, id: string): Promise<PartMove | undefined> {
  const row = await db.row<MoveRow>(`${MOVES} WHERE m.id = ?`, [id]);
  return row && moveOf(row);
}

export async function conditionFile(
  db: Queries,
  index: ReferenceIndex,
  record: PieceRecord,
): Promise<ConditionFile> {
  const states = await db.rows<StateRow>('SELECT * FROM condition_state WHERE piece_id = ? ORDER BY id', [
    record.id,
  ]);
  const quarantine = await db.rows<QuarantineRow>(`${QUARANTINES} WHERE q.piece_id = ? ORDER BY q.id DESC`, [
    record.id,
  ]);
  const moves = await db.rows<MoveRow>(
    `${MOVES} WHERE m.from_piece = ? OR m.to_piece = ? ORDER BY m.id DESC`,
    [record.id, record.id],
  );
  return {
    states: states.map(({ id, why, body, grade, noted_by, noted_at }) => ({
      id,
      why,
      ...body,
      grade,
      notedBy: noted_by,
      notedAt: instant(noted_at),
    })),
    treatments: [...record.treatments],
    quarantine: quarantine.map(quarantineOf),
    moves: moves.map(moveOf),
    vapour: vapourOf(index, record),
  };
}

/** Materials that were seen on the piece and give off vapour, in words. */
const vapourOf = (index: ReferenceIndex, record: PieceRecord): string[] =>
  materialsOf(index, record).flatMap((m) => (m.vapour ? [`${m.of}: ${m.label.toLowerCase()}`] : []));
