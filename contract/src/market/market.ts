/** Comparables, rates and estimates. */
import { z } from 'zod';
import {
  ALTERATIONS,
  DATE_ORDERS,
  ITEM_STATES,
  PRICE_KINDS,
  VENUE_KINDS,
  WORD_COLUMNS,
  type NameSaid,
  type WordSaid,
} from '@jutbank/core/market';
import type { Money } from '@jutbank/core/money';
import { answers, byId, currency, pageQuery, route, slug, text, ulid, type Page } from '../http/index.ts';

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

const MIB = 1 << 20;
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
  /** the effective date: later sales do not count */
  asOf: z.iso.date(),
  /** only what had been entered by the end of this day counts */
  knownOn: z.iso.date().nullish(),
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
  /** units of the price's currency for one of the base, and the day it is of; null in the base currency */
  rate: { rate: string; date: string } | null;
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
  /** false: no sale near it; the range is a guess by kind and no headline */
  supported: boolean;
  notes: string[];
}

export const COMPARABLE_STATES = ['kept', 'merged', 'set-aside'] as const;
export type ComparableState = (typeof COMPARABLE_STATES)[number];

const comparableFilter = z.object({
  pattern: slug.optional(),
  variant: slug.optional(),
  priceKind: z.enum(PRICE_KINDS).optional(),
  venueKind: z.enum(VENUE_KINDS).optional(),
  currency: currency.optional(),
  state: z.enum(COMPARABLE_STATES).optional(),
  from: z.iso.date().optional(),
  to: z.iso.date().optional(),
  /** words of venue, source or note */
  q: z.string().max(100).optional(),
});
export type ComparableFilter = z.infer<typeof comparableFilter>;

const comparableStates = z.object({
  ids: z.array(ulid).min(1, 'choose at least one').max(500),
  state: z.enum(COMPARABLE_STATES),
  /** the one that stays, when the others are merged into it */
  into: ulid.nullish(),
  reason: text(300).default(''),
});

export const columnMapping = z.object({
  columns: z.record(z.string().max(120), z.enum(COMPARABLE_COLUMNS)),
  dateOrder: z.enum(DATE_ORDERS),
  decimalComma: z.boolean(),
  /** no column says the currency: it is the sign beside the price */
  currencyInPrice: z.boolean().default(false),
  fixed: z.partialRecord(z.enum(COMPARABLE_COLUMNS), z.string().max(200)),
  /** what their names mean: ids by folded name, '' for none of ours */
  names: z
    .object({
      pattern: z.record(z.string().max(400), z.union([slug, z.literal('')])),
      variant: z.record(z.string().max(500), z.union([slug, z.literal('')])),
    })
    .default({ pattern: {}, variant: {} }),
  /** what their words mean: by column one of ours by the word in small letters, '' for none of ours */
  words: z.partialRecord(z.enum(WORD_COLUMNS), z.record(z.string().max(400), z.string().max(60))).default({}),
});
export interface FileLook {
  encoding: string;
  separator: string;
  header: string[];
  /** first rows, cell by cell */
  sample: string[][];
  rows: number;
  mapping: z.infer<typeof columnMapping>;
  /** the mapping is the one with which such a file went in before */
  remembered: boolean;
  /** names of patterns and variants that are not of the reference as they stand, the most frequent first */
  names: NameSaid[];
  /** words with a meaning that are none of ours as they stand, the most frequent first */
  words: WordSaid[];
  /** how dates, decimals and currencies look to be written, by the columns as they are named now */
  notation: Pick<z.infer<typeof columnMapping>, 'dateOrder' | 'decimalComma' | 'currencyInPrice'>;
}
export interface ImportRecord {
  id: string;
  name: string;
  person: string;
  rows: number;
  at: string;
  undoneAt: string | null;
}
export interface SuspectRecord {
  comparable: ComparableRecord;
  /** by how much it is more or less than such a piece brings */
  times: number;
  reason: string;
}

export interface ComparableRecord {
  id: string;
  state: ComparableState;
  stateReason: string | null;
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

/** A rate is units of its currency for one of the base. */
export interface RatesKnown {
  base: string;
  /** currencies that prices are written in, of which no rate is known */
  missing: { currency: string; prices: number }[];
  latest: {
    currency: string;
    date: string;
    rate: string;
    source: string;
    /** how many comparables are priced in it */
    used: number;
    /** the days before, oldest first */
    before: { date: string; rate: string }[];
  }[];
}
export interface RatesStored {
  added: number;
  updated: number;
  unchanged: number;
}

export const marketRoutes = {
  addRates: route({
    method: 'post',
    path: '/exchange-rates',
    room: 'market',
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
    answer: answers<RatesStored>('How many rates were new, changed, the same'),
  }),
  listRates: route({
    method: 'get',
    path: '/exchange-rates',
    room: 'market',
    access: 'read',
    summary: 'The last known rate of each currency, with where it comes from and the days before it',
    answer: answers<RatesKnown>('Rates'),
  }),
  fetchRates: route({
    method: 'post',
    path: '/exchange-rates/fetch',
    room: 'market',
    access: 'work',
    summary: 'Fetch the rates of the days since the last fetch from the source',
    answer: answers<RatesStored & { source: string; from: string; to: string }>('What was fetched'),
  }),
  importRates: route({
    method: 'post',
    path: '/exchange-rates/import',
    room: 'market',
    access: 'work',
    summary: 'Rates from CSV (multipart part `file`): date, currency, rate; or a column per currency',
    query: z.object({ check: z.enum(['0', '1']).optional() }),
    answer: answers<RatesStored & { rows: number; errors: RowError[] }>('What went in and what did not'),
    carries: 'upload',
  }),
  importComparables: route({
    method: 'post',
    path: '/comparables/import',
    room: 'market',
    access: 'work',
    summary: 'Import comparables from CSV (multipart part `file`) or rows',
    query: z.object({ check: z.enum(['0', '1']).optional() }),
    answer: answers<ComparablesImportAnswer | { job: string }>(
      'What went in and what did not; a large list goes in as a task',
    ),
    carries: 'upload',
    bodyLimit: 64 * MIB,
  }),
  addComparable: route({
    method: 'post',
    path: '/comparables',
    room: 'market',
    access: 'work',
    summary: 'One comparable by hand',
    body: comparableRow,
    answer: answers<ComparableRecord>('The comparable'),
    status: 201,
  }),
  listComparables: route({
    method: 'get',
    path: '/comparables',
    room: 'market',
    access: 'read',
    summary: 'Comparables, newest first',
    query: pageQuery.extend(comparableFilter.shape),
    answer: answers<Page<ComparableRecord>>('A page of comparables'),
  }),
  exportComparables: route({
    method: 'get',
    path: '/comparables/export.csv',
    room: 'market',
    access: 'read',
    summary: 'The same list as CSV, safe to open in a spreadsheet',
    query: comparableFilter,
    carries: 'file',
  }),
  lookAtFile: route({
    method: 'post',
    path: '/comparables/look',
    room: 'market',
    access: 'work',
    summary:
      'How somebody’s list of prices may be read (multipart part `file`; `mapping` where it was corrected)',
    answer: answers<FileLook>('Encoding, separator, header, first rows, a mapping'),
    carries: 'upload',
    bodyLimit: 64 * MIB,
  }),
  changeComparables: route({
    method: 'post',
    path: '/comparables/states',
    room: 'market',
    access: 'work',
    summary: 'Set prices aside, merge them into one, or take them back',
    body: comparableStates,
    answer: answers<{ changed: number }>('How many changed'),
  }),
  listImports: route({
    method: 'get',
    path: '/comparables/imports',
    room: 'market',
    access: 'read',
    summary: 'Lists that were imported, newest first',
    answer: answers<{ items: ImportRecord[] }>('Imports'),
  }),
  undoImport: route({
    method: 'post',
    path: '/comparables/imports/:id/undo',
    room: 'market',
    access: 'work',
    summary: 'Set aside everything that an import brought, or take it back',
    params: byId,
    body: z.object({ undone: z.boolean() }),
    answer: answers<{ changed: number }>('How many changed'),
  }),
  suspects: route({
    method: 'get',
    path: '/comparables/suspects',
    room: 'market',
    access: 'read',
    summary: 'Prices that are more likely an error than a price, with the reason',
    answer: answers<{ items: SuspectRecord[] }>('Suspected errors'),
  }),
  estimate: route({
    method: 'post',
    path: '/valuations/estimate',
    room: 'market',
    access: 'read',
    summary: 'What such a piece would bring',
    body: estimateQuestion,
    answer: answers<EstimateAnswer>('Estimate, range, grid'),
  }),
};
