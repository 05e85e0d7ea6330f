/** Running numbers that another piece bears or that the shop watches for. */
import {
  numbersRead,
  seenBefore,
  type Alert,
  type KnownNumber,
  type Observation,
  type ReferenceIndex,
} from '@jutbank/core/bench';
import type { Queries } from '../db/index.ts';

export interface Numbered {
  /** undefined for observations that belong to no stored piece */
  readonly id: string | undefined;
  readonly observations: readonly Observation[];
}

/** A number the shop knows; `piece` is what bears it, null where it is watched for. */
export interface NumberOfShop extends KnownNumber {
  readonly piece: string | null;
}

/** All numbers under these codes that pieces bear or the shop watches for, newest first. */
export async function numbersOfShop(
  db: Queries,
  codes: readonly string[],
  most = Number.MAX_SAFE_INTEGER,
): Promise<NumberOfShop[]> {
  if (codes.length === 0) return [];
  const marks = codes.map(() => '?').join(',');
  const watched = await db.rows<{ code_id: string; text: string; note: string }>(
    `SELECT code_id, text, note FROM watched_number WHERE code_id IN (${marks})`,
    codes,
  );
  const borne = await db.rows<{ piece_id: string; subject: string; text: string; told: string }>(
    `SELECT o.piece_id, o.subject, JSON_VALUE(o.body, '$.text') AS text, CONCAT(p.stock_number, ', ', p.title) AS told
     FROM observation o JOIN piece p ON p.id = o.piece_id WHERE o.subject IN (${marks})
     ORDER BY o.piece_id DESC LIMIT ?`,
    [...codes.map((id) => `${SUBJECT}${id}`), most],
  );
  return [
    ...borne.map((b) => ({
      code: b.subject.slice(SUBJECT.length),
      text: b.text,
      told: b.told,
      watched: false,
      piece: b.piece_id,
    })),
    ...watched.map((w) => ({ code: w.code_id, text: w.text, told: w.note, watched: true, piece: null })),
  ];
}
const SUBJECT = 'code ';

/** For each piece, in order, its numbers that were seen before; two queries however many pieces are asked about. */
export async function duplicateSerials(
  db: Queries,
  index: ReferenceIndex,
  pieces: readonly Numbered[],
): Promise<Alert[][]> {
  const read = pieces.map((piece) => numbersRead(index, piece.observations));
  const known = await numbersOfShop(db, [...new Set(read.flat().map((r) => r.code.id))]);
  return pieces.map((piece, i) =>
    seenBefore(
      read[i] ?? [],
      known.filter((k) => k.piece === null || k.piece !== piece.id),
    ),
  );
}
