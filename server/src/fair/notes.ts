/** Decisions made at fairs, as they are kept; what was bought is taken in. */
import type { ReferenceIndex } from '@jutbank/core/bench';
import { fairNote, type FairNote, type FairNoteRecord } from '@jutbank/contract/fair';
import { emptyIntake } from '@jutbank/contract/pieces';
import type { Person } from '@jutbank/contract/shop';
import { DUPLICATE_KEY, errorNumber, type Queries, type Transaction } from '../db/index.ts';
import { conflict } from '../http/index.ts';
import { changePiece, createPiece, writeObservations } from '../pieces/index.ts';
import type { SinceTheTable } from './since.ts';

/** Keeps a note once, however often it is sent; what was bought becomes a piece, with what was seen at its bench. */
export async function keepNote(
  tx: Transaction,
  index: ReferenceIndex,
  note: FairNote,
  since: SinceTheTable,
  person: Person,
): Promise<FairNoteRecord> {
  const id = noteId(note.key, note.notedAt);
  const known = await noteById(tx, id);
  if (known) return known;
  const pieceId = note.decision === 'bought' ? await takeIn(tx, index, note, since, person) : null;
  try {
    await tx.run(
      'INSERT INTO fair_note (id, noted_at, body, person, piece_id, told) VALUES (?, ?, ?, ?, ?, ?)',
      [
        id,
        note.notedAt.replace('T', ' ').replace('Z', '').slice(0, 23),
        JSON.stringify(note),
        person.name,
        pieceId,
        JSON.stringify(since.told),
      ],
    );
  } catch (error) {
    if (errorNumber(error) === DUPLICATE_KEY) throw conflict('This note is just being kept.');
    throw error;
  }
  return { id, note, person: person.name, pieceId, picture: null, told: [...since.told] };
}

async function takeIn(
  tx: Transaction,
  index: ReferenceIndex,
  note: FairNote,
  { observations }: SinceTheTable,
  person: Person,
): Promise<string> {
  const pieceId = await createPiece(
    tx,
    {
      ...emptyIntake,
      title: note.title,
      construction: note.construction,
      sourceKind: 'fair',
      acquired: note.notedAt.slice(0, 10),
      price: note.paid ?? null,
      sellerStatement: note.note,
    },
    person,
  );
  if (observations.length > 0)
    await changePiece(
      tx,
      { pieceId, person, ifMatch: undefined, anyVersion: true, kind: 'observed', body: { observations } },
      () => writeObservations(tx, index, pieceId, [], observations),
    );
  return pieceId;
}

const MOST_LISTED = 100;
const COLUMNS = 'id, body, person, piece_id, picture, told';

export const newestNotes = async (db: Queries): Promise<FairNoteRecord[]> =>
  (
    await db.rows<FairNoteRow>(
      `SELECT ${COLUMNS} FROM fair_note ORDER BY noted_at DESC, id DESC LIMIT ${MOST_LISTED}`,
    )
  ).map(noteOf);

export async function noteById(db: Queries, id: string): Promise<FairNoteRecord | undefined> {
  const row = await db.row<FairNoteRow>(`SELECT ${COLUMNS} FROM fair_note WHERE id = ?`, [id]);
  return row && noteOf(row);
}

interface FairNoteRow {
  id: string;
  body: unknown;
  person: string;
  piece_id: string | null;
  picture: string | null;
  told: string[];
}
const noteOf = (row: FairNoteRow): FairNoteRecord => ({
  id: row.id,
  note: fairNote.parse(row.body),
  person: row.person,
  pieceId: row.piece_id,
  picture: row.picture,
  told: row.told,
});

const SIGNS = '0123456789ABCDEFGHJKMNPQRSTVWXYZ';
/** The same note has the same id, however often the phone sends it. */
function noteId(key: string, notedAt: string): string {
  const bits = BigInt(`0x${key.replaceAll('-', '')}`);
  let tail = '';
  for (let i = 0n; i < 16n; i++) tail += SIGNS[Number((bits >> (i * 5n)) & 31n)] ?? '0';
  let time = BigInt(Date.parse(notedAt));
  let head = '';
  for (let i = 0; i < 10; i++) {
    head = (SIGNS[Number(time & 31n)] ?? '0') + head;
    time >>= 5n;
  }
  return head + tail;
}
