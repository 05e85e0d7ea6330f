/** What was seen at the bench and what was decided, as the record keeps it. */
import { observationShape, candidateShape, attributionShape } from './identification.ts';
import { z } from 'zod';
import { CERTAINTIES, OBSERVATION_STATES, TIERS, type Observation } from '@jutbank/core/bench';
import { edtf, slug, text } from '../http/index.ts';

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
const otherObservation = z.strictObject({
  feature: slug,
  other: z.string().trim().min(1).max(120),
  certainty,
});
const stateObservation = z.strictObject({ feature: slug, state: z.enum(OBSERVATION_STATES) });
const markObservation = z.strictObject({ mark: slug, certainty });
const numberObservation = z.strictObject({ part: slug, number: z.string().trim().min(1).max(40) });
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
      otherObservation,
      stateObservation,
      markObservation,
      numberObservation,
      readsObservation,
      textObservation,
    ],
    {
      error:
        'an observation is {feature, value}, {feature, measure}, {feature, other}, {feature, state}, {mark}, {part, number}, {code, reads} or {code, text}',
    },
  )
  .meta({ id: 'Observation' }) as unknown as z.ZodType<Observation>;

/** What a person at the bench knows without the engine. */
export const narrowing = z.object({
  makers: z.array(slug).max(20).default([]),
  patterns: z.array(slug).max(50).default([]),
});
export type NarrowingBody = z.infer<typeof narrowing>;

export const observationsBody = z.object({ observations: z.array(observation).max(300) });

/** The appraiser's own decision: may differ from the engine's, then it wants a reason. */
export const attributionBody = z.object({
  variant: slug.nullable(),
  pattern: slug.nullable(),
  tier: z.enum(TIERS),
  reason: text(2000).default(''),
  /** when it was made, by the appraiser's own judgement, with the reason; every paper says this date */
  made: edtf.nullish(),
  madeReason: text(1000).default(''),
  /** what overrules evidence that speaks against it: a document, an expert, an examination, named */
  evidence: text(1000).default(''),
});
export type AttributionBody = z.infer<typeof attributionBody>;

export const storedAttribution = attributionBody
  .omit({ madeReason: true, evidence: true })
  .extend({
    madeReason: z.string().exactOptional(),
    evidence: z.string().exactOptional(),
    decidedBy: z.string(),
    decidedAt: z.string(),
    engineVersion: z.string(),
    referenceRevision: z.string(),
    /** what it was asked: the observations as they stood */
    observations: z.array(observationShape).exactOptional(),
    /** what the engine said to the same observations, as it was */
    engineAnswer: z.intersection(
      z.object({
        candidates: z.array(candidateShape),
        unlisted: z.number(),
        attribution: attributionShape,
      }),
      z.object({
        core: z.string(),
        outer: z.string(),
      }),
    ),
  })
  .meta({ id: 'StoredAttribution' });
export type StoredAttribution = z.infer<typeof storedAttribution>;
