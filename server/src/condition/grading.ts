/** Blind second gradings: what somebody found who did not see what was found before, and how well the two agree. */
import { ulid } from 'ulid';
import {
  agreementOf,
  defectsThatDiffer,
  gradeCondition,
  SCALE_IDS,
  type Finding,
  type RuleSet,
} from '@jutbank/core/condition';
import type { GradingSheet, GradingSummary } from '@jutbank/contract/condition';
import type { Person } from '@jutbank/contract/shop';
import { instant, type Queries, type Transaction } from '../db/index.ts';
import { conflict, invalid, notFound } from '../http/index.ts';
import { gradeQuestion, loadPieces, type PieceRecord, type Readers } from '../pieces/index.ts';

interface GradingRow {
  id: string;
  title: string;
  set_by: string;
  set_at: string;
  pieces: number;
  looked: number;
}
const GRADINGS =
  'SELECT g.id, g.title, g.set_by, g.set_at, (SELECT COUNT(*) FROM grading_piece p WHERE p.grading_id = g.id) AS pieces, (SELECT COUNT(*) FROM second_look l WHERE l.grading_id = g.id) AS looked FROM grading g';
const summaryOf = (row: GradingRow): GradingSummary => ({
  id: row.id,
  title: row.title,
  setBy: row.set_by,
  setAt: instant(row.set_at),
  pieces: Number(row.pieces),
  looked: Number(row.looked),
});

export const listGradings = async (db: Queries): Promise<GradingSummary[]> =>
  (await db.rows<GradingRow>(`${GRADINGS} ORDER BY g.id DESC LIMIT 200`)).map(summaryOf);

/** @throws 422 for a piece that is not there or was never inspected: there is nothing to compare with */
export async function setGrading(
  tx: Transaction,
  title: string,
  pieces: readonly string[],
  person: Person,
): Promise<string> {
  const records = new Map((await loadPieces(tx, pieces)).map((r) => [r.id, r]));
  pieces.forEach((piece, i) => {
    const record = records.get(piece);
    const message = !record
      ? 'there is no such piece'
      : record.inspected
        ? undefined
        : 'it was not inspected yet';
    if (message !== undefined) throw invalid([{ pointer: `/pieces/${i}`, message }]);
  });
  const id = ulid();
  await tx.run('INSERT INTO grading (id, title, set_by) VALUES (?, ?, ?)', [id, title, person.name]);
  await tx.insertMany(
    'INSERT INTO grading_piece (grading_id, piece_id, position) VALUES ?',
    [...new Set(pieces)].map((piece, i) => [id, piece, i]),
  );
  return id;
}

/** @throws 409 when somebody looked already, or when the one who inspected it would grade against themselves */
export async function lookAgain(
  tx: Transaction,
  grading: string,
  piece: string,
  findings: readonly Finding[],
  person: Person,
): Promise<void> {
  const set = await tx.row('SELECT 1 FROM grading_piece WHERE grading_id = ? AND piece_id = ? FOR UPDATE', [
    grading,
    piece,
  ]);
  if (!set) throw notFound('piece of this grading');
  const looked = await tx.row('SELECT 1 FROM second_look WHERE grading_id = ? AND piece_id = ?', [
    grading,
    piece,
  ]);
  if (looked) throw conflict('It was looked at a second time already; both grades stand.');
  const first = await tx.row<{ noted_by: string }>(
    "SELECT noted_by FROM condition_state WHERE piece_id = ? AND why IN ('as-found', 'inspected-again') ORDER BY id DESC LIMIT 1",
    [piece],
  );
  if (first?.noted_by === person.name)
    throw conflict('You inspected this piece yourself: somebody else has to look a second time.');
  await tx.run('INSERT INTO second_look (grading_id, piece_id, findings, looked_by) VALUES (?, ?, ?, ?)', [
    grading,
    piece,
    JSON.stringify(findings),
    person.name,
  ]);
}

export async function gradingSheet(db: Queries, readers: Readers, id: string): Promise<GradingSheet> {
  const row = await db.row<GradingRow>(`${GRADINGS} WHERE g.id = ?`, [id]);
  if (!row) throw notFound('grading');
  const pieces = await db.rows<{
    piece_id: string;
    findings: Finding[] | null;
    looked_by: string | null;
    looked_at: string | null;
  }>(
    'SELECT p.piece_id, l.findings, l.looked_by, l.looked_at FROM grading_piece p LEFT JOIN second_look l ON l.grading_id = p.grading_id AND l.piece_id = p.piece_id WHERE p.grading_id = ? ORDER BY p.position',
    [id],
  );
  const records = new Map(
    (
      await loadPieces(
        db,
        pieces.map((p) => p.piece_id),
      )
    ).map((r) => [r.id, r]),
  );
  const rules = await readers.rules.inUse();
  const assessed = new Map(
    (await readers.assessAll([...records.values()])).map((a, i) => [[...records.keys()][i], a]),
  );
  const graded = (record: PieceRecord, findings: readonly Finding[]) =>
    gradeCondition({ ...gradeQuestion(record, assessed.get(record.id)?.made), findings }, rules).grades;
  const both = pieces.flatMap((p) => {
    const record = records.get(p.piece_id);
    const assessment = assessed.get(p.piece_id);
    return record && assessment
      ? [
          {
            p,
            record,
            assessment,
            first: graded(record, record.findings),
            second: p.findings && graded(record, p.findings),
          },
        ]
      : [];
  });
  const seen = both.flatMap(({ record, first, second, p }) =>
    second && p.findings ? [{ record, first, second, found: [record.findings, p.findings] as const }] : [],
  );
  return {
    ...summaryOf(row),
    items: both.map(({ p, record, assessment, first, second }) => {
      const { scale, parts } = assessment;
      const on = (grades: typeof first) => grades.find((g) => g.scale === scale)?.grade ?? '';
      return {
        piece: {
          id: record.id,
          stockNumber: record.stockNumber,
          title: record.intake.title,
          construction: record.intake.construction,
          variant: record.attribution?.variant ?? null,
          pattern: record.attribution?.pattern ?? null,
          parts,
        },
        looked:
          second && p.looked_by !== null && p.looked_at !== null
            ? { by: p.looked_by, at: instant(p.looked_at), scale, grade: on(second), firstGrade: on(first) }
            : null,
      };
    }),
    agreement: SCALE_IDS.map((scale) => ({
      scale,
      agreement: agreementOf(
        seen.map(({ first, second }) => [rank(rules, scale, first), rank(rules, scale, second)] as const),
        rules.scales.find((s) => s.id === scale)?.grades.length ?? 0,
      ),
    })),
    differ: defectsThatDiffer(seen.map((s) => s.found)),
  };
}

const rank = (rules: RuleSet, scale: string, grades: readonly { scale: string; grade: string }[]): number =>
  rules.scales
    .find((s) => s.id === scale)
    ?.grades.findIndex((g) => g.grade === grades.find((x) => x.scale === scale)?.grade) ?? 0;
