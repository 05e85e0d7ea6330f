/** Comparables, rates and estimates. */
import {
  moneyShape,
  pageShape,
  answers,
  byId,
  currency,
  pageQuery,
  route,
  slug,
  text,
  ulid,
} from '../http/index.ts';
import { listLook, listMapping, rowError } from '../lists/index.ts';
import { wordSaidShape } from './shapes.ts';
import { z } from 'zod';
import { ALTERATIONS, ITEM_STATES, PRICE_KINDS, VENUE_KINDS, WORD_COLUMNS } from '@jutbank/core/market';

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

export const estimateRow = z
  .object({
    id: z.string(),
    saleDate: z.string(),
    venue: z.string(),
    priceKind: z.string(),
    variant: z.string().nullable(),
    paid: moneyShape,
    /** units of the price's currency for one of the base, and the day it is of; null in the base currency */
    rate: z
      .object({
        rate: z.string(),
        date: z.string(),
      })
      .nullable(),
    converted: moneyShape.nullable(),
    adjusted: moneyShape.nullable(),
    weight: z.number(),
    adjustments: z.array(
      z.object({
        name: z.string(),
        percent: z.number(),
      }),
    ),
    excluded: z.string().nullable(),
  })
  .meta({ id: 'EstimateRow' });
export type EstimateRow = z.infer<typeof estimateRow>;
export const estimateAnswer = z
  .object({
    estimate: moneyShape,
    low: moneyShape,
    high: moneyShape,
    level: z.number(),
    byVariant: z.array(
      z.object({
        variant: z.string().nullable(),
        probability: z.number(),
        estimate: moneyShape,
        low: moneyShape,
        high: moneyShape,
        effectiveComparables: z.number(),
        predictive: z.object({
          kind: z.literal('log-student-t'),
          location: z.number(),
          scale: z.number(),
          df: z.number(),
        }),
      }),
    ),
    comparables: z.array(estimateRow),
    rest: z.object({
      weight: z.number(),
      adjusted: moneyShape,
      count: z.number(),
    }),
    methods: z.array(
      z.object({
        name: z.string(),
        estimate: moneyShape,
      }),
    ),
    thin: z.boolean(),
    /** false: no sale near it; the range is a guess by kind and no headline */
    supported: z.boolean(),
    notes: z.array(z.string()),
  })
  .meta({ id: 'EstimateAnswer' });
export type EstimateAnswer = z.infer<typeof estimateAnswer>;

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

export const columnMapping = listMapping(COMPARABLE_COLUMNS, WORD_COLUMNS);
export const fileLook = listLook(columnMapping, wordSaidShape).meta({ id: 'FileLook' });
export type FileLook = z.infer<typeof fileLook>;
export const importRecord = z
  .object({
    id: z.string(),
    name: z.string(),
    person: z.string(),
    rows: z.number(),
    at: z.string(),
    undoneAt: z.string().nullable(),
  })
  .meta({ id: 'ImportRecord' });
export type ImportRecord = z.infer<typeof importRecord>;

export const comparableRecord = z
  .object({
    id: z.string(),
    state: z.enum(COMPARABLE_STATES),
    stateReason: z.string().nullable(),
    cells: z.record(z.string(), z.string()),
    saleDate: z.string(),
    price: moneyShape,
    priceKind: z.string(),
    venueKind: z.string(),
    pattern: z.string(),
    variant: z.string().nullable(),
    variantName: z.string().nullable(),
    conditionIndex: z.number().nullable(),
  })
  .meta({ id: 'ComparableRecord' });
export const suspectRecord = z
  .object({
    comparable: comparableRecord,
    /** by how much it is more or less than such a piece brings */
    times: z.number(),
    reason: z.string(),
  })
  .meta({ id: 'SuspectRecord' });
export type SuspectRecord = z.infer<typeof suspectRecord>;
export type ComparableRecord = z.infer<typeof comparableRecord>;
export const comparablesImportAnswer = z
  .object({
    rows: z.number(),
    added: z.number(),
    alreadyKnown: z.number(),
    rejected: z.number(),
    errors: z.array(rowError),
    warnings: z.array(rowError),
  })
  .meta({ id: 'ComparablesImportAnswer' });
export type ComparablesImportAnswer = z.infer<typeof comparablesImportAnswer>;

/** A rate is units of its currency for one of the base. */
export const ratesKnown = z
  .object({
    base: z.string(),
    /** currencies that prices are written in, of which no rate is known */
    missing: z.array(
      z.object({
        currency: z.string(),
        prices: z.number(),
      }),
    ),
    latest: z.array(
      z.object({
        currency: z.string(),
        date: z.string(),
        rate: z.string(),
        source: z.string(),
        /** how many comparables are priced in it */
        used: z.number(),
        /** the days before, oldest first */
        before: z.array(
          z.object({
            date: z.string(),
            rate: z.string(),
          }),
        ),
      }),
    ),
  })
  .meta({ id: 'RatesKnown' });
export type RatesKnown = z.infer<typeof ratesKnown>;
export const ratesStored = z
  .object({
    added: z.number(),
    updated: z.number(),
    unchanged: z.number(),
  })
  .meta({ id: 'RatesStored' });
export type RatesStored = z.infer<typeof ratesStored>;

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
    answer: answers(ratesStored, 'How many rates were new, changed, the same'),
  }),
  listRates: route({
    method: 'get',
    path: '/exchange-rates',
    room: 'market',
    access: 'read',
    summary: 'The last known rate of each currency, with where it comes from and the days before it',
    answer: answers(ratesKnown, 'Rates'),
  }),
  fetchRates: route({
    method: 'post',
    path: '/exchange-rates/fetch',
    room: 'market',
    access: 'work',
    summary: 'Fetch the rates of the days since the last fetch from the source',
    answer: answers(
      z.intersection(
        ratesStored,
        z.object({
          source: z.string(),
          from: z.string(),
          to: z.string(),
        }),
      ),
      'What was fetched',
    ),
  }),
  importRates: route({
    method: 'post',
    path: '/exchange-rates/import',
    room: 'market',
    access: 'work',
    summary: 'Rates from CSV (multipart part `file`): date, currency, rate; or a column per currency',
    query: z.object({ check: z.enum(['0', '1']).optional() }),
    answer: answers(
      z.intersection(
        ratesStored,
        z.object({
          rows: z.number(),
          errors: z.array(rowError),
        }),
      ),
      'What went in and what did not',
    ),
    carries: 'upload',
  }),
  importComparables: route({
    method: 'post',
    path: '/comparables/import',
    room: 'market',
    access: 'work',
    summary: 'Import comparables from CSV (multipart part `file`) or rows',
    query: z.object({ check: z.enum(['0', '1']).optional() }),
    answer: answers(
      z.union([
        comparablesImportAnswer,
        z.object({
          job: z.string(),
        }),
      ]),
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
    answer: answers(comparableRecord, 'The comparable'),
    status: 201,
  }),
  listComparables: route({
    method: 'get',
    path: '/comparables',
    room: 'market',
    access: 'read',
    summary: 'Comparables, newest first',
    query: pageQuery.extend(comparableFilter.shape),
    answer: answers(pageShape(comparableRecord), 'A page of comparables'),
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
    answer: answers(fileLook, 'Encoding, separator, header, first rows, a mapping'),
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
    answer: answers(
      z.object({
        changed: z.number(),
      }),
      'How many changed',
    ),
  }),
  listImports: route({
    method: 'get',
    path: '/comparables/imports',
    room: 'market',
    access: 'read',
    summary: 'Lists that were imported, newest first',
    answer: answers(
      z.object({
        items: z.array(importRecord),
      }),
      'Imports',
    ),
  }),
  undoImport: route({
    method: 'post',
    path: '/comparables/imports/:id/undo',
    room: 'market',
    access: 'work',
    summary: 'Set aside everything that an import brought, or take it back',
    params: byId,
    body: z.object({ undone: z.boolean() }),
    answer: answers(
      z.object({
        changed: z.number(),
      }),
      'How many changed',
    ),
  }),
  suspects: route({
    method: 'get',
    path: '/comparables/suspects',
    room: 'market',
    access: 'read',
    summary: 'Prices that are more likely an error than a price, with the reason',
    answer: answers(
      z.object({
        items: z.array(suspectRecord),
      }),
      'Suspected errors',
    ),
  }),
  estimate: route({
    method: 'post',
    path: '/valuations/estimate',
    room: 'market',
    access: 'read',
    summary: 'What such a piece would bring',
    body: estimateQuestion,
    answer: answers(estimateAnswer, 'Estimate, range, grid'),
  }),
};
