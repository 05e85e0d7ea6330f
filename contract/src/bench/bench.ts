/** Questions and answers of the bench. */
import { pageShape, answers, byId, route, slug, text, ulid } from '../http/index.ts';
import {
  identifyAnswerShape,
  ofPiece,
  observation,
  narrowing,
  observationsBody,
  attributionBody,
} from '../pieces/index.ts';
import { z } from 'zod';
import { FOUND_PLACES } from '@jutbank/core/bench';
import { CONSTRUCTIONS } from '@jutbank/core/reference';

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

/** How often things come to this shop's bench, as far as it was learnt. */
export const frequencyAnswer = z
  .object({
    learns: z.boolean(),
    /** chance that a piece is in no reference */
    unlisted: z.number(),
    /** makers whose weights go by another power of what is left than the usual 0.6 */
    exponents: z.array(
      z.object({
        maker: z.string(),
        name: z.string(),
        exponent: z.number(),
      }),
    ),
    learnt: z.array(
      z.object({
        from: z.enum(['sold', 'own', 'both']),
        named: z.number(),
        unnamed: z.number(),
        levels: z.array(
          z.object({
            level: z.enum(['kind', 'maker', 'pattern', 'variant', 'counterfeit']),
            trust: z.number(),
            factors: z.array(
              z.object({
                id: z.string(),
                name: z.string(),
                seen: z.number(),
                expected: z.number(),
                factor: z.number(),
              }),
            ),
          }),
        ),
      }),
    ),
  })
  .meta({ id: 'FrequencyAnswer' });
export type FrequencyAnswer = z.infer<typeof frequencyAnswer>;

const asked = z.object({ asked: text(2000).min(1, 'write down what cannot be explained') });

/** Something on a piece that nobody can explain yet. */
export const pieceQuestion = z
  .object({
    id: z.string(),
    piece: z.object({
      id: z.string(),
      stockNumber: z.string(),
      title: z.string(),
    }),
    asked: z.string(),
    askedBy: z.string(),
    askedAt: z.string(),
    answer: z.string().nullable(),
    answeredBy: z.string().nullable(),
    answeredAt: z.string().nullable(),
  })
  .meta({ id: 'PieceQuestion' });
export type PieceQuestion = z.infer<typeof pieceQuestion>;
export const watchedNumber = z
  .object({
    id: z.string(),
    code: z.string(),
    text: z.string(),
    note: z.string(),
    addedBy: z.string(),
    addedAt: z.string(),
  })
  .meta({ id: 'WatchedNumber' });
export type WatchedNumber = z.infer<typeof watchedNumber>;
export const GAUGE_KEYS = ['send', 'hold', 'zero', 'unit'] as const;
export type GaugeKey = (typeof GAUGE_KEYS)[number];
/** A line a gauge said: `97.62 mm`, or `! hold on` for its state. */
export const gaugeLine = z
  .object({
    gauge: z.string(),
    line: z.string(),
  })
  .meta({ id: 'GaugeLine' });
export type GaugeLine = z.infer<typeof gaugeLine>;
export const gaugeSummary = z
  .object({
    id: z.string(),
    kind: z.enum(['caliper', 'scales']),
    simulated: z.boolean(),
  })
  .meta({ id: 'GaugeSummary' });
export type GaugeSummary = z.infer<typeof gaugeSummary>;
const pressed = z.object({
  key: z.enum(GAUGE_KEYS),
  /** simulated gauges only: what lies between the jaws or on the pan, in mm or g */
  jaws: z.number().min(0).max(5000).nullish(),
});
const byGauge = z.object({ id: slug });
const answered = z.object({ answer: text(2000).min(1).nullable() });
const watched = z.object({ code: slug, text: text(80).min(1), note: text(500).default('') });

export const unlistedValue = z
  .object({
    feature: z.string(),
    text: z.string(),
    /** on which it was seen, the newest first; at most ten are named */
    pieces: z.array(z.object({ id: z.string(), stockNumber: z.string() })),
    count: z.number().int(),
  })
  .meta({ id: 'UnlistedValue' });
export type UnlistedValue = z.infer<typeof unlistedValue>;

export const benchRoutes = {
  putObservations: route({
    ...ofPiece('bench'),
    method: 'put',
    path: '/pieces/:id/observations',
    access: 'work',
    summary: 'What was seen at the bench',
    body: observationsBody,
  }),
  putNarrowing: route({
    ...ofPiece('bench'),
    method: 'put',
    path: '/pieces/:id/narrowing',
    access: 'work',
    summary: 'What a person knows at once: makers and patterns to look among',
    body: narrowing,
  }),
  putAttribution: route({
    ...ofPiece('bench'),
    method: 'put',
    path: '/pieces/:id/attribution',
    access: 'appraise',
    summary: 'Decide what it is',
    body: z.object({ attribution: attributionBody.nullable() }),
  }),
  gauges: route({
    method: 'get',
    path: '/gauges',
    room: 'bench',
    access: 'read',
    summary: 'The gauges at this bench',
    answer: answers(pageShape(gaugeSummary), 'The gauges'),
  }),
  followGauges: route({
    method: 'get',
    path: '/gauges/stream',
    room: 'bench',
    access: 'work',
    summary: 'What the gauges say, as server-sent events',
    carries: 'file',
    answer: answers(gaugeLine, 'One event for each line'),
  }),
  pressGauge: route({
    method: 'post',
    path: '/gauges/:id/press',
    room: 'bench',
    access: 'work',
    summary: 'Press a key of a gauge',
    params: byGauge,
    body: pressed,
    answer: answers(
      z.object({
        pressed: z.enum(GAUGE_KEYS),
      }),
      'The key',
    ),
  }),
  questions: route({
    method: 'get',
    path: '/questions',
    room: 'bench',
    access: 'read',
    summary: 'What is not explained yet: questions on pieces, open ones first',
    query: z.object({ piece: ulid.optional() }),
    answer: answers(pageShape(pieceQuestion), 'The questions'),
  }),
  askQuestion: route({
    method: 'post',
    path: '/pieces/:id/questions',
    room: 'bench',
    access: 'work',
    summary: 'Keep something on a piece that cannot be explained as an open question',
    params: byId,
    body: asked,
    answer: answers(pieceQuestion, 'The question'),
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
    answer: answers(pieceQuestion, 'The question'),
  }),
  unlisted: route({
    method: 'get',
    path: '/observations/unlisted',
    room: 'bench',
    access: 'read',
    summary: 'What was seen and the reference has no value for, by feature, most often first',
    answer: answers(pageShape(unlistedValue), 'What was written'),
  }),
  watchList: route({
    method: 'get',
    path: '/watch-list',
    room: 'bench',
    access: 'read',
    summary: 'Numbers the shop watches for',
    answer: answers(pageShape(watchedNumber), 'The numbers'),
  }),
  watch: route({
    method: 'post',
    path: '/watch-list',
    room: 'bench',
    access: 'work',
    summary: 'Watch for a number: stolen, copied, sold before',
    body: watched,
    answer: answers(
      z.object({
        id: z.string(),
      }),
      'Its id',
    ),
    status: 201,
  }),
  unwatch: route({
    method: 'delete',
    path: '/watch-list/:id',
    room: 'bench',
    access: 'appraise',
    summary: 'Watch for a number no longer',
    params: byId,
    answer: answers(
      z.object({
        removed: z.string(),
      }),
      'Its id',
    ),
  }),
  identify: route({
    method: 'post',
    path: '/identify',
    room: 'bench',
    access: 'read',
    summary: 'Which variant, when made, how sure',
    body: identifyQuestion,
    answer: answers(identifyAnswerShape, 'Candidates, attribution, dating, codes and what to look at next'),
  }),
  frequency: route({
    method: 'get',
    path: '/identify/frequency',
    room: 'bench',
    access: 'read',
    summary: 'How often things come to the bench: what was learnt, from what, and how far it is believed',
    answer: answers(frequencyAnswer, 'What was learnt'),
  }),
  putFrequency: route({
    method: 'put',
    path: '/identify/frequency',
    room: 'bench',
    access: 'appraise',
    summary: 'Learn from sales and decisions, or do not',
    body: z.object({ learns: z.boolean() }),
    answer: answers(
      z.object({
        learns: z.boolean(),
      }),
      'As it is now',
    ),
  }),
  identifyPiece: route({
    method: 'get',
    path: '/pieces/:id/identification',
    room: 'bench',
    access: 'read',
    summary: 'The same answer for a stored piece',
    params: byId,
    answer: answers(identifyAnswerShape, 'As for identify'),
  }),
};
