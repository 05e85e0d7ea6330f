/** Appraisals: what was said of a piece's value on a day, kept for ever, and what would be said with other knowledge. */
import { z } from 'zod';
import type { Money } from '@jutbank/core/money';
import {
  BASES,
  CAUSES,
  type Basis,
  type Cause,
  type Band,
  type HouseCalibration,
  type PointOfValue,
  type RangesHeld,
} from '@jutbank/core/worth';
import type { ValueSettings } from '@jutbank/core/market';
import { amount, answers, byId, currency, required, route, text, ulid } from '../http/index.ts';
import type { EstimateAnswer, EstimateQuestion, EstimateRow } from '../market/index.ts';
import { overrideBody, type WorthOfPiece } from './corrections.ts';
import { ofPiece, pricingBody } from '../pieces/index.ts';

export { BASES, CAUSES, type Basis, type Cause };

export const PURPOSES = ['insurance', 'sale', 'estate', 'division', 'gift', 'loan', 'own-records'] as const;
export type Purpose = (typeof PURPOSES)[number];

/** What was found out about one sale: nothing is known of it until somebody says so. */
export const saleCheck = z.object({
  comparable: ulid,
  seen: z.boolean().default(false),
  confirmedWith: text(160).default(''),
  armsLength: z.enum(['yes', 'no', 'unknown']).default('unknown'),
  lot: z.enum(['single', 'in-a-lot', 'unknown']).default('unknown'),
  /** why a near sale was not used; empty where it was */
  rejected: text(300).default(''),
});
export type SaleCheck = z.infer<typeof saleCheck>;

export const assumption = z.object({
  text: required(500, 'What is assumed?'),
  /** assumed although it may not be so: the value hangs on it */
  extraordinary: z.boolean().default(false),
  /** by how much the value would be another if it were not so, in percent */
  effectPct: z
    .number()
    .gt(-100, 'a value stays above 0')
    .max(1000)
    .nullish()
    .transform((x) => x ?? null),
});
export type Assumption = z.infer<typeof assumption>;

export const appraisalDraftQuery = z.object({
  basis: z.enum(BASES),
  effectiveDate: z.iso.date(),
  currency,
});

/** The state of knowledge that a draft was reckoned from. */
export const knownState = z.object({
  comparables: z.number().int().min(0),
  rates: z.number().int().min(0),
  reference: z.number().int().min(0),
});

export const appraisalBody = appraisalDraftQuery.extend({
  known: knownState,
  purpose: z.enum(PURPOSES),
  intendedUser: required(200, 'Who will use it?'),
  /** what the appraiser has to do with the piece */
  interest: required(300, 'Say what interest you have in the piece, or that you have none'),
  assumptions: z.array(assumption).max(30).default([]),
  limiting: text(2000).default(''),
  checks: z.array(saleCheck).max(60).default([]),
  concluded: amount.refine((a) => Number(a) > 0, 'must be above 0'),
  because: required(600, 'Say why this value'),
  signature: required(160, 'Who signs it?'),
});
export type AppraisalBody = z.infer<typeof appraisalBody>;

type NotAlways = 'houseStretch' | 'houseHold';
/** Records from before ranges went by the house's own sales do not say it. */
type KeptSettings = Omit<ValueSettings, NotAlways> & Partial<Pick<ValueSettings, NotAlways>>;

export interface AppraisedRow extends EstimateRow {
  /** the cells of the sale as they were written down */
  cells: Record<string, string>;
  rateSource: string | null;
  gross: number;
  net: number;
  wide: boolean;
  check: SaleCheck | null;
}

/** Two sales of one variant that differ in one thing only, and what the engine says of that thing. */
export interface PairsShown {
  line: string;
  said: string;
  /** medians, percent */
  middle: number;
  engine: number;
  count: number;
  /** those nearest in time */
  pairs: { more: PairedSale; less: PairedSale; percent: number; engine: number; daysApart: number }[];
}
export interface PairedSale {
  id: string;
  saleDate: string;
  venue: string;
  /** as written down, and all of it in the currency that was asked for */
  price: Money;
  paid: Money;
}
/** A sale of the same pattern that stands in no line of the grid, and why. */
export interface NearSale {
  id: string;
  saleDate: string;
  venue: string;
  price: Money;
  variant: string | null;
  why: string;
}
/** What stands beside a grid: paired sales behind its lines, and near sales that are not in it. */
export interface Grounds {
  pairs: PairsShown[];
  near: NearSale[];
}

/** All that a value rests on, before anybody has concluded. */
export interface AppraisalEvidence {
  basis: Basis;
  definition: string;
  effectiveDate: string;
  question: EstimateQuestion;
  point: PointOfValue;
  figure: Money;
  low: Money;
  high: Money;
  rows: AppraisedRow[];
  rest: EstimateAnswer['rest'];
  methods: EstimateAnswer['methods'];
  byVariant: EstimateAnswer['byVariant'];
  notes: string[];
  supported: boolean;
  thin: boolean;
  /** how prices moved: sales of the last two years in all, and the day of the last sale known */
  market: { lastSale: string | null; soldInTwoYears: number; beyondLastSale: boolean };
  corrections: {
    comparable: string;
    line: string;
    percent: number | null;
    reason: string;
    person: string;
    at: string;
  }[];
  corrected: Money | null;
  engine: { version: string; settings: KeptSettings; middles: Record<string, number> };
  known: z.infer<typeof knownState>;
  rules: number;
  /** records made before grounds were kept have none */
  grounds?: Grounds;
}

export interface AppraisalRecord extends Omit<AppraisalEvidence, 'known'> {
  format: 'jutbank.appraisal/1';
  number: string;
  issuedAt: string;
  shop: string;
  appraiser: string;
  signature: string;
  purpose: Purpose;
  intendedUser: string;
  interest: string;
  assumptions: Assumption[];
  limiting: string;
  concluded: Money;
  because: string;
  piece: {
    id: string;
    stockNumber: string;
    title: string;
    version: number;
    owner: 'the shop' | 'not the shop';
    which: {
      tier: string;
      label: string;
      variants: { variant: string | null; name: string; probability: number }[];
    };
    made: string | null;
    condition: { inspected: boolean; index: number; grade: string; scale: string } | null;
    /** what was looked at and by whom, and what was not */
    scope: { by: string | null; at: string | null; notExamined: string[] };
    statements: string[];
    pictures: { id: string; hash: string; caption: string }[];
  };
  /** the reference is named by a fingerprint: it is kept whole */
  revisions: { comparables: number; rates: number; reference: number; rules: number; referencePrint: string };
}

export interface AppraisalSummary {
  id: string;
  number: string;
  pieceId: string;
  person: string;
  madeAt: string;
  effectiveDate: string;
  concluded: Money;
  purpose: Purpose;
  basis: Basis;
}
export interface KeptAppraisal {
  id: string;
  record: AppraisalRecord;
  fingerprint: string;
  /** the record has the fingerprint it was given, and the ledger holds that */
  intact: boolean;
}

/** One state of knowledge against another, both reckoned anew. */
export interface Recomputed {
  recorded: Money;
  /** from what was known then; the same to the cent, or it is told */
  then: Money;
  agrees: boolean;
  now: Money;
  changes: { cause: Cause; by: Money; told: string }[];
}

/** A piece that was appraised and then sold: what was said, and what it brought, in the currency of the appraisal. */
export interface AppraisedAndSold {
  appraisal: string;
  number: string;
  pieceId: string;
  title: string;
  basis: Basis;
  maker: string;
  year: number;
  appraiser: string;
  low: Money;
  figure: Money;
  high: Money;
  concluded: Money;
  sold: Money;
  soldOn: string;
}
export interface TrackRecord {
  pieces: AppraisedAndSold[];
  ranges: RangesHeld | null;
  by: { group: 'basis' | 'maker' | 'year' | 'appraiser'; name: string; held: RangesHeld }[];
  probabilities: Band[];
  /** by what was asked against the estimate: how many weeks until it sold */
  asks: { from: number; to: number; sold: number; open: number; weeks: number | null }[];
  /** offers that were turned down, and what the piece sold for after; null while it is not sold */
  declined: {
    pieceId: string;
    title: string;
    offer: Money;
    at: string;
    sold: Money | null;
    soldOn: string | null;
  }[];
  /** what ranges are multiplied by since these were heard; null while there are too few */
  house: HouseCalibration | null;
}

export const worthRoutes = {
  putPricing: route({
    ...ofPiece('worth'),
    method: 'put',
    path: '/pieces/:id/pricing',
    access: 'appraise',
    summary: 'What the shop asks for it',
    body: pricingBody,
  }),
  pieceWorth: route({
    method: 'get',
    path: '/pieces/:id/worth',
    room: 'worth',
    access: 'read',
    summary: 'The estimate of a stored piece',
    params: byId,
    answer: answers<WorthOfPiece>('The estimate, or why there is none; what a person corrected'),
  }),
  addOverride: route({
    method: 'post',
    path: '/pieces/:id/overrides',
    room: 'worth',
    access: 'appraise',
    summary: 'Correct one line of the grid, or leave a sale out, with the reason',
    params: byId,
    body: overrideBody,
    answer: answers<WorthOfPiece>('The estimate with all corrections'),
    status: 201,
  }),
  endOverride: route({
    method: 'delete',
    path: '/pieces/:id/overrides/:override',
    room: 'worth',
    access: 'appraise',
    summary: 'Take a correction back; that it was made stays known',
    params: z.object({ id: ulid, override: ulid }),
    answer: answers<WorthOfPiece>('The estimate with the corrections that are left'),
  }),
  trackRecord: route({
    method: 'get',
    path: '/track-record',
    room: 'worth',
    access: 'read',
    summary: 'What the house has said against what came of it, from kept appraisals',
    answer: answers<TrackRecord>('Ranges, probabilities, asks and offers'),
  }),
  grounds: route({
    method: 'get',
    path: '/pieces/:id/worth/grounds',
    room: 'worth',
    access: 'read',
    summary: 'Paired sales behind the lines of a grid, and near sales that are not in it',
    params: byId,
    answer: answers<Grounds>('Pairs by line, near sales with why they are not used'),
  }),
  appraisalDraft: route({
    method: 'post',
    path: '/pieces/:id/appraisals/draft',
    room: 'worth',
    access: 'read',
    summary: 'All that an appraisal would rest on; nothing is kept',
    params: byId,
    body: appraisalDraftQuery,
    answer: answers<AppraisalEvidence>('Rows, lines, methods, figure'),
    status: 200,
  }),
  appraise: route({
    method: 'post',
    path: '/pieces/:id/appraisals',
    room: 'worth',
    access: 'appraise',
    summary: 'Appraise it: a record that is never changed',
    params: byId,
    body: appraisalBody,
    answer: answers<AppraisalSummary>('The appraisal'),
    status: 201,
  }),
  appraisals: route({
    method: 'get',
    path: '/pieces/:id/appraisals',
    room: 'worth',
    access: 'read',
    summary: 'Appraisals of a piece, newest first',
    params: byId,
    answer: answers<{ items: AppraisalSummary[] }>('Appraisals'),
  }),
  appraisal: route({
    method: 'get',
    path: '/appraisals/:id',
    room: 'worth',
    access: 'read',
    summary: 'An appraisal as it was made',
    params: byId,
    answer: answers<KeptAppraisal>('The record, its fingerprint, whether it is whole'),
  }),
  appraisalRecord: route({
    method: 'get',
    path: '/appraisals/:id/record.json',
    room: 'worth',
    access: 'read',
    summary: 'The record, byte for byte as it was hashed',
    params: byId,
    carries: 'file',
  }),
  appraisalPaper: route({
    method: 'get',
    path: '/appraisals/:id/appraisal.pdf',
    room: 'worth',
    access: 'read',
    summary: 'The appraisal for paper',
    params: byId,
    carries: 'file',
  }),
  recompute: route({
    method: 'post',
    path: '/appraisals/:id/recompute',
    room: 'worth',
    access: 'read',
    summary:
      'The same question from what was known then, and from what is known now, with every cause of the difference',
    params: byId,
    answer: answers<Recomputed>('Both figures and what lies between them'),
    status: 200,
  }),
};
