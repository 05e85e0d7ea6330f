/** What an inspection found, and the school it is quoted in, as the record keeps it. */
import { findingShape, completenessShape, inspectionShape } from './grading.ts';
import { z } from 'zod';
import { basePart, DEFECTS, PARTS, SCALE_IDS, SEVERITIES, STEP_STATES } from '@jutbank/core/condition';
import { MOST_BLADES, MOST_TOOLS } from '@jutbank/core/pieces';
import { text, ulid } from '../http/index.ts';

export const part = z
  .string()
  .regex(/^[a-z-]+(:\d{1,2})?$/, 'a part, with a number where there are several: blade:2')
  .refine((p) => (PARTS as readonly string[]).includes(basePart(p)), {
    error: (issue) => `“${String(issue.input)}” is not a part; parts are ${PARTS.join(', ')}`,
  });

export const finding = z.object({
  part,
  defect: z.enum(DEFECTS),
  severity: z.enum(SEVERITIES).nullish(),
  measure: z.number().min(0).max(1000).nullish(),
  count: z.number().int().min(1).max(999).nullish(),
  side: text(40).nullish(),
  byMaker: z.boolean().nullish(),
  note: text(500).nullish(),
  pin: z
    .object({ picture: ulid.nullish(), x: z.number().min(0).max(1), y: z.number().min(0).max(1) })
    .nullish(),
});
export const inspection = z.object({
  blades: z.number().int().min(1).max(MOST_BLADES),
  tools: z.number().int().min(0).max(MOST_TOOLS),
  steps: z.record(z.string().max(60), z.enum(STEP_STATES)),
});
export const completeness = z.record(z.string().max(40), z.string().max(40).nullish());

export const conditionBody = z.object({
  findings: z.array(finding).max(300),
  completeness: completeness.default({}),
  /** the inspection is finished: an empty list then means "nothing found" */
  inspected: z.boolean(),
  /** what was looked at, step by step; absent: what is stored stays */
  inspection: inspection.optional(),
});
export const conditionBodyShape = z
  .object({
    findings: z.array(findingShape),
    completeness: completenessShape,
    inspected: z.boolean(),
    inspection: inspectionShape,
  })
  .meta({ id: 'ConditionBody' });
export type ConditionBody = z.infer<typeof conditionBodyShape>;

/** The school a piece is quoted in, and why it is not the usual one. */
export const quotedBody = z.object({
  quoted: z
    .object({ scale: z.enum(SCALE_IDS), reason: text(300).min(3, 'say why it is quoted so') })
    .nullable(),
});
export const quotedScale = quotedBody.shape.quoted.unwrap();
export type QuotedScale = z.infer<typeof quotedScale>;
