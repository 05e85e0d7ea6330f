/** Open questions on pieces, the numbers a shop watches for, and numbers that were seen before. */
import { ulid } from 'ulid';
import type { PieceQuestion, UnlistedValue, WatchedNumber } from '@jutbank/contract/bench';
import { instant, type Queries, type Transaction } from '../db/index.ts';

interface QuestionRow extends Record<string, unknown> {
  id: string;
  piece_id: string;
  stock_number: string;
  title: string;
  asked: string;
  asked_by: string;
  asked_at: string;
  answer: string | null;
  answered_by: string | null;
  answered_at: string | null;
}

const questionOf = (row: QuestionRow): PieceQuestion => ({
  id: row.id,
  piece: { id: row.piece_id, stockNumber: row.stock_number, title: row.title },
  asked: row.asked,
  askedBy: row.asked_by,
  askedAt: instant(row.asked_at),
  answer: row.answer,
  answeredBy: row.answered_by,
  answeredAt: row.answered_at === null ? null : instant(row.answered_at),
});

const QUESTIONS =
  'SELECT q.id, q.piece_id, p.stock_number, p.title, q.asked, q.asked_by, q.asked_at, q.answer, q.answered_by, q.answered_at FROM piece_question q JOIN piece p ON p.id = q.piece_id';

export async function listQuestions(db: Queries, piece: string | undefined): Promise<PieceQuestion[]> {
  const rows =
    piece === undefined
      ? await db.rows<QuestionRow>(`${QUESTIONS} ORDER BY q.answered_at IS NOT NULL, q.id DESC LIMIT 500`)
      : await db.rows<QuestionRow>(`${QUESTIONS} WHERE q.piece_id = ? ORDER BY q.id DESC`, [piece]);
  return rows.map(questionOf);
}

const MOST_NAMED = 10;

/** Values people wrote that the reference does not have, however they were capitalised. */
export async function listUnlisted(db: Queries): Promise<UnlistedValue[]> {
  const rows = await db.rows<{ feature: string; text: string; n: number; pieces: string }>(
    `SELECT SUBSTRING(o.subject, 9) AS feature, MIN(JSON_VALUE(o.body, '$.other')) AS text, COUNT(*) AS n,
       GROUP_CONCAT(CONCAT(p.id, ' ', p.stock_number) ORDER BY p.id DESC SEPARATOR '\n' LIMIT ${MOST_NAMED}) AS pieces
     FROM observation o JOIN piece p ON p.id = o.piece_id
     WHERE o.unlisted = 1 GROUP BY o.subject, LOWER(JSON_VALUE(o.body, '$.other')) ORDER BY n DESC, o.subject LIMIT 200`,
  );
  return rows.map(({ feature, text, n, pieces }) => ({
    feature,
    text,
    count: Number(n),
    pieces: pieces.split('\n').map((piece) => ({ id: piece.slice(0, 26), stockNumber: piece.slice(27) })),
  }));
}

export async function questionWith(db: Queries, id: string): Promise<PieceQuestion | undefined> {
  const row = await db.row<QuestionRow>(`${QUESTIONS} WHERE q.id = ?`, [id]);
  return row && questionOf(row);
}

export async function ask(tx: Transaction, piece: string, asked: string, person: string): Promise<string> {
  const id = ulid();
  await tx.run('INSERT INTO piece_question (id, piece_id, asked, asked_by) VALUES (?, ?, ?, ?)', [
    id,
    piece,
    asked,
    person,
  ]);
  return id;
}

export async function answerQuestion(
  tx: Transaction,
  id: string,
  answer: string | null,
  person: string,
): Promise<void> {
  await tx.run(
    answer === null
      ? 'UPDATE piece_question SET answer = NULL, answered_by = NULL, answered_at = NULL WHERE id = ?'
      : 'UPDATE piece_question SET answer = ?, answered_by = ?, answered_at = UTC_TIMESTAMP(3) WHERE id = ?',
    answer === null ? [id] : [answer, person, id],
  );
}

interface WatchRow extends Record<string, unknown> {
  id: string;
  code_id: string;
  text: string;
  note: string;
  added_by: string;
  added_at: string;
}

export async function listWatched(db: Queries): Promise<WatchedNumber[]> {
  const rows = await db.rows<WatchRow>('SELECT * FROM watched_number ORDER BY code_id, text');
  return rows.map((row) => ({
    id: row.id,
    code: row.code_id,
    text: row.text,
    note: row.note,
    addedBy: row.added_by,
    addedAt: instant(row.added_at),
  }));
}

export async function watchNumber(
  tx: Transaction,
  number: { code: string; text: string; note: string },
  person: string,
): Promise<string> {
  const id = ulid();
  await tx.run('INSERT INTO watched_number (id, code_id, text, note, added_by) VALUES (?, ?, ?, ?, ?)', [
    id,
    number.code,
    number.text,
    number.note,
    person,
  ]);
  return id;
}

export const unwatch = (tx: Transaction, id: string) =>
  tx.run('DELETE FROM watched_number WHERE id = ?', [id]);
