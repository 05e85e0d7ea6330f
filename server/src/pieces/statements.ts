/** What is known of a stored piece, for the statements that every paper is a view of. */
import { partInWords } from '@jutbank/core/condition';
import type { KnownOfPiece } from '@jutbank/core/pieces';
import { ENGLISH } from '@jutbank/core/words';
import { todayIso } from '../clock/index.ts';
import type { Queries } from '../db/index.ts';
import { isSealed, type Assessment } from './assess.ts';
import type { PieceRecord } from './record.ts';
import { trailContextOf } from './trail.ts';

/** What stands beside the record of a piece. */
export interface RecordContext {
  readonly openQuestions: readonly string[];
  readonly movedParts: readonly MovedPart[];
}
/** A part that came from another piece, or from elsewhere. */
interface MovedPart {
  readonly part: string;
  /** null: another piece of the shop’s; empty: nobody knows */
  readonly from: string | null;
}

export async function contextOf(db: Queries, id: string): Promise<RecordContext> {
  const questions = await db.rows<{ asked: string }>(
    'SELECT asked FROM piece_question WHERE piece_id = ? AND answer IS NULL ORDER BY id',
    [id],
  );
  const moved = await db.rows<{ part: string; from_where: string; stock_number: string | null }>(
    'SELECT m.part, m.from_where, p.stock_number FROM part_move m LEFT JOIN piece p ON p.id = m.from_piece WHERE m.to_piece = ? ORDER BY m.id',
    [id],
  );
  return {
    openQuestions: questions.map((q) => q.asked),
    movedParts: moved.map((m): MovedPart => ({
      part: m.part,
      from: m.stock_number === null ? m.from_where : null,
    })),
  };
}

export function factsForStatements(
  record: PieceRecord,
  assessment: Assessment,
  beside: RecordContext,
  words = ENGLISH,
): KnownOfPiece {
  const { index, answer, date, overruled, inspection } = assessment;
  const decided = record.attribution;
  return {
    index,
    answer,
    construction: record.intake.construction,
    observations: record.observations,
    tier: decided?.tier ?? answer.attribution.tier,
    claimed: index.variants.get(decided?.variant ?? ''),
    findings: record.findings,
    completeness: record.completeness,
    inspected: record.inspected,
    inspection,
    treatments: record.treatments,
    asFound: record.intake.asFound,
    takenInAs: record.intake.takenInAs,
    sealed: isSealed(record),
    openQuestions: beside.openQuestions,
    movedParts: beside.movedParts.map(({ part, from }) => {
      const named = partInWords(part, words).toLowerCase();
      return from === null
        ? words.say('statement.movedFromPiece', { part: named })
        : words.say('statement.movedFrom', {
            part: named,
            where: from || words.say('statement.elsewhere'),
          });
    }),
    custody: record.custody,
    trailContext: trailContextOf(index, record, assessment.made, true, words),
    made: assessment.made,
    today: Math.floor(Date.parse(todayIso()) / 86_400_000),
    unproved:
      decided?.tier === 'confirmed' ? [] : (decided?.engineAnswer.attribution.cannotBeProvedBecause ?? []),
    clash: date?.clash ?? null,
    madeByJudgement: date?.by === 'decision' ? { made: date.core, reason: date.reason ?? '' } : null,
    overruled: overruled ? { evidence: decided?.evidence ?? '' } : null,
  };
}
