/** Findings and grades. */
import {
  gradeAnswerShape,
  findingShape,
  completenessShape,
  countedPartsShape,
  inspectionShape,
  treatmentPlanShape,
  agreementShape,
  defectDifferenceShape,
  ofPiece,
  finding,
  completeness,
  conditionBody,
  quotedBody,
} from '../pieces/index.ts';
import {
  pageShape,
  moneyShape,
  answers,
  byId,
  edtf,
  positiveMoney,
  required,
  route,
  text,
  ulid,
} from '../http/index.ts';
import { z } from 'zod';
import {
  DEFECTS,
  PARTS,
  RULE_IDS,
  SCALE_IDS,
  SEVERITIES,
  TREATMENT_KINDS,
  type RuleDocument,
} from '@jutbank/core/condition';
import { CONSTRUCTIONS } from '@jutbank/core/reference';

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

export const treatmentRecord = z
  .object({
    id: z.string(),
    kind: treatmentBody.shape.kind,
    title: z.string(),
    product: z.string(),
    grit: z.string(),
    doneOn: z.string(),
    doneBy: z.string(),
    reason: z.string(),
    reversible: z.boolean(),
    cost: moneyShape.nullable(),
    removed: z.array(findingShape),
    added: z.array(findingShape),
    pictures: treatmentBody.shape.pictures,
  })
  .meta({ id: 'TreatmentRecord' });
export type TreatmentRecord = z.infer<typeof treatmentRecord>;
export const STATE_REASONS = ['as-found', 'inspected-again', 'treated', 'part-moved'] as const;
export const conditionState = z
  .object({
    id: z.string(),
    why: z.enum(STATE_REASONS),
    findings: z.array(findingShape),
    completeness: completenessShape,
    inspection: inspectionShape,
    grade: gradeAnswerShape,
    notedBy: z.string(),
    notedAt: z.string(),
  })
  .meta({ id: 'ConditionState' });
export type ConditionState = z.infer<typeof conditionState>;
export const pieceName = z
  .object({
    id: z.string(),
    stockNumber: z.string(),
    title: z.string(),
  })
  .meta({ id: 'PieceName' });
export type PieceName = z.infer<typeof pieceName>;
export const quarantineRecord = z
  .object({
    id: z.string(),
    piece: pieceName,
    since: z.string(),
    reviewOn: z.string(),
    reason: z.string(),
    setBy: z.string(),
    endedOn: z.string().nullable(),
    outcome: z.string(),
  })
  .meta({ id: 'QuarantineRecord' });
export type QuarantineRecord = z.infer<typeof quarantineRecord>;
export const MOVE_REASONS = ['exchanged', 'robbed-for-parts', 'warranty', 'reunited', 'removed'] as const;
const end = z.object({ piece: ulid.nullable().default(null), where: text(200).default('') });
const moveFields = z.object({
  part: z.enum(PARTS),
  from: end,
  to: end,
  movedOn: edtf.nullable().default(null),
  why: z.enum(MOVE_REASONS),
  note: text(1000).default(''),
});
export const moveBody = moveFields
  .refine((m) => m.from.piece !== null || m.to.piece !== null, {
    path: ['from', 'piece'],
    error: 'one of the two must be a piece of the shop',
  })
  .refine((m) => m.from.piece === null || m.from.piece !== m.to.piece, {
    path: ['to', 'piece'],
    error: 'a part moves to another piece',
  });
export type MoveBody = z.output<typeof moveBody>;
export const partMove = moveFields
  .omit({ from: true, to: true })
  .extend({
    id: z.string(),
    from: z.object({
      piece: pieceName.nullable(),
      where: z.string(),
    }),
    to: z.object({
      piece: pieceName.nullable(),
      where: z.string(),
    }),
    notedBy: z.string(),
  })
  .meta({ id: 'PartMove' });
export type PartMove = z.infer<typeof partMove>;
/** All that is kept about the condition of a piece besides its findings of today. */
export const conditionFile = z
  .object({
    states: z.array(conditionState),
    treatments: z.array(treatmentRecord),
    quarantine: z.array(quarantineRecord),
    moves: z.array(partMove),
    /** materials seen on it that give off vapour, in words */
    vapour: z.array(z.string()),
  })
  .meta({ id: 'ConditionFile' });
export type ConditionFile = z.infer<typeof conditionFile>;
export const quarantineBody = z
  .object({ since: day, reviewOn: day, reason: required(500, 'why is it kept apart?') })
  .refine((q) => q.reviewOn >= q.since, {
    path: ['reviewOn'],
    error: 'the review cannot be before it began',
  });
export const releaseBody = z.object({ endedOn: day, outcome: text(500).default('') });

export const comparedTreatment = z
  .object({
    index: z.number(),
    grades: z.array(
      z.object({
        scale: z.string(),
        grade: z.string(),
      }),
    ),
    /** what such a piece would bring; null where nothing can be said */
    estimate: moneyShape.nullable(),
  })
  .meta({ id: 'ComparedTreatment' });
export type ComparedTreatment = z.infer<typeof comparedTreatment>;
export const pricedTreatment = z
  .object({
    /** null: leave it; of a sealed piece: keep it sealed */
    plan: treatmentPlanShape.nullable(),
    sealed: z.boolean(),
    removes: z.array(z.number()),
    adds: z.array(findingShape),
    failure: z.number(),
    done: comparedTreatment,
    failed: comparedTreatment.nullable(),
    expectedIndex: z.number(),
    newDisclosures: z.array(z.string()),
    /** expected estimate after it, less its cost, less the estimate now; null where nothing can be said */
    gain: moneyShape.nullable(),
  })
  .meta({ id: 'PricedTreatment' });
export type PricedTreatment = z.infer<typeof pricedTreatment>;

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
        parts: z.array(z.enum(PARTS)).min(1).exactOptional(),
        bySeverity,
        byMeasure: points.exactOptional(),
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
  finishLost: z.partialRecord(z.enum(DEFECTS), bySeverity).exactOptional(),
  ageAllowance: points.exactOptional(),
  caps: z
    .array(
      z.strictObject({
        id: words,
        defects: z.array(z.enum(DEFECTS)).min(1),
        parts: z.array(z.enum(PARTS)).min(1).exactOptional(),
        from: z.enum(SEVERITIES).exactOptional(),
        aftermarketOnly: z.boolean().exactOptional(),
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
export const ruleDocument: z.ZodType<RuleDocument> = z
  .discriminatedUnion('format', [indexRules, scaleRules])
  .meta({ id: 'RuleDocument' });

export const ruleVersionShape = z
  .object({
    version: z.string(),
    note: z.string(),
    madeBy: z.string().nullable(),
    madeAt: z.string().nullable(),
    inUse: z.boolean(),
  })
  .meta({ id: 'RuleVersion' });
export type RuleVersion = z.infer<typeof ruleVersionShape>;
export const ruleSummary = z
  .object({
    id: z.enum(RULE_IDS),
    title: z.string(),
    versions: z.array(ruleVersionShape),
  })
  .meta({ id: 'RuleSummary' });
export type RuleSummary = z.infer<typeof ruleSummary>;
export const ruleTrial = z
  .object({
    /** recorded pieces that were graded both ways */
    graded: z.number(),
    changes: z.array(
      z.object({
        piece: pieceName,
        scale: z.string(),
        before: z.string(),
        after: z.string(),
        indexBefore: z.number(),
        indexAfter: z.number(),
      }),
    ),
  })
  .meta({ id: 'RuleTrial' });
export type RuleTrial = z.infer<typeof ruleTrial>;
const byRule = z.object({ id: z.enum(RULE_IDS) });

export const gradingSummary = z
  .object({
    id: z.string(),
    title: z.string(),
    setBy: z.string(),
    setAt: z.string(),
    pieces: z.number(),
    looked: z.number(),
  })
  .meta({ id: 'GradingSummary' });
export type GradingSummary = z.infer<typeof gradingSummary>;
export const gradingSheet = gradingSummary
  .extend({
    /** of a piece that is still to be looked at nothing of the first grade is told */
    items: z.array(
      z.object({
        piece: z.intersection(
          pieceName,
          z.object({
            construction: z.enum(CONSTRUCTIONS),
            /** as it was decided: what it is drawn as */
            variant: z.string().nullable(),
            pattern: z.string().nullable(),
            parts: countedPartsShape,
          }),
        ),
        looked: z
          .object({
            by: z.string(),
            at: z.string(),
            scale: z.string(),
            grade: z.string(),
            firstGrade: z.string(),
          })
          .nullable(),
      }),
    ),
    agreement: z.array(
      z.object({
        scale: z.string(),
        agreement: agreementShape,
      }),
    ),
    differ: z.array(defectDifferenceShape),
  })
  .meta({ id: 'GradingSheet' });
export type GradingSheet = z.infer<typeof gradingSheet>;

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
    answer: answers(gradeAnswerShape, 'Index, grades with caps, disclosures'),
  }),
  ruleSummaries: route({
    method: 'get',
    path: '/condition-rules',
    room: 'condition',
    access: 'read',
    summary: 'The rule documents and their versions',
    answer: answers(pageShape(ruleSummary), 'The documents'),
  }),
  ruleSchema: route({
    method: 'get',
    path: '/condition-rules/schema',
    room: 'condition',
    access: 'read',
    summary: 'JSON Schema of a rule document',
    answer: answers(z.record(z.string(), z.unknown()), 'JSON Schema, draft 2020-12'),
  }),
  rules: route({
    method: 'get',
    path: '/condition-rules/:id',
    room: 'condition',
    access: 'read',
    summary: 'One rule document: the version in use, or another',
    params: byRule,
    query: z.object({ version: ruleVersion.optional() }),
    answer: answers(ruleDocument, 'The document'),
  }),
  tryRules: route({
    method: 'post',
    path: '/condition-rules/trial',
    room: 'condition',
    access: 'read',
    summary: 'Which recorded pieces would change grade under a document; nothing is changed',
    body: z.object({ document: ruleDocument }),
    answer: answers(ruleTrial, 'The pieces whose grade would change'),
  }),
  keepRules: route({
    method: 'post',
    path: '/condition-rules',
    room: 'condition',
    access: 'own',
    summary: 'Keep a document as a new version and grade by it',
    body: z.object({ document: ruleDocument, note: required(500, 'say what was changed') }),
    answer: answers(ruleDocument, 'The document as kept'),
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
    answer: answers(ruleDocument, 'The document now in use'),
  }),
  conditionFile: route({
    method: 'get',
    path: '/pieces/:id/condition',
    room: 'condition',
    access: 'read',
    summary: 'States, treatments, quarantine and moved parts of a piece',
    params: byId,
    answer: answers(conditionFile, 'The file'),
  }),
  weighTreatments: route({
    method: 'get',
    path: '/pieces/:id/treatment-options',
    room: 'condition',
    access: 'read',
    summary: 'Leave it or treat it: grades and money of each way',
    params: byId,
    answer: answers(pageShape(pricedTreatment), 'The options, leaving it first'),
  }),
  treat: route({
    method: 'post',
    path: '/pieces/:id/treatments',
    room: 'condition',
    access: 'work',
    summary: 'Record what was done to a piece',
    params: byId,
    body: treatmentBody,
    answer: answers(treatmentRecord, 'The treatment'),
    status: 201,
  }),
  quarantined: route({
    method: 'get',
    path: '/quarantine',
    room: 'condition',
    access: 'read',
    summary: 'Pieces kept apart, the one to be reviewed next first',
    answer: answers(pageShape(quarantineRecord), 'The pieces'),
  }),
  quarantine: route({
    method: 'post',
    path: '/pieces/:id/quarantine',
    room: 'condition',
    access: 'work',
    summary: 'Keep a piece apart until a day',
    params: byId,
    body: quarantineBody,
    answer: answers(quarantineRecord, 'The record'),
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
    answer: answers(quarantineRecord, 'The record'),
  }),
  movePart: route({
    method: 'post',
    path: '/part-moves',
    room: 'condition',
    access: 'work',
    summary: 'A part went from one piece to another; it stands on both',
    body: moveBody,
    answer: answers(partMove, 'The move'),
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
    answer: answers(pageShape(gradingSummary), 'The gradings'),
  }),
  setGrading: route({
    method: 'post',
    path: '/gradings',
    room: 'condition',
    access: 'appraise',
    summary: 'Set pieces to be graded a second time by somebody who does not see the first grade',
    body: z.object({ title: required(160), pieces: z.array(ulid).min(1).max(200) }),
    answer: answers(gradingSheet, 'The grading'),
    status: 201,
  }),
  grading: route({
    method: 'get',
    path: '/gradings/:id',
    room: 'condition',
    access: 'read',
    summary: 'How far a second grading has come, and how well the two agree',
    params: byId,
    answer: answers(gradingSheet, 'The grading'),
  }),
  lookAgain: route({
    method: 'put',
    path: '/gradings/:id/pieces/:piece',
    room: 'condition',
    access: 'work',
    summary: 'What the second grader found',
    params: z.object({ id: ulid, piece: ulid }),
    body: z.object({ findings: z.array(finding).max(300) }),
    answer: answers(gradingSheet, 'The grading'),
  }),
};
