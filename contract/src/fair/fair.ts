/** The fair: a ceiling before the haggling starts, and what was decided at the table. */
import { z } from 'zod';
import type { Money } from '@jutbank/core/money';
import { CONSTRUCTIONS } from '@jutbank/core/reference';
import type { MostToPay } from '@jutbank/core/worth';
import { ALTERATIONS, ITEM_STATES } from '@jutbank/core/market';
import { answers, byId, positiveMoney, required, route, slug, text } from '../http/index.ts';
import { care, type Care } from '../shop/index.ts';

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

export interface FairAnswer {
  estimate: Money;
  low: Money;
  high: Money;
  thin: boolean;
  /** false: no sale near it; the figures are a guess by kind */
  supported: boolean;
  notes: string[];
  care: Care;
  /** what is counted on: the chosen point of what it might bring */
  price: Money;
  most: MostToPay;
  atAsked: { cost: Money; left: Money; marginPct: number | null } | null;
  verdict: 'pay' | 'haggle' | 'leave' | 'no-price';
}

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
export interface FairNoteRecord {
  id: string;
  note: FairNote;
  person: string;
  pieceId: string | null;
  /** hash of its photograph */
  picture: string | null;
}

export const fairRoutes = {
  judgeFair: route({
    method: 'post',
    path: '/fair/judge',
    room: 'sale',
    access: 'read',
    summary: 'What is the most to pay for this, here and now?',
    body: fairQuestion,
    answer: answers<FairAnswer>('Ceiling, margin, why'),
  }),
  addFairNote: route({
    method: 'post',
    path: '/fair/notes',
    room: 'sale',
    access: 'work',
    summary: 'Keep a decision made at a fair; a bought piece is taken in',
    body: fairNote,
    answer: answers<FairNoteRecord>('The note'),
    status: 201,
  }),
  addFairPicture: route({
    method: 'post',
    path: '/fair/notes/:id/picture',
    room: 'sale',
    access: 'work',
    summary: 'The photograph of a note (multipart part `file`); a bought piece gets it too',
    params: byId,
    answer: answers<FairNoteRecord>('The note'),
    carries: 'upload',
  }),
  fairNotes: route({
    method: 'get',
    path: '/fair/notes',
    hides: ['costs', 'margins'],
    room: 'sale',
    access: 'read',
    summary: 'Decisions made at fairs, newest first',
    answer: answers<{ items: FairNoteRecord[] }>('Notes'),
  }),
};
