/** Drills: what is asked of a person next, what they answered, how far they are. */
import { DRILL_KINDS } from '@jutbank/core/training';
import { z } from 'zod';
import { answers, required, route, slug } from '../http/index.ts';

const drawing = z.discriminatedUnion('what', [
  z.object({
    what: z.literal('stamp'),
    mark: z.string(),
    code: z.string().exactOptional(),
    reads: z.record(z.string(), z.union([z.string(), z.number()])).exactOptional(),
  }),
  z.object({ what: z.literal('forms'), variants: z.array(z.string()) }),
]);

/** A question without its answer. */
export const drillQuestion = z
  .object({
    id: z.string(),
    kind: z.enum(DRILL_KINDS),
    ask: z.string(),
    drawn: drawing.nullable(),
    choices: z.array(z.string()),
    /** of the question as it is now: an answer to an older one is not counted */
    basis: z.string(),
    learnt: z.enum(['new', 'learning', 'known', 'stale']),
  })
  .meta({ id: 'DrillQuestion' });
export type DrillQuestionAnswer = z.infer<typeof drillQuestion>;

export const drillAnswerBody = z.object({
  question: required(300),
  basis: required(40),
  /** the words of the choice that was taken */
  choice: required(600),
  /** ms from question to answer */
  took: z.number().int().min(0).max(3_600_000),
});
export type DrillAnswerBody = z.infer<typeof drillAnswerBody>;

export const drillVerdict = z
  .object({
    right: z.boolean(),
    /** the words of the right choice */
    answer: z.string(),
    because: z.string(),
    source: z.object({ title: z.string(), page: z.string().nullable() }).nullable(),
    /** where it can be read up: an address of the application */
    opens: z.string(),
    /** instant from which it is asked again */
    due: z.string(),
  })
  .meta({ id: 'DrillVerdict' });
export type DrillVerdict = z.infer<typeof drillVerdict>;

const counts = {
  known: z.number().int(),
  learning: z.number().int(),
  new: z.number().int(),
  due: z.number().int(),
};
export const drillProgress = z
  .object({
    ...counts,
    /** questions that say something else since they were learnt */
    stale: z.number().int(),
    makers: z.array(z.object({ id: z.string(), name: z.string(), ...counts })),
    kinds: z.array(z.object({ kind: z.enum(DRILL_KINDS), ...counts })),
    /** the last days, the oldest first */
    days: z.array(z.object({ day: z.string(), right: z.number().int(), wrong: z.number().int() })),
  })
  .meta({ id: 'DrillProgress' });
export type DrillProgress = z.infer<typeof drillProgress>;

const training = { room: 'training', access: 'read' } as const;
export const trainingRoutes = {
  progress: route({
    ...training,
    method: 'get',
    path: '/drills',
    summary: 'How far one is, by maker and by kind of question',
    answer: answers(drillProgress, 'One’s own progress'),
  }),
  nextDrills: route({
    ...training,
    method: 'get',
    path: '/drills/next',
    summary: 'What is asked next: what is due, then new things from the commonest to the rarest',
    query: z.object({
      limit: z.coerce.number().int().min(1).max(40).default(12),
      maker: slug.optional(),
      kind: z.enum(DRILL_KINDS).optional(),
    }),
    answer: answers(z.object({ items: z.array(drillQuestion) }), 'Questions'),
  }),
  answerDrill: route({
    ...training,
    method: 'post',
    path: '/drills/answers',
    summary: 'Answer a question: whether it was right, why, and when it comes back',
    body: drillAnswerBody,
    answer: answers(drillVerdict, 'The verdict'),
  }),
};
