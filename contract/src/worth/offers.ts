/** Money at both ends of a stored piece: what to pay, what to ask, which check pays, what to do with an offer. */
import { BASES } from '@jutbank/core/worth';
import {
  moneyShape,
  saleTaxShape,
  answers,
  byId,
  moneySchema,
  positiveMoney,
  route,
  text,
} from '../http/index.ts';
import { mostToPayShape, netShape, hazardShape, askPointShape, offerAdviceShape } from './shapes.ts';
import { care } from '../shop/index.ts';
import { MARKETS } from '@jutbank/core/market';
import { EFFORTS } from '@jutbank/core/reference';
import { z } from 'zod';

export const offerBody = z.object({
  amount: moneySchema.refine((m) => Number(m.amount) > 0, { path: ['amount'], error: 'must be above 0' }),
  bidder: text(160).default(''),
});
export const offerDecision = offerBody.extend({
  decision: z.enum(['taken', 'countered', 'refused']),
  counter: positiveMoney.nullish(),
  note: text(500).default(''),
});

export const offerAnswer = z
  .object({
    advice: offerAdviceShape,
    net: moneyShape,
    waiting: moneyShape,
    counter: moneyShape,
    why: z.string(),
  })
  .meta({ id: 'OfferAnswer' });
export type OfferAnswer = z.infer<typeof offerAnswer>;
export const offerRecord = z
  .object({
    id: z.string(),
    bidder: z.string(),
    amount: moneyShape,
    decision: z.enum(['taken', 'countered', 'refused']),
    counter: moneyShape.nullable(),
    advice: offerAdviceShape,
    note: z.string(),
    person: z.string(),
    at: z.string(),
  })
  .meta({ id: 'OfferRecord' });
export type OfferRecord = z.infer<typeof offerRecord>;

export const pieceFinances = z
  .object({
    channel: z.string(),
    /** what each basis of value says, with what it assumes */
    bases: z.array(
      z.object({
        basis: z.enum(BASES),
        amount: moneyShape,
        definition: z.string(),
        assumptions: z.array(z.string()),
        licensed: z.boolean(),
      }),
    ),
    most: mostToPayShape,
    care: care,
    asOf: z.string(),
    /** what is left of the ask: the channel's fees, and the tax that the price holds */
    net: z
      .intersection(
        netShape,
        z.object({
          currency: z.string(),
          tax: z.string(),
          left: z.string(),
        }),
      )
      .nullable(),
    tax: saleTaxShape,
    breakEven: z
      .object({
        ask: moneyShape,
        net: moneyShape,
      })
      .nullable(),
    patience: z.object({
      hazard: hazardShape,
      points: z.array(askPointShape),
      best: askPointShape,
      currency: z.string(),
    }),
    /** the piece as a collectible and to use, where enough sales speak of either; percent: ten points of the index */
    markets: z.array(
      z.object({
        market: z.enum(MARKETS),
        estimate: moneyShape,
        low: moneyShape,
        high: moneyShape,
        sales: z.number(),
        tenPoints: z.number(),
      }),
    ),
    /** where several variants are possible */
    knowing: z
      .object({
        /** what knowing for certain would be worth */
        worth: moneyShape,
        /** still to be bought: somebody may walk away */
        mayLeave: z.boolean(),
        /** the checks that pay, most first */
        checks: z.array(
          z.object({
            ask: z.string(),
            effort: z.enum(EFFORTS),
            worth: moneyShape,
            bits: z.number(),
          }),
        ),
      })
      .nullable(),
    offers: z.array(offerRecord),
  })
  .meta({ id: 'PieceFinances' });
export type PieceFinances = z.infer<typeof pieceFinances>;

export const offerRoutes = {
  money: route({
    method: 'get',
    path: '/pieces/:id/money',
    hides: ['costs', 'floors', 'margins'],
    room: 'worth',
    access: 'read',
    summary: 'Bases of value, most to pay, ask against patience, checks by money, offers',
    params: byId,
    answer: answers(
      z.object({
        money: pieceFinances.nullable(),
        why: z.string().nullable(),
      }),
      'Money at both ends',
    ),
  }),
  judgeOffer: route({
    method: 'post',
    path: '/pieces/:id/offers/judge',
    hides: ['floors', 'margins'],
    room: 'worth',
    access: 'read',
    summary: 'Take it, counter, or wait?',
    params: byId,
    body: offerBody,
    answer: answers(offerAnswer, 'The advice, and why'),
  }),
  logOffer: route({
    method: 'post',
    path: '/pieces/:id/offers',
    room: 'worth',
    access: 'appraise',
    summary: 'Keep an offer and what was decided; a refused one becomes a comparable of the shop’s own',
    params: byId,
    body: offerDecision,
    answer: answers(offerRecord, 'The offer'),
    status: 201,
  }),
};
