/** Findings and grades. */
import { z } from 'zod';
import {
  DEFECTS,
  PARTS,
  RULE_IDS,
  SCALE_IDS,
  SEVERITIES,
  TREATMENT_KINDS,
  type Agreement,
  type Completeness,
  type DefectDifference,
  type Finding,
  type GradeAnswer,
  type Inspection,
  type RuleDocument,
  type RuleId,
  type TreatmentPlan,
} from '@jutbank/core/condition';
import type { Money } from '@jutbank/core/money';
import { CONSTRUCTIONS } from '@jutbank/core/reference';
import { ofPiece, finding, completeness, conditionBody, quotedBody } from '../pieces/index.ts';
import { answers, byId, edtf, positiveMoney, required, route, text, ulid, type Page } from '../http/index.ts';

export const gradeQuestion = z.object({
  construction: z.enum(CONSTRUCTIONS),
  findings: z.array(finding).max(300),
  completeness: completeness.nullish(),
  age: z.number().min(0).max(1000).nullish(),
});

const day = z.iso.date('write a day like 2026-11-24');
export const treatmentBody = z.object({
  kind: z.enum(TREATMENT_KINDS),
  /** what was done, in words of one's own */
  title: text(120).default(''),
  product: text(160).default(''),
  grit: text(40).default(''),
  doneOn: day,
  doneBy: required(160, 'who did it?'),
  reason: required(1000, 'why was it done?'),
  reversible: z.boolean(),
  cost: positiveMoney.nullable().default(null),
  /** positions among the findings as they stand */
  removes: z.array(z.number().int().min(0)).max(300).default([]),
  adds: z.array(finding).max(50).default([]),
  /** items that changed with it: a sheath that was bought */
  completeness: completeness.default({}),
  pictures: z
    .object({ before: z.array(ulid).max(20).default([]), after: z.array(ulid).max(20).default([]) })
    .default({ before: [], after: [] }),
});
export type TreatmentBody = z.output<typeof treatmentBody>;

export interface TreatmentRecord {
  id: string;
  kind: TreatmentBody['kind'];
  title: string;
  product: string;
  grit: string;
  doneOn: string;
  doneBy: string;
  reason: string;
  reversible: boolean;
  cost: Money | null;
  removed: Finding[];
  added: Finding[];
  pictures: TreatmentBody['pictures'];
}
export const STATE_REASONS = ['as-found', 'inspected-again', 'treated', 'part-moved'] as const;
export interface ConditionState {
  id: string;
  why: (typeof STATE_REASONS)[number];
  findings: Finding[];
  completeness: Completeness;
  inspection: Inspection;
  grade: GradeAnswer;
  notedBy: string;
  notedAt: string;
}
interface PieceName {
  id: string;
  stockNumber: string;
  title: string;
}
export interface QuarantineRecord {
  id: string;
  piece: PieceName;
  since: string;
  reviewOn: string;
  reason: string;
  setBy: string;
  endedOn: string | null;
  outcome: string;
}
export const MOVE_REASONS = ['exchanged', 'robbed-for-parts', 'warranty', 'reunited', 'removed'] as const;
const end = z.object({ piece: ulid.nullable().default(null), where: text(200).default('') });
export const moveBody = z
  .object({
    part: z.enum(PARTS),
    from: end,
    to: end,
    movedOn: edtf.nullable().default(null),
    why: z.enum(MOVE_REASONS),
    note: text(1000).default(''),
  })
  .refine((m) => m.from.piece !== null || m.to.piece !== null, {
    path: ['from', 'piece'],
    error: 'one of the two must be a piece of the shop',
  })
  .refine((m) => m.from.piece === null || m.from.piece !== m.to.piece, {
    path: ['to', 'piece'],
    error: 'a part moves to another piece',
  });
export type MoveBody = z.output<typeof moveBody>;
export interface PartMove extends Omit<MoveBody, 'from' | 'to'> {
  id: string;
  from: { piece: PieceName | null; where: string };
  to: { piece: PieceName | null; where: string };
  notedBy: string;
}
/** All that is kept about the condition of a piece besides its findings of today. */
export interface ConditionFile {
  states: ConditionState[];
  treatments: TreatmentRecord[];
  quarantine: QuarantineRecord[];
  moves: PartMove[];
  /** materials seen on it that give off vapour, in words */
  vapour: string[];
}
export const quarantineBody = z
  .object({ since: day, reviewOn: day, reason: required(500, 'why is it kept apart?') })
  .refine((q) => q.reviewOn >= q.since, {
    path: ['reviewOn'],
    error: 'the review cannot be before it began',
  });
export const releaseBody = z.object({ endedOn: day, outcome: text(500).default('') });

export interface ComparedTreatment {
  index: number;
  grades: { scale: string; grade: string }[];
  /** what such a piece would bring; null where nothing can be said */
  estimate: Money | null;
}
export interface PricedTreatment {
  /** null: leave it; of a sealed piece: keep it sealed */
  plan: TreatmentPlan | null;
  sealed: boolean;
  removes: number[];
  adds: Finding[];
  failure: number;
  done: ComparedTreatment;
  failed: ComparedTreatment | null;
  expectedIndex: number;
  newDisclosures: string[];
  /** expected estimate after it, less its cost, less the estimate now; null where nothing can be said */
  gain: Money | null;
}

const bySeverity = z.object({
  trace: z.number(),
  light: z.number(),
  moderate: z.number(),
  heavy: z.number(),
  severe: z.number(),
});
const points = z.array(z.tuple([z.number(), z.number()])).max(20);
const words = z.string().trim().min(1).max(200);
const indexRules = z.strictObject({
  format: z.literal('jutbank.condition-index/1'),
  id: z.literal('condition-index'),
  version: words,
  title: words,
  repeats: z.number(),
  wear: z.array(z.enum(DEFECTS)),
  deductions: z
    .array(
      z.strictObject({
        defect: z.enum(DEFECTS),
        parts: z.array(z.enum(PARTS)).min(1).optional(),
        bySeverity,
        byMeasure: points.optional(),
      }),
    )
    .max(300),
});
const scaleRules = z.strictObject({
  format: z.literal('jutbank.grade-scale/1'),
  id: z.enum(SCALE_IDS),
  version: words,
  title: words,
  grades: z.array(z.strictObject({ grade: words, from: z.number().min(0).max(100) })).max(20),
  measures: z.enum(['condition-index', 'original-finish']),
  finishLost: z.partialRecord(z.enum(DEFECTS), bySeverity).optional(),
  ageAllowance: points.optional(),
  caps: z
    .array(
      z.strictObject({
        id: words,
        defects: z.array(z.enum(DEFECTS)).min(1),
        parts: z.array(z.enum(PARTS)).min(1).optional(),
        from: z.enum(SEVERITIES).optional(),
        aftermarketOnly: z.boolean().optional(),
        to: words,
        says: words,
      }),
    )
    .max(100),
  completenessCaps: z
    .array(z.strictObject({ id: words, item: words, states: z.array(words).min(1), to: words, says: words }))
    .max(50),
});
/** The JSON Schema of a rule document is made from this. */
export const ruleDocument = z
  .discriminatedUnion('format', [indexRules, scaleRules])
  .meta({ id: 'RuleDocument' }) as unknown as z.ZodType<RuleDocument>;

export interface RuleVersion {
  version: string;
  note: string;
  madeBy: string | null;
  madeAt: string | null;
  inUse: boolean;
}
export interface RuleSummary {
  id: RuleId;
  title: string;
  versions: RuleVersion[];
}
export interface RuleTrial {
  /** recorded pieces that were graded both ways */
  graded: number;
  changes: {
    piece: PieceName;
    scale: string;
    before: string;
    after: string;
    indexBefore: number;
    indexAfter: number;
  }[];
}
const byRule = z.object({ id: z.enum(RULE_IDS) });

export interface GradingSummary {
  id: string;
  title: string;
  setBy: string;
  setAt: string;
  pieces: number;
  looked: number;
}
export interface GradingSheet extends GradingSummary {
  /** of a piece that is still to be looked at nothing of the first grade is told */
  items: {
    piece: PieceName & { construction: (typeof CONSTRUCTIONS)[number] };
    looked: { by: string; at: string; scale: string; grade: string; firstGrade: string } | null;
  }[];
  agreement: { scale: string; agreement: Agreement }[];
  differ: DefectDifference[];
}

/** As they count up: `shop-1`; the shipped ones have numbers. */
const ruleVersion = z.string().regex(/^[\w.-]{1,24}$/, 'this is no version');

export const conditionRoutes = {
  putQuoted: route({
    ...ofPiece('condition'),
    method: 'put',
    path: '/pieces/:id/quoted-scale',
    access: 'appraise',
    summary: 'The school it is quoted in, with the reason; null for the usual one',
    body: quotedBody,
  }),
  putCondition: route({
    ...ofPiece('condition'),
    method: 'put',
    path: '/pieces/:id/condition',
    access: 'work',
    summary: 'Findings and completeness',
    body: conditionBody,
  }),
  grade: route({
    method: 'post',
    path: '/grade',
    room: 'condition',
    access: 'read',
    summary: 'Condition index and grades of a list of findings',
    body: gradeQuestion,
    answer: answers<GradeAnswer>('Index, grades with caps, disclosures'),
  }),
  ruleSummaries: route({
    method: 'get',
    path: '/condition-rules',
    room: 'condition',
    access: 'read',
    summary: 'The rule documents and their versions',
    answer: answers<Page<RuleSummary>>('The documents'),
  }),
  ruleSchema: route({
    method: 'get',
    path: '/condition-rules/schema',
    room: 'condition',
    access: 'read',
    summary: 'JSON Schema of a rule document',
    answer: answers<Record<string, unknown>>('JSON Schema, draft 2020-12'),
  }),
  rules: route({
    method: 'get',
    path: '/condition-rules/:id',
    room: 'condition',
    access: 'read',
    summary: 'One rule document: the version in use, or another',
    params: byRule,
    query: z.object({ version: ruleVersion.optional() }),
    answer: answers<RuleDocument>('The document'),
  }),
  tryRules: route({
    method: 'post',
    path: '/condition-rules/trial',
    room: 'condition',
    access: 'read',
    summary: 'Which recorded pieces would change grade under a document; nothing is changed',
    body: z.object({ document: ruleDocument }),
    answer: answers<RuleTrial>('The pieces whose grade would change'),
  }),
  keepRules: route({
    method: 'post',
    path: '/condition-rules',
    room: 'condition',
    access: 'own',
    summary: 'Keep a document as a new version and grade by it',
    body: z.object({ document: ruleDocument, note: required(500, 'say what was changed') }),
    answer: answers<RuleDocument>('The document as kept'),
    status: 201,
  }),
  useRules: route({
    method: 'put',
    path: '/condition-rules/:id/in-use',
    room: 'condition',
    access: 'own',
    summary: 'Grade by another version',
    params: byRule,
    body: z.object({ version: ruleVersion }),
    answer: answers<RuleDocument>('The document now in use'),
  }),
  conditionFile: route({
    method: 'get',
    path: '/pieces/:id/condition',
    room: 'condition',
    access: 'read',
    summary: 'States, treatments, quarantine and moved parts of a piece',
    params: byId,
    answer: answers<ConditionFile>('The file'),
  }),
  weighTreatments: route({
    method: 'get',
    path: '/pieces/:id/treatment-options',
    room: 'condition',
    access: 'read',
    summary: 'Leave it or treat it: grades and money of each way',
    params: byId,
    answer: answers<Page<PricedTreatment>>('The options, leaving it first'),
  }),
  treat: route({
    method: 'post',
    path: '/pieces/:id/treatments',
    room: 'condition',
    access: 'work',
    summary: 'Record what was done to a piece',
    params: byId,
    body: treatmentBody,
    answer: answers<TreatmentRecord>('The treatment'),
    status: 201,
  }),
  quarantined: route({
    method: 'get',
    path: '/quarantine',
    room: 'condition',
    access: 'read',
    summary: 'Pieces kept apart, the one to be reviewed next first',
    answer: answers<Page<QuarantineRecord>>('The pieces'),
  }),
  quarantine: route({
    method: 'post',
    path: '/pieces/:id/quarantine',
    room: 'condition',
    access: 'work',
    summary: 'Keep a piece apart until a day',
    params: byId,
    body: quarantineBody,
    answer: answers<QuarantineRecord>('The record'),
    status: 201,
  }),
  release: route({
    method: 'put',
    path: '/quarantine/:id',
    room: 'condition',
    access: 'work',
    summary: 'Let a piece out of quarantine',
    params: byId,
    body: releaseBody,
    answer: answers<QuarantineRecord>('The record'),
  }),
  movePart: route({
    method: 'post',
    path: '/part-moves',
    room: 'condition',
    access: 'work',
    summary: 'A part went from one piece to another; it stands on both',
    body: moveBody,
    answer: answers<PartMove>('The move'),
    status: 201,
  }),
  conditionReport: route({
    method: 'get',
    path: '/pieces/:id/condition-report.pdf',
    room: 'condition',
    access: 'read',
    summary: 'The condition report on paper',
    params: byId,
    carries: 'file',
  }),
  gradings: route({
    method: 'get',
    path: '/gradings',
    room: 'condition',
    access: 'read',
    summary: 'Second gradings, newest first',
    answer: answers<Page<GradingSummary>>('The gradings'),
  }),
  setGrading: route({
    method: 'post',
    path: '/gradings',
    room: 'condition',
    access: 'appraise',
    summary: 'Set pieces to be graded a second time by somebody who does not see the first grade',
    body: z.object({ title: required(160), pieces: z.array(ulid).min(1).max(200) }),
    answer: answers<GradingSheet>('The grading'),
    status: 201,
  }),
  grading: route({
    method: 'get',
    path: '/gradings/:id',
    room: 'condition',
    access: 'read',
    summary: 'How far a second grading has come, and how well the two agree',
    params: byId,
    answer: answers<GradingSheet>('The grading'),
  }),
  lookAgain: route({
    method: 'put',
    path: '/gradings/:id/pieces/:piece',
    room: 'condition',
    access: 'work',
    summary: 'What the second grader found',
    params: z.object({ id: ulid, piece: ulid }),
    body: z.object({ findings: z.array(finding).max(300) }),
    answer: answers<GradingSheet>('The grading'),
  }),
};
