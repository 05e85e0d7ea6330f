/** Before and after a sale: reservations, consignments, payments, sending, returns, settlements, registers. */
import { z } from 'zod';
import { amount, answers, byId, positiveMoney, required, route, text, ulid } from '../http/index.ts';
import { ofPiece } from '../pieces/index.ts';
import { saleRecord } from './sale.ts';

const day = z.iso.date('write a day');
const positive = amount.refine((a) => !(Number(a) < 0), 'must not be below 0');

export const reservationBody = z.object({
  name: required(200, 'Who is it kept for?'),
  contact: ulid.nullable().default(null),
  until: day,
  /** paid on it already; counts towards the price */
  deposit: positiveMoney.nullable().default(null),
  way: text(80).default(''),
  paidOn: day.nullable().default(null),
  note: text(500).default(''),
});
export type ReservationBody = z.infer<typeof reservationBody>;

export const consignmentTerms = z.object({
  sharePct: z.number().min(0, 'must not be below 0').max(100, 'at most 100 %'),
  fee: positive.nullable().default(null),
  least: positive.nullable().default(null),
  channelFeesBy: z.enum(['shop', 'owner']).default('shop'),
});
export const consignmentBody = z.object({
  contact: ulid,
  agreedOn: day,
  until: day.nullable().default(null),
  terms: consignmentTerms,
  note: text(500).default(''),
});
export type ConsignmentBody = z.infer<typeof consignmentBody>;

export const giveBackBody = z.object({
  on: day,
  to: required(200, 'To whom does it go back?'),
  because: required(500, 'Why does it go back?'),
  /** what comes back of its price */
  refund: positiveMoney.nullable().default(null),
});
export type GiveBackBody = z.infer<typeof giveBackBody>;

export const paymentBody = z.object({
  /** negative where money was paid back */
  amount: amount.refine((a) => Number(a) !== 0, 'nothing was paid'),
  paidOn: day,
  way: required(80, 'In cash, by transfer, by card?'),
  note: text(300).default(''),
});
export const sentBody = z.object({
  on: day,
  carrier: required(120, 'Who carries it?'),
  tracking: text(120).default(''),
});
export const creditBody = z
  .object({
    /** the piece itself came back; otherwise money alone is given back */
    pieceBack: z.boolean(),
    on: day,
    reason: required(500, 'Why is it given back?'),
    /** box, papers, sheath, packing: in words */
    cameBack: text(500).default(''),
    refund: positive,
    /** of the channel's fees */
    feesBack: positive.default('0'),
  })
  .refine(({ pieceBack, refund }) => pieceBack || Number(refund) > 0, {
    path: ['refund'],
    error: 'How much is given back?',
  });
export type CreditBody = z.infer<typeof creditBody>;
export const settledBody = z.object({ paidOn: day, way: required(80, 'In cash, by transfer?') });

/** A period of the books: whole days, both inside. */
export const registerQuery = z
  .object({ from: day, to: day })
  .refine(({ from, to }) => from <= to, { path: ['to'], error: 'this is before the beginning' });

const ofSale = { room: 'sale', params: byId } as const;
const sale = answers(saleRecord, 'The sale');
export const afterSaleRoutes = {
  reserve: route({
    ...ofPiece('sale'),
    method: 'put',
    path: '/pieces/:id/reservation',
    access: 'work',
    summary: 'Keep it for somebody until a day',
    body: reservationBody,
  }),
  endReservation: route({
    ...ofPiece('sale'),
    method: 'delete',
    path: '/pieces/:id/reservation',
    access: 'work',
    summary: 'Keep it for nobody any more',
  }),
  consign: route({
    ...ofPiece('sale'),
    method: 'put',
    path: '/pieces/:id/consignment',
    access: 'appraise',
    summary: 'It belongs to somebody else and is sold for them',
    body: consignmentBody,
  }),
  endConsignment: route({
    ...ofPiece('sale'),
    method: 'delete',
    path: '/pieces/:id/consignment',
    access: 'appraise',
    summary: 'It is the shop’s own after all',
  }),
  giveBack: route({
    ...ofPiece('sale'),
    method: 'post',
    path: '/pieces/:id/give-back',
    access: 'appraise',
    summary: 'It goes back to whoever it came from: to its owner, or to the seller of its lot',
    body: giveBackBody,
  }),
  takeBack: route({
    ...ofPiece('sale'),
    method: 'delete',
    path: '/pieces/:id/give-back',
    access: 'appraise',
    summary: 'It was not given back after all',
  }),
  pay: route({
    ...ofSale,
    method: 'post',
    path: '/sales/:id/payments',
    access: 'work',
    summary: 'Note a payment',
    body: paymentBody,
    answer: sale,
    status: 201,
  }),
  send: route({
    ...ofSale,
    method: 'put',
    path: '/sales/:id/sent',
    access: 'work',
    summary: 'It was sent',
    body: sentBody,
    answer: sale,
  }),
  carriageLabel: route({
    ...ofSale,
    method: 'post',
    path: '/sales/:id/carriage-label',
    access: 'work',
    summary: 'Order a label of a carrier: it is sent with its tracking number',
    body: z.object({
      carrier: required(120, 'Who carries it?'),
      service: required(120, 'By which service?'),
      on: day,
    }),
    answer: sale,
    status: 201,
  }),
  credit: route({
    ...ofSale,
    method: 'post',
    path: '/sales/:id/credits',
    access: 'appraise',
    summary: 'Take it back, or give part of the price back',
    body: creditBody,
    answer: sale,
    status: 201,
  }),
  settle: route({
    ...ofSale,
    method: 'put',
    path: '/sales/:id/settlement',
    access: 'appraise',
    summary: 'The owner of a consigned piece was paid',
    body: settledBody,
    answer: sale,
  }),
  withdraw: route({
    ...ofSale,
    method: 'put',
    path: '/sales/:id/withdrawal',
    access: 'appraise',
    summary: 'Take the certificate back: its check page says so',
    body: z.object({ because: required(500, 'Why is it withdrawn?') }),
    answer: sale,
  }),
  creditNote: route({
    ...ofSale,
    params: z.object({ id: ulid, credit: ulid }),
    method: 'get',
    path: '/sales/:id/credits/:credit/credit-note.pdf',
    hides: ['buyers'],
    access: 'read',
    summary: 'The credit note for paper',
    carries: 'file',
  }),
  packingSlip: route({
    ...ofSale,
    method: 'get',
    path: '/sales/:id/packing-slip.pdf',
    hides: ['buyers'],
    access: 'read',
    summary: 'What goes into the parcel, for paper',
    carries: 'file',
  }),
  settlement: route({
    ...ofSale,
    method: 'get',
    path: '/sales/:id/settlement.pdf',
    hides: ['costs', 'margins', 'buyers'],
    access: 'read',
    summary: 'What the owner of a consigned piece is paid, for paper',
    carries: 'file',
  }),
  salesRegister: route({
    method: 'get',
    path: '/registers/sales.:format',
    hides: ['costs', 'margins', 'buyers'],
    room: 'sale',
    access: 'read',
    summary: 'Invoices and credit notes of a period, as CSV or for paper',
    params: z.object({ format: z.enum(['csv', 'pdf']) }),
    query: registerQuery,
    carries: 'file',
  }),
  purchaseRegister: route({
    method: 'get',
    path: '/registers/purchases.:format',
    hides: ['costs', 'buyers'],
    room: 'sale',
    access: 'read',
    summary: 'What was bought in a period, of whom, as CSV or for paper',
    params: z.object({ format: z.enum(['csv', 'pdf']) }),
    query: registerQuery,
    carries: 'file',
  }),
};
