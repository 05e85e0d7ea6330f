/** Money at both ends of a stored piece: what to pay, what to ask, which check pays, what to do with an offer. */
import { z } from 'zod';
import type { Effort } from '@jutbank/core/reference';
import type { Money, SaleTax } from '@jutbank/core/money';
import type { MostToPay, Net, AskPoint, Basis, Hazard, OfferAdvice } from '@jutbank/core/worth';
import type { MarketName } from '@jutbank/core/market';
import { answers, byId, moneySchema, positiveMoney, route, text } from '../http/index.ts';
import type { Care } from '../shop/index.ts';

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

export interface PieceFinances {
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
  /** what is left of the ask: the channel's fees, and the tax that the price holds */
  net: (Net & { currency: string; tax: string; left: string }) | null;
  tax: SaleTax;
  breakEven: { ask: Money; net: Money } | null;
  patience: { hazard: Hazard; points: AskPoint[]; best: AskPoint; currency: string };
  /** the piece as a collectible and to use, where enough sales speak of either; percent: ten points of the index */
  markets: {
    market: MarketName;
    estimate: Money;
    low: Money;
    high: Money;
    sales: number;
    tenPoints: number;
  }[];
  /** where several variants are possible */
  knowing: {
    /** what knowing for certain would be worth */
    worth: Money;
    /** still to be bought: somebody may walk away */
    mayLeave: boolean;
    /** the checks that pay, most first */
    checks: { ask: string; effort: Effort; worth: Money; bits: number }[];
  } | null;
  offers: OfferRecord[];
}

export const offerRoutes = {
  money: route({
    method: 'get',
    path: '/pieces/:id/money',
    hides: ['costs', 'floors', 'margins'],
    room: 'sale',
    access: 'read',
    summary: 'Bases of value, most to pay, ask against patience, checks by money, offers',
    params: byId,
    answer: answers<{ money: PieceFinances | null; why: string | null }>('Money at both ends'),
  }),
  judgeOffer: route({
    method: 'post',
    path: '/pieces/:id/offers/judge',
    hides: ['floors', 'margins'],
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
