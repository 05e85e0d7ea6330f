/** Questions and answers of the bench. */
import { z } from 'zod';
import {
  CERTAINTIES,
  FOUND_PLACES,
  OBSERVATION_STATES,
  TIERS,
  type IdentifyAnswer,
  type LearntFrom,
  type LearntLevel,
  type Observation,
} from '@jutbank/core/bench';
import { CONSTRUCTIONS } from '@jutbank/core/reference';
import { answers, byId, edtf, route, slug, text, ulid, type Page } from '../http/index.ts';

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
      stateObservation,
      markObservation,
      numberObservation,
      readsObservation,
      textObservation,
    ],
    {
      error:
        'an observation is {feature, value}, {feature, measure}, {feature, state}, {mark}, {part, number}, {code, reads} or {code, text}',
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
  /** the stored piece that is asked about: its own number is not one that was seen before */
  piece: ulid.nullish(),
  /** what an appraiser decided: its making leads the date, probabilities stay */
  decided: z.object({ variant: slug.nullish(), pattern: slug.nullish() }).nullish(),
  /** in its package: only what shows through it can be looked at next */
  sealed: z.boolean().nullish(),
});

/** What a person at the bench knows without the engine. */
export const narrowing = z.object({
  makers: z.array(slug).max(20).default([]),
  patterns: z.array(slug).max(50).default([]),
});
export type NarrowingBody = z.infer<typeof narrowing>;

/** How often things come to this shop's bench, as far as it was learnt. */
export interface FrequencyAnswer {
  learns: boolean;
  /** chance that a piece is in no reference */
  unlisted: number;
  /** makers whose weights go by another power of what is left than the usual 0.6 */
  exponents: { maker: string; name: string; exponent: number }[];
  learnt: {
    from: LearntFrom['from'];
    named: number;
    unnamed: number;
    levels: {
      level: LearntLevel['level'];
      trust: number;
      factors: { id: string; name: string; seen: number; expected: number; factor: number }[];
    }[];
  }[];
}

/** Something on a piece that nobody can explain yet. */
export interface PieceQuestion {
  id: string;
  piece: { id: string; stockNumber: string; title: string };
  asked: string;
  askedBy: string;
  askedAt: string;
  answer: string | null;
  answeredBy: string | null;
  answeredAt: string | null;
}
export interface WatchedNumber {
  id: string;
  code: string;
  text: string;
  note: string;
  addedBy: string;
  addedAt: string;
}
export const GAUGE_KEYS = ['send', 'hold', 'zero', 'unit'] as const;
export type GaugeKey = (typeof GAUGE_KEYS)[number];
/** A line a gauge said: `97.62 mm`, or `! hold on` for its state. */
export interface GaugeLine {
  gauge: string;
  line: string;
}
export interface GaugeSummary {
  id: string;
  kind: 'caliper' | 'scales';
  simulated: boolean;
}
const pressed = z.object({
  key: z.enum(GAUGE_KEYS),
  /** simulated gauges only: what lies between the jaws or on the pan, in mm or g */
  jaws: z.number().min(0).max(5000).nullish(),
});
const byGauge = z.object({ id: slug });

const asked = z.object({ asked: text(2000).min(1, 'write down what cannot be explained') });
const answered = z.object({ answer: text(2000).min(1).nullable() });
const watched = z.object({ code: slug, text: text(80).min(1), note: text(500).default('') });

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

export interface StoredAttribution extends Omit<AttributionBody, 'madeReason' | 'evidence'> {
  madeReason?: string;
  evidence?: string;
  decidedBy: string;
  decidedAt: string;
  engineVersion: string;
  referenceRevision: string;
  /** what it was asked: the observations as they stood */
  observations?: Observation[];
  /** what the engine said to the same observations, as it was */
  engineAnswer: Pick<IdentifyAnswer, 'candidates' | 'unlisted' | 'attribution'> & {
    core: string;
    outer: string;
  };
}

export const benchRoutes = {
  gauges: route({
    method: 'get',
    path: '/gauges',
    room: 'bench',
    access: 'read',
    summary: 'The gauges at this bench',
    answer: answers<Page<GaugeSummary>>('The gauges'),
  }),
  followGauges: route({
    method: 'get',
    path: '/gauges/stream',
    room: 'bench',
    access: 'work',
    summary: 'What the gauges say, as server-sent events',
    carries: 'file',
    answer: answers<GaugeLine>('One event for each line'),
  }),
  pressGauge: route({
    method: 'post',
    path: '/gauges/:id/press',
    room: 'bench',
    access: 'work',
    summary: 'Press a key of a gauge',
    params: byGauge,
    body: pressed,
    answer: answers<{ pressed: GaugeKey }>('The key'),
  }),
  questions: route({
    method: 'get',
    path: '/questions',
    room: 'bench',
    access: 'read',
    summary: 'What is not explained yet: questions on pieces, open ones first',
    query: z.object({ piece: ulid.optional() }),
    answer: answers<Page<PieceQuestion>>('The questions'),
  }),
  askQuestion: route({
    method: 'post',
    path: '/pieces/:id/questions',
    room: 'bench',
    access: 'work',
    summary: 'Keep something on a piece that cannot be explained as an open question',
    params: byId,
    body: asked,
    answer: answers<PieceQuestion>('The question'),
    status: 201,
  }),
  answerQuestion: route({
    method: 'put',
    path: '/questions/:id',
    room: 'bench',
    access: 'appraise',
    summary: 'Answer a question, or open it again with null',
    params: byId,
    body: answered,
    answer: answers<PieceQuestion>('The question'),
  }),
  watchList: route({
    method: 'get',
    path: '/watch-list',
    room: 'bench',
    access: 'read',
    summary: 'Numbers the shop watches for',
    answer: answers<Page<WatchedNumber>>('The numbers'),
  }),
  watch: route({
    method: 'post',
    path: '/watch-list',
    room: 'bench',
    access: 'work',
    summary: 'Watch for a number: stolen, copied, sold before',
    body: watched,
    answer: answers<{ id: string }>('Its id'),
    status: 201,
  }),
  unwatch: route({
    method: 'delete',
    path: '/watch-list/:id',
    room: 'bench',
    access: 'appraise',
    summary: 'Watch for a number no longer',
    params: byId,
    answer: answers<{ removed: string }>('Its id'),
  }),
  identify: route({
    method: 'post',
    path: '/identify',
    room: 'bench',
    access: 'read',
    summary: 'Which variant, when made, how sure',
    body: identifyQuestion,
    answer: answers<IdentifyAnswer>('Candidates, attribution, dating, codes and what to look at next'),
  }),
  frequency: route({
    method: 'get',
    path: '/identify/frequency',
    room: 'bench',
    access: 'read',
    summary: 'How often things come to the bench: what was learnt, from what, and how far it is believed',
    answer: answers<FrequencyAnswer>('What was learnt'),
  }),
  putFrequency: route({
    method: 'put',
    path: '/identify/frequency',
    room: 'bench',
    access: 'appraise',
    summary: 'Learn from sales and decisions, or do not',
    body: z.object({ learns: z.boolean() }),
    answer: answers<{ learns: boolean }>('As it is now'),
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
