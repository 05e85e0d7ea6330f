/** Findings and grades. */
import { z } from 'zod';
import { basePart, DEFECTS, PARTS, SEVERITIES, type GradeAnswer } from '@jutbank/core/condition';
import { CONSTRUCTIONS } from '@jutbank/core/reference';
import { answers, route, text } from '../http/index.ts';

const part = z
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
  note: text(500).nullish(),
});
const completeness = z.record(z.string().max(40), z.string().max(40).nullish());

export const gradeQuestion = z.object({
  construction: z.enum(CONSTRUCTIONS),
  findings: z.array(finding).max(300),
  completeness: completeness.nullish(),
  age: z.number().min(0).max(1000).nullish(),
});

export const conditionBody = z.object({
  findings: z.array(finding).max(300),
  completeness: completeness.default({}),
  /** the inspection is finished: an empty list then means "nothing found" */
  inspected: z.boolean(),
});
export type ConditionBody = z.infer<typeof conditionBody>;

export const conditionRoutes = {
  grade: route({
    method: 'post',
    path: '/grade',
    room: 'condition',
    access: 'read',
    summary: 'Condition index and grades of a list of findings',
    body: gradeQuestion,
    answer: answers<GradeAnswer>('Index, grades with caps, disclosures'),
  }),
};
