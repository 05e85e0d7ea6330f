/** The shop's questions: from its reference, and from the pieces that it has inspected and priced itself. */
import type { ReferenceIndex } from '@jutbank/core/bench';
import {
  questionsOfPiece,
  questionsOfReference,
  type DrillKind,
  type DrillQuestion,
} from '@jutbank/core/training';
import type { Queries } from '../db/index.ts';
import { loadPieces, type PieceRecord, type Readers } from '../pieces/index.ts';

/** So many of the newest pieces are asked about: they are what the shop is dealing in. */
const MOST_PIECES = 40;
const OF_PIECES: ReadonlySet<DrillKind> = new Set(['grade', 'price']);

/** Made once for as long as the reference is the same. */
const ofReference = new WeakMap<ReferenceIndex['contents'], readonly DrillQuestion[]>();
function fromReference(index: ReferenceIndex): readonly DrillQuestion[] {
  const known = ofReference.get(index.contents);
  if (known) return known;
  const made = questionsOfReference(index);
  ofReference.set(index.contents, made);
  return made;
}

export async function allQuestions(readers: Readers): Promise<DrillQuestion[]> {
  const ids = await decidedPieces(readers.database);
  return [...fromReference(await readers.library.index()), ...(await fromPieces(readers, ids))];
}

/** One question as it is now; undefined where it is asked no more. */
export async function questionById(readers: Readers, id: string): Promise<DrillQuestion | undefined> {
  const [kind, piece = ''] = id.split(':');
  if ([...OF_PIECES].some((k) => k === kind))
    return (await fromPieces(readers, [piece])).find((question) => question.id === id);
  return fromReference(await readers.library.index()).find((question) => question.id === id);
}

const decidedPieces = async (db: Queries): Promise<string[]> =>
  (
    await db.rows<{ id: string }>(
      `SELECT id FROM piece WHERE decided_tier IN ('confirmed', 'probable') AND decided_variant IS NOT NULL ORDER BY id DESC LIMIT ?`,
      [MOST_PIECES],
    )
  ).map((row) => row.id);

async function fromPieces(readers: Readers, ids: readonly string[]): Promise<DrillQuestion[]> {
  const records = await loadPieces(readers.database, ids);
  const [assessments, readings] = [await readers.assessAll(records), await readers.readings(records)];
  const { scales } = await readers.rules.inUse();
  return records.flatMap((record, i) => {
    const assessment = assessments[i];
    const row = assessment?.index.variants.get(record.attribution?.variant ?? '');
    const read = readings.get(record.id);
    if (!assessment || !row || !read) return [];
    const grades = scales.find((scale) => scale.id === assessment.scale)?.grades ?? [];
    return questionsOfPiece({
      id: record.id,
      name: `${row.pattern.name}, ${row.variant.name}`,
      maker: row.maker.id,
      variant: row.variant.id,
      findings: record.findings,
      grade: gradeOf(record, read.condition?.grade),
      grades: grades.map((grade) => grade.grade),
      capped: read.condition?.note || null,
      worth: read.worth,
    });
  });
}

/** An inspection that is not finished grades nothing; a piece without a finding teaches nothing. */
const gradeOf = (record: PieceRecord, grade: string | undefined): string | null =>
  record.inspected && record.findings.length > 0 ? (grade ?? null) : null;

/** Entries of the ledger that are looked through: what somebody got wrong long ago they have learnt since. */
const MOST_ENTRIES = 20_000;

/** Makers by how often somebody else decided otherwise what this person had decided. */
export async function wrongAtBench(
  db: Queries,
  index: ReferenceIndex,
  person: string,
): Promise<Map<string, number>> {
  const rows = await db.rows<{ pattern: string | null }>(
    `SELECT JSON_VALUE(after.body, '$.attribution.pattern') AS pattern
     FROM ledger_entry mine JOIN ledger_entry after ON after.piece_id = mine.piece_id AND after.seq > mine.seq
       AND after.kind = 'attributed' AND after.person_id <> mine.person_id
     WHERE mine.seq > (SELECT GREATEST(0, CAST(seq AS SIGNED) - ?) FROM ledger_head WHERE id = 1) AND mine.kind = 'attributed' AND mine.person_id = ?
       AND JSON_VALUE(mine.body, '$.attribution.variant') <> JSON_VALUE(after.body, '$.attribution.variant')`,
    [MOST_ENTRIES, person],
  );
  const counts = new Map<string, number>();
  for (const { pattern } of rows) {
    const maker = index.patterns.get(pattern ?? '')?.maker;
    if (maker !== undefined) counts.set(maker, (counts.get(maker) ?? 0) + 1);
  }
  return counts;
}
