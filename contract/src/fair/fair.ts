/** The fair: a ceiling before the haggling starts, and what was decided at the table. */
import { moneyShape, answers, byId, positiveMoney, required, route, slug, text } from '../http/index.ts';
import { mostToPayShape } from '../worth/index.ts';
import { z } from 'zod';
import { CONSTRUCTIONS } from '@jutbank/core/reference';
import { ALTERATIONS, ITEM_STATES } from '@jutbank/core/market';
import { care } from '../shop/index.ts';

export const fairQuestion = z.object({
  pattern: slug,
  variant: slug.nullish(),
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
  note: text(500).default(''),
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
  })
  .meta({ id: 'FairNoteRecord' });
export type FairNoteRecord = z.infer<typeof fairNoteRecord>;

export const fairRoutes = {
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
