/**
 * The one way from a stored piece to what it is, when it was made and how it is graded: the sheet, the tray, the listing,
 * the certificate, the report and the stock all read this, so that no two of them can say different things.
 */
import {
  identify,
  withAlerts,
  type Alert,
  type IdentifyAnswer,
  type IdentifyQuestion,
  type MakingClash,
  type ReferenceIndex,
} from '@jutbank/core/bench';
import {
  freshInspection,
  gradeCondition,
  mainScale,
  type GradeAnswer,
  type GradeQuestion,
  type Inspection,
  type RuleSet,
  type ScaleId,
} from '@jutbank/core/condition';
import { calendarOf, asDay, hullOf, periodOf, type Span } from '@jutbank/core/dates';
import { countedParts, questionOf, type CountedParts } from '@jutbank/core/pieces';
import type { PieceRecord } from './record.ts';

export interface PieceDate {
  readonly core: string;
  readonly outer: string;
  /** the appraiser's own date, the form's making, what was seen, or where those two meet */
  readonly by: 'decision' | 'form' | 'bracket' | 'both' | 'years';
  readonly reason: string | null;
  readonly clash: MakingClash | null;
}

export interface Assessment {
  readonly index: ReferenceIndex;
  readonly answer: IdentifyAnswer;
  /** when it was made; null where nothing dates it */
  readonly date: PieceDate | null;
  /** the days of `date.core` */
  readonly made: Span | undefined;
  readonly grade: GradeAnswer;
  /** in years, where it is dated on both sides */
  readonly age: number | null;
  /** the school it is quoted in: chosen, else the usual one for its making and age */
  readonly scale: ScaleId;
  /** its blades and tools, as far as anybody counted them */
  readonly parts: CountedParts;
  /** what was looked at; where nobody has begun, all there is to look at */
  readonly inspection: Inspection;
  /** the appraiser decided against evidence that speaks for an imitation */
  readonly overruled: boolean;
}

/** A piece in its package, for as long as nobody opened it. */
export const isSealed = (record: PieceRecord): boolean =>
  record.intake.asFound === 'sealed' && !record.treatments.some((t) => t.kind === 'open-package');

/** What the bench is asked of a stored piece. */
export const identifyQuestion = (record: PieceRecord): IdentifyQuestion =>
  questionOf({
    ...record.intake,
    observations: record.observations,
    narrowing: record.narrowing,
    decided: record.attribution,
    sealed: isSealed(record),
  });

/**
 * @param alerts alarms that only the shop's other records can raise: numbers seen before
 */
export function assessPiece(
  index: ReferenceIndex,
  record: PieceRecord,
  rules: RuleSet,
  alerts: readonly Alert[],
): Assessment {
  const answer = withAlerts(identify(index, identifyQuestion(record)), alerts);
  const date = dateOf(record, answer);
  const made = date ? hullOf(periodOf(date.core).strict) : undefined;
  const decided = record.attribution?.tier;
  const question = gradeQuestion(record, made);
  const parts = partsOf(index, record, answer);
  return {
    index,
    answer,
    date,
    made,
    grade: gradeCondition(question, rules),
    age: question.age ?? null,
    parts,
    inspection: record.inspection ?? freshInspection(record.intake.construction, parts),
    scale: record.quoted?.scale ?? mainScale(record.intake.construction, question.age),
    overruled: decided !== undefined && decided !== 'rejected' && answer.attribution.tier === 'rejected',
  };
}

/** A form this likely is counted by, for as long as nobody decided. */
const COUNTED_FROM = 0.5;

function partsOf(index: ReferenceIndex, record: PieceRecord, answer: IdentifyAnswer): CountedParts {
  const leading =
    record.observations.length > 0 ? answer.candidates.find((c) => c.probability >= COUNTED_FROM) : undefined;
  const held = record.attribution ?? leading;
  const row = index.variants.get(held?.variant ?? '');
  return countedParts(record.intake.construction, record.observations, index.contents.features, {
    pattern: row?.pattern ?? index.patterns.get(held?.pattern ?? ''),
    variant: row?.variant,
  });
}

/** The appraiser's own date where there is one; else the engine's one answer. */
function dateOf(record: PieceRecord, answer: IdentifyAnswer): PieceDate | null {
  const own = record.attribution?.made;
  const { made } = answer.dating;
  if (own != null)
    return {
      core: own,
      outer: own,
      by: 'decision',
      reason: record.attribution?.madeReason || null,
      clash: made?.clash ?? null,
    };
  // a decided form is dated by its making even where nothing else was observed
  if (!made || (record.observations.length === 0 && record.attribution?.variant == null)) return null;
  return { core: made.core, outer: made.outer, by: made.basis, reason: null, clash: made.clash };
}

/** What a grade is asked of a piece: its findings, what is with it, and its age where that is known. */
export function gradeQuestion(record: PieceRecord, made: Span | undefined): GradeQuestion {
  const today = calendarOf(asDay(Math.floor(Date.now() / 86_400_000))).year;
  const age =
    made && Number.isFinite(made.from) && Number.isFinite(made.to)
      ? today - calendarOf(asDay(Math.round((made.from + made.to) / 2))).year
      : undefined;
  return {
    construction: record.intake.construction,
    findings: record.findings,
    completeness: record.completeness,
    age: age ?? null,
  };
}
