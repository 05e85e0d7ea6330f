/** Questions and answers of the bench. */
import { z } from 'zod';
import {
  CERTAINTIES,
  FOUND_PLACES,
  OBSERVATION_STATES,
  TIERS,
  type IdentifyAnswer,
  type Observation,
} from '@jutbank/core/bench';
import { CONSTRUCTIONS } from '@jutbank/core/reference';
import { answers, byId, route, slug, text } from '../http/index.ts';

const certainty = z.enum(CERTAINTIES).nullish();
const valueObservation = z.strictObject({
  feature: slug,
  value: z.union([z.string().max(200), z.number()]),
  certainty,
});
const measureObservation = z.strictObject({
  feature: slug,
  measure: z.number().positive().max(100_000),
  resolution: z.number().positive().max(1000).nullish(),
  certainty,
  text: z.string().max(60).nullish(),
});
const stateObservation = z.strictObject({ feature: slug, state: z.enum(OBSERVATION_STATES) });
const markObservation = z.strictObject({ mark: slug, certainty });
const readsObservation = z.strictObject({
  code: slug,
  reads: z.record(z.string(), z.union([z.string().max(80), z.number()])),
  certainty,
});
const textObservation = z.strictObject({ code: slug, text: z.string().trim().min(1).max(80), certainty });

export const observation = z
  .union(
    [
      valueObservation,
      measureObservation,
      stateObservation,
      markObservation,
      readsObservation,
      textObservation,
    ],
    {
      error:
        'an observation is {feature, value}, {feature, measure}, {feature, state}, {mark}, {code, reads} or {code, text}',
    },
  )
  .meta({ id: 'Observation' }) as unknown as z.ZodType<Observation>;

export const identifyQuestion = z.object({
  observations: z.array(observation).max(300),
  within: z
    .object({
      makers: z.array(slug).max(500).nullish(),
      patterns: z.array(slug).max(2000).nullish(),
      constructions: z.array(z.enum(CONSTRUCTIONS)).nullish(),
    })
    .nullish(),
  found: z.enum(FOUND_PLACES).nullish(),
  limit: z.number().int().min(1).max(100).nullish(),
});

export const observationsBody = z.object({ observations: z.array(observation).max(300) });

/** The appraiser's own decision: may differ from the engine's, then it wants a reason. */
export const attributionBody = z.object({
  variant: slug.nullable(),
  pattern: slug.nullable(),
  tier: z.enum(TIERS),
  reason: text(2000).default(''),
});
export type AttributionBody = z.infer<typeof attributionBody>;

export interface StoredAttribution extends AttributionBody {
  decidedBy: string;
  decidedAt: string;
  engineVersion: string;
  referenceRevision: string;
  /** what the engine said to the same observations, as it was */
  engineAnswer: Pick<IdentifyAnswer, 'candidates' | 'unlisted' | 'attribution'> & {
    core: string;
    outer: string;
  };
}

export const benchRoutes = {
  identify: route({
    method: 'post',
    path: '/identify',
    room: 'bench',
    access: 'read',
    summary: 'Which variant, when made, how sure',
    body: identifyQuestion,
    answer: answers<IdentifyAnswer>('Candidates, attribution, dating, codes and what to look at next'),
  }),
  identifyPiece: route({
    method: 'get',
    path: '/pieces/:id/identification',
    room: 'bench',
    access: 'read',
    summary: 'The same answer for a stored piece',
    params: byId,
    answer: answers<IdentifyAnswer>('As for identify'),
  }),
};
