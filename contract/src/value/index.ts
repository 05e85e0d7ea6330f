/** Comparables, rates and estimates. */
import { z } from 'zod';
import { ALTERATIONS, ITEM_STATES, PRICE_KINDS, VENUE_KINDS } from '@jutbank/core/value';
import type { Money } from '@jutbank/core/money';
import { answers, byId, currency, pageQuery, route, slug, type Page } from '../http/index.ts';

/** The columns of the CSV, in the order in which Jutbank writes them. */
export const COMPARABLE_COLUMNS = [
  'sale_date',
  'price',
  'currency',
  'price_kind',
  'venue',
  'venue_kind',
  'pattern',
  'variant',
  'condition_index',
  'grade_scale',
  'grade',
  'box',
  'papers',
  'sheath',
  'alterations',
  'buyer_premium_pct',
  'shipping_included',
  'source',
  'note',
] as const;
export type ComparableColumn = (typeof COMPARABLE_COLUMNS)[number];
export const REQUIRED_COLUMNS = [
  'sale_date',
  'price',
  'currency',
  'price_kind',
  'venue_kind',
  'pattern',
] as const;

const cell = z.union([z.string().max(8192), z.number(), z.null()]);
export const comparableRow = z.record(z.string().max(120), cell);

export const estimateQuestion = z.object({
  subject: z.object({
    pattern: slug,
    variants: z
      .array(z.object({ variant: slug, probability: z.number().min(0).max(1) }))
      .max(200)
      .refine(
        (list) => list.reduce((sum, v) => sum + v.probability, 0) <= 1 + 1e-9,
        'the probabilities add up to more than 1',
      ),
    conditionIndex: z.number().min(0).max(100).nullish(),
    box: z.enum(ITEM_STATES).nullish(),
    papers: z.enum(ITEM_STATES).nullish(),
    sheath: z.enum(ITEM_STATES).nullish(),
    alterations: z.array(z.enum(ALTERATIONS)).nullish(),
  }),
  asOf: z.iso.date(),
  currency,
  venueKind: z.enum(VENUE_KINDS),
});
export type EstimateQuestion = z.infer<typeof estimateQuestion>;

export interface EstimateRow {
  id: string;
  saleDate: string;
  venue: string;
  priceKind: string;
  variant: string | null;
  paid: Money;
  converted: Money | null;
  adjusted: Money | null;
  weight: number;
  adjustments: { name: string; percent: number }[];
  excluded: string | null;
}
export interface EstimateAnswer {
  estimate: Money;
  low: Money;
  high: Money;
  level: number;
  byVariant: {
    variant: string | null;
    probability: number;
    estimate: Money;
    low: Money;
    high: Money;
    effectiveComparables: number;
    predictive: { kind: 'log-student-t'; location: number; scale: number; df: number };
  }[];
  comparables: EstimateRow[];
  rest: { weight: number; adjusted: Money; count: number };
  methods: { name: string; estimate: Money }[];
  thin: boolean;
  notes: string[];
}

export interface ComparableRecord {
  id: string;
  cells: Record<string, string>;
  saleDate: string;
  price: Money;
  priceKind: string;
  venueKind: string;
  pattern: string;
  variant: string | null;
  variantName: string | null;
  conditionIndex: number | null;
}
export interface RowError {
  line: number;
  column: string | null;
  columnNumber: number | null;
  value: string;
  message: string;
}
export interface ComparablesImportAnswer {
  rows: number;
  added: number;
  alreadyKnown: number;
  rejected: number;
  errors: RowError[];
  warnings: RowError[];
}
export interface JobAnswer {
  id: string;
  state: 'queued' | 'running' | 'done' | 'failed' | 'cancelled';
  progress: number;
  result: unknown;
}

const MIB = 1 << 20;
export const valueRoutes = {
  addRates: route({
    method: 'post',
    path: '/exchange-rates',
    room: 'value',
    access: 'work',
    summary: 'Store daily exchange rates',
    bodyLimit: 4 * MIB,
    body: z.object({
      base: currency,
      rates: z
        .array(
          z.object({
            date: z.iso.date(),
            currency,
            rate: z
              .string()
              .regex(/^\d{1,12}(\.\d{1,12})?$/, 'a positive decimal number')
              .refine((r) => Number(r) > 0, 'must be above 0'),
          }),
        )
        .max(20_000),
    }),
    answer: answers<{ added: number; updated: number; unchanged: number }>(
      'How many rates were new, changed, the same',
    ),
  }),
  listRates: route({
    method: 'get',
    path: '/exchange-rates',
    room: 'value',
    access: 'read',
    summary: 'The last known rate of each currency',
    answer: answers<{ base: string; latest: { currency: string; date: string; rate: string }[] }>('Rates'),
  }),
  importComparables: route({
    method: 'post',
    path: '/comparables/import',
    room: 'value',
    access: 'work',
    summary: 'Import comparables from CSV (multipart part `file`) or rows',
    query: z.object({ check: z.enum(['0', '1']).optional() }),
    answer: answers<ComparablesImportAnswer>('What went in and what did not'),
    carries: 'upload',
    bodyLimit: 64 * MIB,
  }),
  addComparable: route({
    method: 'post',
    path: '/comparables',
    room: 'value',
    access: 'work',
    summary: 'One comparable by hand',
    body: comparableRow,
    answer: answers<ComparableRecord>('The comparable'),
    status: 201,
  }),
  listComparables: route({
    method: 'get',
    path: '/comparables',
    room: 'value',
    access: 'read',
    summary: 'Comparables, newest first',
    query: pageQuery.extend({
      pattern: slug.optional(),
      variant: slug.optional(),
      priceKind: z.enum(PRICE_KINDS).optional(),
    }),
    answer: answers<Page<ComparableRecord>>('A page of comparables'),
  }),
  estimate: route({
    method: 'post',
    path: '/valuations/estimate',
    room: 'value',
    access: 'read',
    summary: 'What such a piece would bring',
    body: estimateQuestion,
    answer: answers<EstimateAnswer>('Estimate, range, grid'),
  }),
  pieceWorth: route({
    method: 'get',
    path: '/pieces/:id/worth',
    room: 'value',
    access: 'read',
    summary: 'The estimate of a stored piece',
    params: byId,
    answer: answers<{ worth: EstimateAnswer | null; pattern: string | null; why: string | null }>(
      'The estimate, or why there is none',
    ),
  }),
  job: route({
    method: 'get',
    path: '/jobs/:id',
    room: 'value',
    access: 'read',
    summary: 'How far a long task is',
    params: byId,
    answer: answers<JobAnswer>('State and progress'),
  }),
  cancelJob: route({
    method: 'delete',
    path: '/jobs/:id',
    room: 'value',
    access: 'work',
    summary: 'Cancel a long task',
    params: byId,
    answer: answers<JobAnswer>('State and progress'),
  }),
};
