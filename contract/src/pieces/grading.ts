/** The answers of grading and of an inspection, as they are sent. */
import {
  SCALE_IDS,
  DEFECTS,
  SEVERITIES,
  STEP_STATES,
  TREATMENT_KINDS,
  PARTS,
  type AppliedCap,
  type ScaleGrade,
  type Deduction,
  type GradeAnswer,
  type Pin,
  type Finding,
  type Completeness,
  type Inspection,
  type TreatmentPlan,
  type Agreement,
  type DefectDifference,
} from '@jutbank/core/condition';
import { z } from 'zod';

export const appliedCapShape: z.ZodType<AppliedCap> = z
  .object({
    /** index of the finding, null where completeness caps */
    findingIndex: z.number().nullable(),
    rule: z.string(),
    says: z.string(),
    to: z.string(),
  })
  .meta({ id: 'AppliedCap' });

export const scaleGradeShape: z.ZodType<ScaleGrade> = z
  .object({
    scale: z.enum(SCALE_IDS),
    grade: z.string(),
    /** what it would be without caps */
    would: z.string(),
    caps: z.array(appliedCapShape),
    toNextUp: z.string(),
    /** the number the grade was read from: condition index (age allowed for) or percent of original finish */
    from: z.number(),
    rules: z.string(),
  })
  .meta({ id: 'ScaleGrade' });

export const deductionShape: z.ZodType<Deduction> = z
  .object({
    findingIndex: z.number(),
    /** share of the condition lost by this finding's part and defect together */
    share: z.number(),
  })
  .meta({ id: 'Deduction' });

export const gradeAnswerShape: z.ZodType<GradeAnswer> = z
  .object({
    conditionIndex: z.number(),
    grades: z.array(scaleGradeShape),
    disclosures: z.array(z.string()),
    deductions: z.array(deductionShape),
  })
  .meta({ id: 'GradeAnswer' });

export const pinShape: z.ZodType<Pin> = z
  .object({
    picture: z.string().nullish().exactOptional(),
    /** 0–1 from the left and from the top */
    x: z.number(),
    y: z.number(),
  })
  .meta({ id: 'Pin' });

export const findingShape: z.ZodType<Finding> = z
  .object({
    /** a part, with a number where there are several: `blade:2` */
    part: z.string(),
    defect: z.enum(DEFECTS),
    severity: z.enum(SEVERITIES).nullish().exactOptional(),
    /** millimetres or percent, as the defect says */
    measure: z.number().nullish().exactOptional(),
    count: z.number().nullish().exactOptional(),
    side: z.string().nullish().exactOptional(),
    note: z.string().nullish().exactOptional(),
    /** done by the maker, under warranty or in its own workshop: apart from aftermarket work */
    byMaker: z.boolean().nullish().exactOptional(),
    /** where it is: on a picture, or on the drawn outline when no picture is named */
    pin: pinShape.nullish().exactOptional(),
  })
  .meta({ id: 'Finding' });

export const completenessShape: z.ZodType<Completeness> = z.record(
  z.string(),
  z.string().nullable().optional(),
);

export const inspectionShape: z.ZodType<Inspection> = z
  .object({
    blades: z.number(),
    tools: z.number(),
    steps: z.record(z.string(), z.enum(STEP_STATES)),
  })
  .meta({ id: 'Inspection' });

export const treatmentPlanShape: z.ZodType<TreatmentPlan> = z
  .object({
    kind: z.enum(TREATMENT_KINDS),
    title: z.string(),
    /** what it is for */
    treats: z.array(
      z.object({
        defects: z.array(z.enum(DEFECTS)),
        parts: z.array(z.enum(PARTS)).exactOptional(),
      }),
    ),
    /** what it leaves behind on each part it was done to */
    leaves: z.array(
      z.object({
        defect: z.enum(DEFECTS),
        severity: z.enum(SEVERITIES).nullish().exactOptional(),
      }),
    ),
    /** an item it supplies, where that is missing */
    supplies: z
      .object({
        item: z.string(),
        from: z.string(),
        state: z.string(),
      })
      .exactOptional(),
    /** in the shop's currency, without the shop's own hours: a start to be changed */
    cost: z.string(),
    /** how often it goes wrong, 0–1, and what is added then */
    failure: z.number(),
    failing: z.array(
      z.object({
        defect: z.enum(DEFECTS),
        severity: z.enum(SEVERITIES).nullish().exactOptional(),
      }),
    ),
    reversible: z.boolean(),
    cautions: z.array(z.string()),
  })
  .meta({ id: 'TreatmentPlan' });

export const agreementShape: z.ZodType<Agreement> = z
  .object({
    pieces: z.number(),
    /** share of pieces with the same grade */
    same: z.number(),
    /**
     * Cohen's kappa with quadratic weights over the grades in their order: 1 agreement, 0 what chance alone would
     * give; undefined with fewer than two pieces or where both used one grade only.
     */
    kappa: z.number().optional(),
  })
  .meta({ id: 'Agreement' });

export const defectDifferenceShape: z.ZodType<DefectDifference> = z
  .object({
    part: z.string(),
    defect: z.enum(DEFECTS),
    /** pieces on which only the first, only the second, or both noted it */
    onlyFirst: z.number(),
    onlySecond: z.number(),
    both: z.number(),
  })
  .meta({ id: 'DefectDifference' });
