/** A shop's whole stock, taken in from its own list: looked at, tried, taken in, its pictures dealt, taken back. */
import { STOCK_COLUMNS, STOCK_WORD_COLUMNS, type StockWordColumn } from '@jutbank/core/intake';
import type { WordSaid } from '@jutbank/core/lists';
import { CONSTRUCTIONS } from '@jutbank/core/reference';
import { z } from 'zod';
import { answers, byId, moneyShape, route } from '../http/index.ts';
import { listLook, listMapping, rowError } from '../lists/index.ts';

export const stockMapping = listMapping(STOCK_COLUMNS, STOCK_WORD_COLUMNS);

const stockWordSaid: z.ZodType<WordSaid<StockWordColumn>> = z
  .object({
    column: z.enum(STOCK_WORD_COLUMNS),
    /** as written, the first time it comes up */
    said: z.string(),
    rows: z.number(),
    /** the key under which a mapping keeps what it means */
    key: z.string(),
    guess: z.string().nullable(),
  })
  .meta({ id: 'StockWordSaid' });
export const stockLook = listLook(stockMapping, stockWordSaid).meta({ id: 'StockLook' });
export type StockLook = z.infer<typeof stockLook>;

/** Rows that one list may bring. */
export const MOST_STOCK_ROWS = 5000;

/** A row as the piece it would be, or became. */
const listedPiece = z
  .object({
    line: z.number(),
    /** null: the shop's next one */
    stockNumber: z.string().nullable(),
    title: z.string(),
    construction: z.enum(CONSTRUCTIONS),
    /** as the reference calls it; null where the list names none, or none of ours */
    pattern: z.string().nullable(),
    acquired: z.string().nullable(),
    price: moneyShape.nullable(),
    ask: moneyShape.nullable(),
    place: z.string(),
    pictures: z.number(),
    shopNote: z.string(),
  })
  .meta({ id: 'ListedPiece' });
export type ListedPiece = z.infer<typeof listedPiece>;

export const stockListAnswer = z
  .object({
    /** the list it became; null where it was tried only, or brought nothing */
    id: z.string().nullable(),
    rows: z.number(),
    added: z.number(),
    alreadyKnown: z.number(),
    rejected: z.number(),
    errors: z.array(rowError),
    warnings: z.array(rowError),
    /** the first of what comes in */
    first: z.array(listedPiece),
  })
  .meta({ id: 'StockListAnswer' });
export type StockListAnswer = z.infer<typeof stockListAnswer>;

const stockListSummary = z
  .object({
    id: z.string(),
    name: z.string(),
    person: z.string(),
    at: z.string(),
    /** pieces it brought that are still here */
    pieces: z.number(),
    /** those among them that show no picture */
    bare: z.number(),
  })
  .meta({ id: 'StockListSummary' });
export type StockListSummary = z.infer<typeof stockListSummary>;

const stockListPieces = stockListSummary
  .extend({
    list: z.array(
      z.object({
        id: z.string(),
        stockNumber: z.string(),
        title: z.string(),
        /** names of files that the list says show it */
        pictures: z.array(z.string()),
        /** pictures it shows */
        has: z.number(),
      }),
    ),
  })
  .meta({ id: 'StockListPieces' });
export type StockListPieces = z.infer<typeof stockListPieces>;

const MIB = 1 << 20;
const room = 'intake';
export const stockListRoutes = {
  lookAtStockList: route({
    method: 'post',
    path: '/stock-lists/look',
    room,
    access: 'work',
    summary:
      'How a shop’s list of its stock may be read (multipart part `file`; `mapping` where it was corrected)',
    answer: answers(stockLook, 'Encoding, separator, header, first rows, a mapping'),
    carries: 'upload',
    bodyLimit: 16 * MIB,
  }),
  takeInStockList: route({
    method: 'post',
    path: '/stock-lists',
    room,
    access: 'work',
    summary:
      'Take in the pieces of a list (multipart parts `file` and `mapping`); the good rows all together',
    query: z.object({ check: z.enum(['0', '1']).optional() }),
    answer: answers(stockListAnswer, 'What came in and what did not'),
    carries: 'upload',
    bodyLimit: 16 * MIB,
  }),
  listStockLists: route({
    method: 'get',
    path: '/stock-lists',
    room,
    access: 'read',
    summary: 'Lists that stock came in by, newest first',
    answer: answers(z.object({ items: z.array(stockListSummary) }), 'Lists'),
  }),
  stockList: route({
    method: 'get',
    path: '/stock-lists/:id',
    room,
    access: 'read',
    summary: 'The pieces of a list, and the files that it says show them',
    params: byId,
    answer: answers(stockListPieces, 'The list'),
  }),
  takeBackStockList: route({
    method: 'delete',
    path: '/stock-lists/:id',
    room,
    access: 'appraise',
    summary: 'Take back what a list brought, but for pieces that somebody has worked on since',
    params: byId,
    answer: answers(z.object({ takenBack: z.number(), kept: z.number() }), 'How many went, how many stay'),
  }),
};
