/** What to pay, what to ask, what to do with an offer; the fair; the shop's habits of buying and selling. */
import { z } from 'zod';
import type { Money } from '@jutbank/core/money';
import type { MostToPay, Net } from '@jutbank/core/sale';
import type { AskPoint, Basis, Hazard, OfferAdvice } from '@jutbank/core/value';
import { ALTERATIONS, ITEM_STATES } from '@jutbank/core/value';
import { CONSTRUCTIONS } from '@jutbank/core/reference';
import {
  amount,
  answers,
  byId,
  moneySchema,
  positiveMoney,
  required,
  route,
  slug,
  text,
} from '../http/index.ts';
import { buyingSchema, channelSchema, targetSchema } from './money.ts';

export const CARE = { careful: 0.25, even: 0.5, bold: 0.6 } as const;
export type Care = keyof typeof CARE;
const care = z.enum(['careful', 'even', 'bold']);

export const worthSettings = z.object({
  channels: z
    .array(z.object({ id: slug, name: required(80), channel: channelSchema }))
    .min(1, 'at least one channel')
    .max(12),
  usualChannel: slug,
  buying: buyingSchema,
  target: targetSchema,
  care,
  /** what keeping a piece for a month costs */
  holdingPerMonth: amount.refine((a) => !(Number(a) < 0), 'must not be below 0'),
});
export type WorthSettings = z.infer<typeof worthSettings>;
export const USUAL_SETTINGS: WorthSettings = {
  channels: [
    {
      id: 'quayside',
      name: 'Quayside market',
      channel: { commissionPct: 8, paymentPct: 2.5, paymentFixed: '0.30' },
    },
    { id: 'counter', name: 'Over the counter', channel: {} },
  ],
  usualChannel: 'quayside',
  buying: {},
  target: { marginPct: 30 },
  care: 'even',
  holdingPerMonth: '0.50',
};

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
  question: fairQuestion,
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
}

export const offerBody = z.object({
  amount: moneySchema.refine((m) => Number(m.amount) > 0, { path: ['amount'], error: 'must be above 0' }),
  bidder: text(160).default(''),
});
export const offerDecision = offerBody.extend({
  decision: z.enum(['taken', 'countered', 'refused']),
  counter: positiveMoney.nullish(),
  note: text(500).default(''),
});

export interface OfferAnswer {
  advice: OfferAdvice;
  net: Money;
  waiting: Money;
  counter: Money;
  why: string;
}
export interface OfferRecord {
  id: string;
  bidder: string;
  amount: Money;
  decision: 'taken' | 'countered' | 'refused';
  counter: Money | null;
  advice: OfferAdvice;
  note: string;
  person: string;
  at: string;
}

export interface MoneyOfPiece {
  channel: string;
  /** what each basis of value says, with what it assumes */
  bases: {
    basis: Basis;
    amount: Money;
    definition: string;
    assumptions: string[];
    licensed: boolean;
  }[];
  most: MostToPay;
  care: Care;
  asOf: string;
  /** what is left of the ask */
  net: (Net & { currency: string }) | null;
  breakEven: { ask: Money; net: Money } | null;
  patience: { hazard: Hazard; points: AskPoint[]; best: AskPoint; currency: string };
  /** what knowing which variant it is would be worth, where several are possible */
  knowing: Money | null;
  offers: OfferRecord[];
}

export const decisionRoutes = {
  settings: route({
    method: 'get',
    path: '/worth-settings',
    room: 'sale',
    access: 'read',
    summary: 'Channels, margins, habits of buying',
    answer: answers<{ settings: WorthSettings; version: number }>('The settings'),
  }),
  putSettings: route({
    method: 'put',
    path: '/worth-settings',
    room: 'sale',
    access: 'appraise',
    summary: 'Change channels, margins, habits of buying',
    body: worthSettings,
    answer: answers<{ settings: WorthSettings; version: number }>('The settings'),
  }),
  money: route({
    method: 'get',
    path: '/pieces/:id/money',
    room: 'sale',
    access: 'read',
    summary: 'Bases of value, most to pay, ask against patience, offers',
    params: byId,
    answer: answers<{ money: MoneyOfPiece | null; why: string | null }>('Money at both ends'),
  }),
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
  fairNotes: route({
    method: 'get',
    path: '/fair/notes',
    room: 'sale',
    access: 'read',
    summary: 'Decisions made at fairs, newest first',
    answer: answers<{ items: FairNoteRecord[] }>('Notes'),
  }),
  judgeOffer: route({
    method: 'post',
    path: '/pieces/:id/offers/judge',
    room: 'sale',
    access: 'read',
    summary: 'Take it, counter, or wait?',
    params: byId,
    body: offerBody,
    answer: answers<OfferAnswer>('The advice, and why'),
  }),
  logOffer: route({
    method: 'post',
    path: '/pieces/:id/offers',
    room: 'sale',
    access: 'appraise',
    summary: 'Keep an offer and what was decided; a refused one becomes a comparable of the shop’s own',
    params: byId,
    body: offerDecision,
    answer: answers<OfferRecord>('The offer'),
    status: 201,
  }),
};
