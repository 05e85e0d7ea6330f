/** Lots: one price for many pieces, documented whole, its recovery followed. */
import { STAGES, SOURCE_OF_PIECE } from '@jutbank/core/pieces';
import {
  moneyShape,
  amount,
  answers,
  byId,
  currency,
  edtf,
  required,
  route,
  text,
  ulid,
} from '../http/index.ts';
import { AS_FOUND } from '../pieces/index.ts';
import { allocationShape } from './shapes.ts';
import { z } from 'zod';
import { ALLOCATION_METHODS } from '@jutbank/core/intake';
import { CONSTRUCTIONS } from '@jutbank/core/reference';

const MOST_PIECES = 500;
const notNegative = amount.refine((a) => !(Number(a) < 0), 'must not be below 0');

export const lotBody = z.object({
  name: required(160, 'Give the lot a name'),
  sourceKind: z.enum(SOURCE_OF_PIECE).nullable().default(null),
  sourceName: text(160).default(''),
  acquired: edtf.nullable().default(null),
  currency,
  method: z.enum(ALLOCATION_METHODS).default('relative-value'),
  costs: z
    .array(z.object({ label: required(80, 'What was it for?'), amount }))
    .max(40)
    .default([]),
  note: text(2000).default(''),
});
export type LotBody = z.infer<typeof lotBody>;

/** Pieces that one request takes into a lot. */
export const MOST_AT_ONCE = 100;
export const lotPiecesBody = z.object({
  /** the state all of them came in */
  asFound: z.enum(AS_FOUND).nullable().default(null),
  pieces: z
    .array(
      z.object({
        title: required(160, 'Give it a working name'),
        construction: z.enum(CONSTRUCTIONS),
        value: notNegative.nullable().default(null),
        keep: z.boolean().default(false),
      }),
    )
    .min(1)
    .max(MOST_AT_ONCE),
});
export type LotPiecesBody = z.infer<typeof lotPiecesBody>;

export const lotSharesBody = z.object({
  pieces: z
    .array(
      z.object({
        id: ulid,
        value: notNegative.nullable(),
        share: amount.nullable(),
        keep: z.boolean(),
      }),
    )
    .max(MOST_PIECES),
});
export type LotSharesBody = z.infer<typeof lotSharesBody>;

export const lotPiece = z
  .object({
    id: z.string(),
    stockNumber: z.string(),
    title: z.string(),
    stage: z.enum(STAGES),
    /** what it is worth among the others; the estimate where nobody said */
    value: z.string().nullable(),
    valueSaid: z.boolean(),
    share: z.string().nullable(),
    cost: z.string(),
    keep: z.boolean(),
    pictures: z.number(),
    /** what its sale left, in the lot's currency */
    net: z.string().nullable(),
    soldOn: z.string().nullable(),
  })
  .meta({ id: 'LotPiece' });
export type LotPiece = z.infer<typeof lotPiece>;
export const lotSummary = z
  .object({
    id: z.string(),
    version: z.number(),
    name: z.string(),
    currency: z.string(),
    cost: z.string(),
    pieces: z.number(),
    sold: z.number(),
    kept: z.number(),
    recovered: z.string(),
    /** share of the cost that has come back; null where it cost nothing */
    share: z.number().nullable(),
    brokeEvenOn: z.string().nullable(),
  })
  .meta({ id: 'LotSummary' });
export type LotSummary = z.infer<typeof lotSummary>;

export const lotSheet = lotSummary
  .extend({
    lot: lotBody,
    list: z.array(lotPiece),
    /** net proceeds added up, day by day */
    recovery: z.array(
      z.object({
        day: z.string(),
        net: z.string(),
      }),
    ),
    stillWorth: moneyShape.nullable(),
  })
  .meta({ id: 'LotSheet' });
export type LotSheet = z.infer<typeof lotSheet>;
const lot = { room: 'intake', params: byId, answer: answers(lotSheet, 'The lot') } as const;
export const lotRoutes = {
  allocation: route({
    method: 'post',
    path: '/lots/allocation',
    room: 'intake',
    access: 'read',
    summary: 'Spread costs over pieces, exactly',
    body: z.object({
      currency,
      method: z.enum(ALLOCATION_METHODS),
      costs: z.array(amount).max(1000),
      pieces: z.array(z.object({ value: amount, share: amount.nullish() })).max(10_000),
    }),
    answer: answers(allocationShape, 'The total and each piece’s share'),
  }),
  listLots: route({
    method: 'get',
    path: '/lots',
    hides: ['costs'],
    room: 'intake',
    access: 'read',
    summary: 'Lots, newest first, with what has come back',
    answer: answers(
      z.object({
        items: z.array(lotSummary),
      }),
      'Lots',
    ),
  }),
  create: route({
    ...lot,
    method: 'post',
    path: '/lots',
    params: z.object({}),
    access: 'work',
    summary: 'A new lot',
    body: lotBody,
    status: 201,
  }),
  lot: route({
    ...lot,
    method: 'get',
    path: '/lots/:id',
    hides: ['costs'],
    access: 'read',
    summary: 'One lot with its pieces',
  }),
  put: route({
    ...lot,
    method: 'put',
    path: '/lots/:id',
    access: 'work',
    summary: 'Change a lot; its cost is spread anew',
    body: lotBody,
  }),
  addPieces: route({
    ...lot,
    method: 'post',
    path: '/lots/:id/pieces',
    access: 'work',
    summary: 'Take in pieces of a lot in a run',
    body: lotPiecesBody,
    status: 201,
  }),
  putShares: route({
    ...lot,
    method: 'put',
    path: '/lots/:id/pieces',
    access: 'work',
    summary: 'Values, fixed shares, keep or sell; the cost is spread anew',
    body: lotSharesBody,
  }),
  takeOut: route({
    ...lot,
    method: 'delete',
    path: '/lots/:id/pieces/:piece',
    params: z.object({ id: ulid, piece: ulid }),
    access: 'work',
    summary:
      'A piece that does not belong to the lot after all; its cost is then not known, the others’ is spread anew',
  }),
  paper: route({
    method: 'get',
    path: '/lots/:id/sheet.pdf',
    hides: ['costs'],
    room: 'intake',
    access: 'read',
    summary: 'The lot documented whole, for printing',
    params: byId,
    carries: 'file',
  }),
};
