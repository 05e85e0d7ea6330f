/** Findings of today, and the states they leave behind: as found, after every treatment, after every new look. */
import { ulid } from 'ulid';
import { type Completeness, type Finding } from '@jutbank/core/condition';
import type { ConditionState } from '@jutbank/contract/condition';
import type { Person } from '@jutbank/contract/shop';
import type { Transaction } from '../db/index.ts';
import type { Readers, PieceRecord } from '../pieces/index.ts';

export async function writeFindings(
  tx: Transaction,
  pieceId: string,
  findings: readonly Finding[],
): Promise<void> {
  await tx.run('DELETE FROM finding WHERE piece_id = ?', [pieceId]);
  if (findings.length > 0)
    await tx.insertMany(
      'INSERT INTO finding (piece_id, position, part, defect, severity, measure, times, side, by_maker, note, pin) VALUES ?',
      findings.map((f, i) => [
        pieceId,
        i,
        f.part,
        f.defect,
        f.severity ?? null,
        f.measure ?? null,
        f.count ?? null,
        f.side ?? null,
        f.byMaker ?? false,
        f.note ?? null,
        f.pin == null ? null : JSON.stringify(f.pin),
      ]),
    );
}

/** Keeps how the piece stands now, with its grade by the rules in use; a state once kept is never changed. */
export async function snapshotCondition(
  tx: Transaction,
  readers: Readers,
  record: PieceRecord,
  why: ConditionState['why'],
  person: Person,
): Promise<string> {
  const id = ulid();
  const { grade, inspection } = await readers.assessIn(tx, record);
  const body = {
    findings: record.findings,
    completeness: record.completeness,
    inspection,
  };
  await tx.run(
    'INSERT INTO condition_state (id, piece_id, why, body, grade, noted_by) VALUES (?, ?, ?, ?, ?, ?)',
    [id, record.id, why, JSON.stringify(body), JSON.stringify(grade), person.name],
  );
  return id;
}

/** What an inspection says anew; places in a list do not matter, what is said does. */
export const saysTheSame = (
  a: { findings: readonly Finding[]; completeness: Completeness },
  b: { findings: readonly Finding[]; completeness: Completeness },
): boolean => {
  const plain = (value: object) =>
    JSON.stringify(
      Object.entries(value)
        .filter(([, v]) => v != null)
        .sort(([x], [y]) => (x < y ? -1 : 1)),
    );
  const list = (findings: readonly Finding[]) => findings.map(plain).sort().join();
  return list(a.findings) === list(b.findings) && plain(a.completeness) === plain(b.completeness);
};
