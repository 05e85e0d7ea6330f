/** The fair: a ceiling before the haggling starts, and what was decided at the table. */
import { moneyShape, answers, byId, positiveMoney, required, route, slug, text } from '../http/index.ts';
import { codeReadShape, markShape } from '../reference/index.ts';
import { observation } from '../pieces/index.ts';
import { mostToPayShape } from '../worth/index.ts';
import { z } from 'zod';
import { TIERS } from '@jutbank/core/bench';
import { CONSTRUCTIONS } from '@jutbank/core/reference';
import { ALTERATIONS, ITEM_STATES } from '@jutbank/core/market';
import { care } from '../shop/index.ts';

/** What a small screen gathers in two minutes is far below this. */
const MOST_SEEN = 60;

export const fairQuestion = z.object({
  pattern: slug,
  variant: slug.nullish(),
  /** what was seen: without a form named, how likely each form of the pattern is */
  observations: z.array(observation).max(MOST_SEEN).nullish(),
  conditionIndex: z.number().min(0).max(100).nullish(),
  box: z.enum(ITEM_STATES).nullish(),
  papers: z.enum(ITEM_STATES).nullish(),
  sheath: z.enum(ITEM_STATES).nullish(),
  alterations: z.array(z.enum(ALTERATIONS)).max(7).default([]),
  asked: positiveMoney.nullish(),
  care: care.nullish(),
});
export type FairQuestion = z.infer<typeof fairQuestion>;

export const fairAnswer = z
  .object({
    estimate: moneyShape,
    low: moneyShape,
    high: moneyShape,
    thin: z.boolean(),
    /** false: no sale near it; the figures are a guess by kind */
    supported: z.boolean(),
    notes: z.array(z.string()),
    care: care,
    /** what is counted on: the chosen point of what it might bring */
    price: moneyShape,
    most: mostToPayShape,
    atAsked: z
      .object({
        cost: moneyShape,
        left: moneyShape,
        marginPct: z.number().nullable(),
      })
      .nullable(),
    verdict: z.enum(['pay', 'haggle', 'leave', 'no-price']),
  })
  .meta({ id: 'FairAnswer' });
export type FairAnswer = z.infer<typeof fairAnswer>;

export const fairNote = z.object({
  /** made on the phone: sent twice, it is kept once */
  key: z.uuid(),
  notedAt: z.iso.datetime(),
  title: required(160, 'Give it a working name'),
  construction: z.enum(CONSTRUCTIONS),
  /** null: photographed, and to be found out at home */
  question: fairQuestion.nullable(),
  decision: z.enum(['bought', 'left', 'thinking']),
  paid: positiveMoney.nullish(),
  /** what the seller said of it, kept as hearsay */
  note: text(500).default(''),
  /** what was seen at the table: a bought piece has it at its bench */
  observations: z.array(observation).max(MOST_SEEN).default([]),
  /** the most to pay as it was told at the table, null where nothing could be paid */
  ceiling: positiveMoney.nullish(),
  /** when the bag that told it was packed; without one the server told it */
  packedAt: z.iso.datetime().nullish(),
});
export type FairNote = z.infer<typeof fairNote>;
export const fairNoteRecord = z
  .object({
    id: z.string(),
    note: fairNote,
    person: z.string(),
    pieceId: z.string().nullable(),
    /** hash of its photograph */
    picture: z.string().nullable(),
    /** where what was known at the table no longer held when the note came in */
    told: z.array(z.string()),
  })
  .meta({ id: 'FairNoteRecord' });
export type FairNoteRecord = z.infer<typeof fairNoteRecord>;

const fairChoice = z.object({ label: z.string(), make: observation, mark: markShape.exactOptional() });
export const fairSight = z
  .object({
    candidates: z.array(
      z.object({
        variant: z.string(),
        pattern: z.string(),
        patternName: z.string(),
        construction: z.enum(CONSTRUCTIONS),
        name: z.string(),
        maker: z.string(),
        window: z.string().nullable(),
        probability: z.number(),
      }),
    ),
    /** that it is none of the reference's */
    unlisted: z.number(),
    made: z.string().nullable(),
    tier: z.enum(TIERS),
    alerts: z.array(z.string()),
    checks: z.array(
      z.object({
        ask: z.string(),
        choices: z.array(fairChoice),
        /** a date code: read sign by sign instead */
        code: z.object({ id: z.string(), reads: z.array(codeReadShape) }).exactOptional(),
        /** a size: typed in whatever notation the gauge has */
        measure: z
          .object({ feature: z.string(), label: z.string(), unit: z.enum(['mm', 'g', 'deg']) })
          .exactOptional(),
        /** the feature of which something else than its values can be written */
        other: z.string().exactOptional(),
      }),
    ),
    /** all forms of the picked pattern, likeliest first */
    forms: z.array(z.object({ id: z.string(), name: z.string() })),
  })
  .meta({ id: 'FairSight' });
export const lookQuestion = z.object({
  observations: z.array(observation).max(MOST_SEEN),
  pattern: slug.nullish(),
});

export const fairHit = z
  .object({
    kind: z.enum(['pattern', 'variant', 'mark']),
    id: z.string(),
    label: z.string(),
    hint: z.string(),
    /** the pattern of a pattern or of a form */
    pattern: z
      .object({ id: z.string(), name: z.string(), construction: z.enum(CONSTRUCTIONS) })
      .exactOptional(),
    /** what reading these words means for which it is */
    make: observation.exactOptional(),
    mark: markShape.exactOptional(),
  })
  .meta({ id: 'FairHit' });

/** A bag as it is carried: what is in it is the engines' own (core/fair), read there and nowhere else. */
export const fairBag = z
  .looseObject({
    version: z.number(),
    packedAt: z.string(),
    day: z.string(),
    base: z.string(),
    makers: z.array(z.string()),
  })
  .meta({ id: 'FairBag' });
export type FairBagDocument = z.infer<typeof fairBag>;

export const fairRoutes = {
  fairBag: route({
    method: 'get',
    path: '/fair/bag',
    room: 'fair',
    access: 'work',
    summary: 'All that is needed at a fair without a connection, with the market of some makers',
    query: z.object({
      /** ids, comma separated; all where none is named */
      makers: z.string().max(8000).optional(),
    }),
    answer: answers(fairBag, 'The bag'),
  }),
  lookAtFair: route({
    method: 'post',
    path: '/fair/look',
    room: 'fair',
    access: 'read',
    summary: 'Which might it be, when was it made, what to look at next: for a small screen',
    body: lookQuestion,
    answer: answers(fairSight, 'Candidates and checks'),
  }),
  searchAtFair: route({
    method: 'get',
    path: '/fair/search',
    room: 'fair',
    access: 'read',
    summary: 'What these words, this number or this stamp may mean',
    query: z.object({ q: text(80) }),
    answer: answers(z.object({ items: z.array(fairHit) }), 'What was found'),
  }),
  judgeFair: route({
    method: 'post',
    path: '/fair/judge',
    room: 'fair',
    access: 'read',
    summary: 'What is the most to pay for this, here and now?',
    body: fairQuestion,
    answer: answers(fairAnswer, 'Ceiling, margin, why'),
  }),
  addFairNote: route({
    method: 'post',
    path: '/fair/notes',
    room: 'fair',
    access: 'work',
    summary: 'Keep a decision made at a fair; a bought piece is taken in',
    body: fairNote,
    answer: answers(fairNoteRecord, 'The note'),
    status: 201,
  }),
  addFairPicture: route({
    method: 'post',
    path: '/fair/notes/:id/picture',
    room: 'fair',
    access: 'work',
    summary: 'The photograph of a note (multipart part `file`); a bought piece gets it too',
    params: byId,
    answer: answers(fairNoteRecord, 'The note'),
    carries: 'upload',
  }),
  fairNotes: route({
    method: 'get',
    path: '/fair/notes',
    hides: ['costs', 'margins'],
    room: 'fair',
    access: 'read',
    summary: 'Decisions made at fairs, newest first',
    answer: answers(
      z.object({
        items: z.array(fairNoteRecord),
      }),
      'Notes',
    ),
  }),
};
