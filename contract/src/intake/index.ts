/** Pieces: intake, pictures, the tray and the sheet. */
import { z } from 'zod';
import type { MakingClash, Observation, Tier } from '@jutbank/core/bench';
import { CONSTRUCTIONS, type Construction } from '@jutbank/core/reference';
import type { GradeAnswer } from '@jutbank/core/condition';
import type { Stage } from '@jutbank/core/intake';
import type { Money } from '@jutbank/core/money';
import type { CustodyEvent, Trail } from '@jutbank/core/provenance';
import {
  attributionBody,
  narrowing,
  observationsBody,
  type NarrowingBody,
  type StoredAttribution,
} from '../bench/index.ts';
import { conditionBody, quotedBody, type ConditionBody, type QuotedScale } from '../condition/index.ts';
import {
  answers,
  byId,
  edtf,
  moneySchema,
  pageQuery,
  positiveMoney,
  required,
  route,
  text,
  ulid,
  type Page,
} from '../http/index.ts';
import { custodyBody } from '../provenance/index.ts';
import { SOURCE_OF_PIECE } from './source.ts';
import type { ListingRecord } from '../listing/index.ts';

export * from './lots.ts';
export * from './source.ts';

export const AS_FOUND = [
  'untouched',
  'preserved-in-grease',
  'filthy',
  'cleaned',
  'polished',
  'sealed',
] as const;

export const intakeBody = z.object({
  title: required(160, 'Give it a working name'),
  construction: z.enum(CONSTRUCTIONS),
  sourceKind: z.enum(SOURCE_OF_PIECE).nullable(),
  sourceName: text(160).default(''),
  sourcePlace: text(160).default(''),
  acquired: edtf.nullable(),
  price: positiveMoney.nullable(),
  sellerStatement: text(4000).default(''),
  cameWith: text(2000).default(''),
  asFound: z.enum(AS_FOUND).nullable(),
});
export type IntakeBody = z.infer<typeof intakeBody>;
export const emptyIntake: IntakeBody = {
  title: '',
  construction: 'slipjoint',
  sourceKind: null,
  sourceName: '',
  sourcePlace: '',
  acquired: null,
  price: null,
  sellerStatement: '',
  cameWith: '',
  asFound: null,
};

export interface PictureRecord {
  id: string;
  hash: string;
  caption: string;
  width: number;
  height: number;
}

export interface Readings {
  which: { tier: Tier; label: string; probability: number | null; decided: boolean };
  when: { core: string; outer: string; conflict: boolean } | null;
  condition: { inspected: boolean; index: number; scale: string; grade: string; note: string } | null;
  /** null where no pattern is known, or no sale near it (`unsupported`) */
  worth: { estimate: Money; low: Money; high: Money; thin: boolean; comparables: number } | null;
  unsupported?: boolean;
  /** its market could not be reckoned just now: the fault is noted, and it is tried again */
  marketAway?: boolean;
  trail: { word: Trail['word']; share: number; problems: number };
}

export interface PieceSlip {
  id: string;
  stockNumber: string;
  title: string;
  construction: Construction;
  stage: Stage;
  missing: string;
  attention: string[];
  picture: string | null;
  cost: Money | null;
  ask: Money | null;
  readings: Readings;
}

export interface PieceSheet extends PieceSlip {
  version: number;
  createdAt: string;
  intake: IntakeBody;
  pictures: PictureRecord[];
  observations: Observation[];
  attribution: StoredAttribution | null;
  /** one date for every page and paper, and who says it */
  date: {
    core: string;
    outer: string;
    by: 'decision' | 'form' | 'bracket' | 'both' | 'years';
    reason: string | null;
    clash: MakingClash | null;
  } | null;
  /** decided against evidence that speaks for an imitation */
  overruled: boolean;
  /** in its package, and nobody opened it */
  sealed: boolean;
  narrowing: NarrowingBody;
  condition: ConditionBody;
  grade: GradeAnswer;
  /** in years, as the grade takes it; null where it is not dated on both sides */
  age: number | null;
  /** the scale it is quoted on, and why where that was chosen */
  quotedScale: QuotedScale['scale'];
  quoted: QuotedScale | null;
  custody: CustodyEvent[];
  trail: Trail;
  pricing: PricingBody;
  listing: ListingRecord | null;
  sale: { id: string; invoiceNumber: string; certificateCode: string } | null;
}

export const pricingBody = z.object({
  ask: positiveMoney.nullable(),
  floor: moneySchema.nullable(),
  note: text(1000).default(''),
});
export type PricingBody = z.infer<typeof pricingBody>;

export interface Tray {
  groups: { stage: Stage; count: number; bound: Money; slips: PieceSlip[] }[];
  attention: PieceSlip[];
  bound: Money;
  asking: Money;
}

const sheet = answers<PieceSheet>('The piece sheet');
const piece = { room: 'intake', params: byId, answer: sheet } as const;
export const intakeRoutes = {
  tray: route({
    method: 'get',
    path: '/tray',
    room: 'intake',
    access: 'read',
    summary: 'What is in work, grouped by where it stands',
    answer: answers<Tray>('The tray'),
  }),
  listPieces: route({
    method: 'get',
    path: '/pieces',
    room: 'intake',
    access: 'read',
    summary: 'Pieces, newest first',
    query: pageQuery.extend({ stage: z.string().max(20).optional(), q: z.string().max(100).optional() }),
    answer: answers<Page<PieceSlip>>('A page of slips'),
  }),
  createPiece: route({
    ...piece,
    method: 'post',
    path: '/pieces',
    params: z.object({}),
    access: 'work',
    summary: 'Take in a piece',
    body: intakeBody,
    status: 201,
  }),
  piece: route({
    ...piece,
    method: 'get',
    path: '/pieces/:id',
    access: 'read',
    summary: 'One piece with its readings',
  }),
  putIntake: route({
    ...piece,
    method: 'put',
    path: '/pieces/:id/intake',
    access: 'work',
    summary: 'Change what was recorded at intake',
    body: intakeBody,
  }),
  putObservations: route({
    ...piece,
    method: 'put',
    path: '/pieces/:id/observations',
    access: 'work',
    summary: 'What was seen at the bench',
    body: observationsBody,
  }),
  putNarrowing: route({
    ...piece,
    method: 'put',
    path: '/pieces/:id/narrowing',
    access: 'work',
    summary: 'What a person knows at once: makers and patterns to look among',
    body: narrowing,
  }),
  putAttribution: route({
    ...piece,
    method: 'put',
    path: '/pieces/:id/attribution',
    access: 'appraise',
    summary: 'Decide what it is',
    body: z.object({ attribution: attributionBody.nullable() }),
  }),
  putQuoted: route({
    ...piece,
    method: 'put',
    path: '/pieces/:id/quoted-scale',
    access: 'appraise',
    summary: 'The school it is quoted in, with the reason; null for the usual one',
    body: quotedBody,
  }),
  putCondition: route({
    ...piece,
    method: 'put',
    path: '/pieces/:id/condition',
    access: 'work',
    summary: 'Findings and completeness',
    body: conditionBody,
  }),
  putCustody: route({
    ...piece,
    method: 'put',
    path: '/pieces/:id/custody',
    access: 'work',
    summary: 'Who had it when',
    body: custodyBody,
  }),
  putPricing: route({
    ...piece,
    method: 'put',
    path: '/pieces/:id/pricing',
    access: 'appraise',
    summary: 'What the shop asks for it',
    body: pricingBody,
  }),
  addPicture: route({
    ...piece,
    method: 'post',
    path: '/pieces/:id/pictures',
    access: 'work',
    summary: 'Add a picture (multipart part `file`, field `caption`)',
    carries: 'upload',
    status: 201,
  }),
  removePicture: route({
    ...piece,
    method: 'delete',
    path: '/pieces/:id/pictures/:picture',
    params: z.object({ id: ulid, picture: ulid }),
    access: 'work',
    summary: 'Take a picture away',
  }),
  picture: route({
    method: 'get',
    path: '/pictures/:hash/:size',
    room: 'intake',
    access: 'read',
    summary: 'A stored picture',
    params: z.object({ hash: z.string().regex(/^[0-9a-f]{64}$/), size: z.enum(['full', 'thumb']) }),
    carries: 'file',
  }),
};
