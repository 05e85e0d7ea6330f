/** Every change to a piece: one transaction, its version checked and raised, its stage set anew, a ledger entry. */
import { hasLeft, type PieceProgress, type Stage, stageOf } from '@jutbank/core/pieces';
import { isoOf, periodOf } from '@jutbank/core/dates';
import type { Person } from '@jutbank/contract/shop';
import type { Queries, Transaction } from '../db/index.ts';
import { conflict, HttpProblem, notFound } from '../http/index.ts';
import { appendLedger } from '../ledger/index.ts';
import { loadPieces, type PieceRecord } from './record.ts';

export interface Change {
  readonly pieceId: string;
  readonly person: Person;
  readonly ifMatch: number | undefined;
  /** appears in the ledger */
  readonly kind: string;
  readonly body: unknown;
  /** steps that carry their own guard (a sale, a message) need no version */
  readonly anyVersion?: boolean;
  /** what may still happen to a piece that has left */
  readonly evenSold?: boolean;
}

export async function changePiece(
  tx: Transaction,
  change: Change,
  work: (before: PieceRecord) => Promise<void>,
): Promise<PieceRecord> {
  const row = await tx.row<{ version: number; stage: Stage }>(
    'SELECT version, stage FROM piece WHERE id = ? FOR UPDATE',
    [change.pieceId],
  );
  if (!row) throw notFound('piece');
  if (!change.anyVersion) {
    if (change.ifMatch === undefined)
      throw new HttpProblem(428, 'Send If-Match with the version you have seen.');
    if (change.ifMatch !== Number(row.version))
      throw new HttpProblem(
        412,
        'Somebody changed this piece meanwhile. Look at it again; what you typed is kept here.',
      );
  }
  if (hasLeft(row.stage) && !change.evenSold)
    throw conflict(
      `This piece ${row.stage === 'sold' ? 'is sold' : 'was given back'}; its record stands as it was.`,
    );
  const before = await pieceRecord(tx, change.pieceId);
  await work(before);
  const after = await updateStage(tx, change.pieceId);
  await appendLedger(tx, {
    pieceId: change.pieceId,
    kind: change.kind,
    person: change.person,
    body: change.body,
  });
  return after;
}

/** Whoever decides on a piece stands in line with whoever changes it. @throws 404 */
export async function lockPiece(tx: Transaction, id: string): Promise<void> {
  if (!(await tx.row('SELECT id FROM piece WHERE id = ? FOR UPDATE', [id]))) throw notFound('piece');
}

export async function pieceRecord(db: Queries, id: string): Promise<PieceRecord> {
  const record = (await loadPieces(db, [id]))[0];
  if (!record) throw notFound('piece');
  return record;
}

export const progressOf = (record: PieceRecord): PieceProgress => ({
  hasSource: record.intake.sourceKind !== null,
  // of what is sold for its owner nothing was paid
  hasPrice: record.intake.price !== null || record.consignment !== null,
  hasPicture: record.pictures.length > 0,
  attributed: record.attribution !== null,
  inspected: record.inspected,
  priced: record.pricing.ask !== null,
  custodyEvents: record.custody.length,
  published: record.listing?.state === 'published',
  sold: record.sale !== null,
  givenBack: record.givenBack !== null,
});

async function updateStage(tx: Transaction, id: string): Promise<PieceRecord> {
  const after = await pieceRecord(tx, id);
  const stage = stageOf(progressOf(after));
  await tx.run(
    'UPDATE piece SET version = version + 1, stage = ?, changed_at = UTC_TIMESTAMP(3) WHERE id = ?',
    [stage, id],
  );
  return { ...after, version: after.version + 1, stage };
}

/** The earliest and latest day of a period, for the DATE columns; open ends are null. */
export function dayBounds(edtf: string | null): [string | null, string | null] {
  if (edtf === null) return [null, null];
  const { start, end } = periodOf(edtf);
  const iso = (day: number) => (Number.isFinite(day) ? isoOf(day as typeof start.earliest) : null);
  return [iso(start.earliest), iso(end.latest)];
}
