/** Appraisals: what was said of a piece's value on a day, kept for ever, and what would be said with other knowledge. */
import { worthOfPiece, overrideBody } from './corrections.ts';
import { moneyShape, amount, answers, byId, currency, required, route, text, ulid } from '../http/index.ts';
import { rangesHeldShape, bandShape, houseCalibrationShape, pointOfValueShape } from './shapes.ts';
import { estimateQuestion, estimateRow, estimateAnswer } from '../market/index.ts';
import { z } from 'zod';
import type { ValueSettings } from '@jutbank/core/market';
import { BASES, CAUSES, type Basis, type Cause } from '@jutbank/core/worth';
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
  effectPct: z.number().gt(-100, 'a value stays above 0').max(1000).nullable().default(null),
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

export const appraisalBody = appraisalDraftQuery
  .extend({
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
  })
  .meta({ id: 'AppraisalBody' });
export type AppraisalBody = z.infer<typeof appraisalBody>;

type NotAlways = 'houseStretch' | 'houseHold';
/** Records from before ranges went by the house's own sales do not say it. */
export type KeptSettings = Omit<ValueSettings, NotAlways> & Partial<Pick<ValueSettings, NotAlways>>;
export const keptSettings = z
  .custom<KeptSettings>((value) => typeof value === 'object' && value !== null)
  .meta({ override: { type: 'object', description: 'The settings of the engine at the time' } });

export const appraisedRow = estimateRow
  .extend({
    /** the cells of the sale as they were written down */
    cells: z.record(z.string(), z.string()),
    rateSource: z.string().nullable(),
    gross: z.number(),
    net: z.number(),
    wide: z.boolean(),
    check: saleCheck.nullable(),
  })
  .meta({ id: 'AppraisedRow' });
export type AppraisedRow = z.infer<typeof appraisedRow>;
export const pairedSale = z
  .object({
    id: z.string(),
    saleDate: z.string(),
    venue: z.string(),
    /** as written down, and all of it in the currency that was asked for */
    price: moneyShape,
    paid: moneyShape,
  })
  .meta({ id: 'PairedSale' });

/** Two sales of one variant that differ in one thing only, and what the engine says of that thing. */
export const pairsShown = z
  .object({
    line: z.string(),
    said: z.string(),
    /** medians, percent */
    middle: z.number(),
    engine: z.number(),
    count: z.number(),
    /** those nearest in time */
    pairs: z.array(
      z.object({
        more: pairedSale,
        less: pairedSale,
        percent: z.number(),
        engine: z.number(),
        daysApart: z.number(),
      }),
    ),
  })
  .meta({ id: 'PairsShown' });
export type PairsShown = z.infer<typeof pairsShown>;
export type PairedSale = z.infer<typeof pairedSale>;
/** A sale of the same pattern that stands in no line of the grid, and why. */
export const nearSale = z
  .object({
    id: z.string(),
    saleDate: z.string(),
    venue: z.string(),
    price: moneyShape,
    variant: z.string().nullable(),
    why: z.string(),
  })
  .meta({ id: 'NearSale' });
export type NearSale = z.infer<typeof nearSale>;
/** What stands beside a grid: paired sales behind its lines, and near sales that are not in it. */
export const grounds = z
  .object({
    pairs: z.array(pairsShown),
    near: z.array(nearSale),
  })
  .meta({ id: 'Grounds' });
export type Grounds = z.infer<typeof grounds>;

/** All that a value rests on, before anybody has concluded. */
export const appraisalEvidence = z
  .object({
    basis: z.enum(BASES),
    definition: z.string(),
    effectiveDate: z.string(),
    question: estimateQuestion,
    point: pointOfValueShape,
    figure: moneyShape,
    low: moneyShape,
    high: moneyShape,
    rows: z.array(appraisedRow),
    rest: estimateAnswer.shape.rest,
    methods: estimateAnswer.shape.methods,
    byVariant: estimateAnswer.shape.byVariant,
    notes: z.array(z.string()),
    supported: z.boolean(),
    thin: z.boolean(),
    /** how prices moved: sales of the last two years in all, and the day of the last sale known */
    market: z.object({
      lastSale: z.string().nullable(),
      soldInTwoYears: z.number(),
      beyondLastSale: z.boolean(),
    }),
    corrections: z.array(
      z.object({
        comparable: z.string(),
        line: z.string(),
        percent: z.number().nullable(),
        reason: z.string(),
        person: z.string(),
        at: z.string(),
      }),
    ),
    corrected: moneyShape.nullable(),
    engine: z.object({
      version: z.string(),
      settings: keptSettings,
      middles: z.record(z.string(), z.number()),
    }),
    known: knownState,
    rules: z.number(),
    /** records made before grounds were kept have none */
    grounds: grounds.exactOptional(),
  })
  .meta({ id: 'AppraisalEvidence' });
export type AppraisalEvidence = z.infer<typeof appraisalEvidence>;

export const appraisalRecord = appraisalEvidence
  .omit({ known: true })
  .extend({
    format: z.literal('jutbank.appraisal/1'),
    number: z.string(),
    issuedAt: z.string(),
    shop: z.string(),
    appraiser: z.string(),
    signature: z.string(),
    purpose: z.enum(PURPOSES),
    intendedUser: z.string(),
    interest: z.string(),
    assumptions: z.array(assumption),
    limiting: z.string(),
    concluded: moneyShape,
    because: z.string(),
    piece: z.object({
      id: z.string(),
      stockNumber: z.string(),
      title: z.string(),
      version: z.number(),
      owner: z.enum(['the shop', 'not the shop']),
      which: z.object({
        tier: z.string(),
        label: z.string(),
        variants: z.array(
          z.object({
            variant: z.string().nullable(),
            name: z.string(),
            probability: z.number(),
          }),
        ),
      }),
      made: z.string().nullable(),
      condition: z
        .object({
          inspected: z.boolean(),
          index: z.number(),
          grade: z.string(),
          scale: z.string(),
        })
        .nullable(),
      /** what was looked at and by whom, and what was not */
      scope: z.object({
        by: z.string().nullable(),
        at: z.string().nullable(),
        notExamined: z.array(z.string()),
      }),
      statements: z.array(z.string()),
      pictures: z.array(
        z.object({
          id: z.string(),
          hash: z.string(),
          caption: z.string(),
        }),
      ),
    }),
    /** the reference is named by a fingerprint: it is kept whole */
    revisions: z.object({
      comparables: z.number(),
      rates: z.number(),
      reference: z.number(),
      rules: z.number(),
      referencePrint: z.string(),
    }),
  })
  .meta({ id: 'AppraisalRecord' });
export type AppraisalRecord = z.infer<typeof appraisalRecord>;

export const appraisalSummary = z
  .object({
    id: z.string(),
    number: z.string(),
    pieceId: z.string(),
    person: z.string(),
    madeAt: z.string(),
    effectiveDate: z.string(),
    concluded: moneyShape,
    purpose: z.enum(PURPOSES),
    basis: z.enum(BASES),
  })
  .meta({ id: 'AppraisalSummary' });
export type AppraisalSummary = z.infer<typeof appraisalSummary>;
export const keptAppraisal = z
  .object({
    id: z.string(),
    record: appraisalRecord,
    fingerprint: z.string(),
    /** the record has the fingerprint it was given, and the ledger holds that */
    intact: z.boolean(),
  })
  .meta({ id: 'KeptAppraisal' });
export type KeptAppraisal = z.infer<typeof keptAppraisal>;

/** One state of knowledge against another, both reckoned anew. */
export const recomputed = z
  .object({
    recorded: moneyShape,
    /** from what was known then; the same to the cent, or it is told */
    then: moneyShape,
    agrees: z.boolean(),
    now: moneyShape,
    changes: z.array(
      z.object({
        cause: z.enum(CAUSES),
        by: moneyShape,
        told: z.string(),
      }),
    ),
  })
  .meta({ id: 'Recomputed' });
export type Recomputed = z.infer<typeof recomputed>;

/** A piece that was appraised and then sold: what was said, and what it brought, in the currency of the appraisal. */
export const appraisedAndSold = z
  .object({
    appraisal: z.string(),
    number: z.string(),
    pieceId: z.string(),
    title: z.string(),
    basis: z.enum(BASES),
    maker: z.string(),
    year: z.number(),
    appraiser: z.string(),
    low: moneyShape,
    figure: moneyShape,
    high: moneyShape,
    concluded: moneyShape,
    sold: moneyShape,
    soldOn: z.string(),
  })
  .meta({ id: 'AppraisedAndSold' });
export type AppraisedAndSold = z.infer<typeof appraisedAndSold>;
export const trackRecord = z
  .object({
    pieces: z.array(appraisedAndSold),
    ranges: rangesHeldShape.nullable(),
    by: z.array(
      z.object({
        group: z.enum(['basis', 'maker', 'year', 'appraiser']),
        name: z.string(),
        held: rangesHeldShape,
      }),
    ),
    probabilities: z.array(bandShape),
    /** by what was asked against the estimate: how many weeks until it sold */
    asks: z.array(
      z.object({
        from: z.number(),
        to: z.number(),
        sold: z.number(),
        open: z.number(),
        weeks: z.number().nullable(),
      }),
    ),
    /** offers that were turned down, and what the piece sold for after; null while it is not sold */
    declined: z.array(
      z.object({
        pieceId: z.string(),
        title: z.string(),
        offer: moneyShape,
        at: z.string(),
        sold: moneyShape.nullable(),
        soldOn: z.string().nullable(),
      }),
    ),
    /** what ranges are multiplied by since these were heard; null while there are too few */
    house: houseCalibrationShape.nullable(),
  })
  .meta({ id: 'TrackRecord' });
export type TrackRecord = z.infer<typeof trackRecord>;

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
    answer: answers(worthOfPiece, 'The estimate, or why there is none; what a person corrected'),
  }),
  addOverride: route({
    method: 'post',
    path: '/pieces/:id/overrides',
    room: 'worth',
    access: 'appraise',
    summary: 'Correct one line of the grid, or leave a sale out, with the reason',
    params: byId,
    body: overrideBody,
    answer: answers(worthOfPiece, 'The estimate with all corrections'),
    status: 201,
  }),
  endOverride: route({
    method: 'delete',
    path: '/pieces/:id/overrides/:override',
    room: 'worth',
    access: 'appraise',
    summary: 'Take a correction back; that it was made stays known',
    params: z.object({ id: ulid, override: ulid }),
    answer: answers(worthOfPiece, 'The estimate with the corrections that are left'),
  }),
  trackRecord: route({
    method: 'get',
    path: '/track-record',
    room: 'worth',
    access: 'read',
    summary: 'What the house has said against what came of it, from kept appraisals',
    answer: answers(trackRecord, 'Ranges, probabilities, asks and offers'),
  }),
  grounds: route({
    method: 'get',
    path: '/pieces/:id/worth/grounds',
    room: 'worth',
    access: 'read',
    summary: 'Paired sales behind the lines of a grid, and near sales that are not in it',
    params: byId,
    answer: answers(grounds, 'Pairs by line, near sales with why they are not used'),
  }),
  appraisalDraft: route({
    method: 'post',
    path: '/pieces/:id/appraisals/draft',
    room: 'worth',
    access: 'read',
    summary: 'All that an appraisal would rest on; nothing is kept',
    params: byId,
    body: appraisalDraftQuery,
    answer: answers(appraisalEvidence, 'Rows, lines, methods, figure'),
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
    answer: answers(appraisalSummary, 'The appraisal'),
    status: 201,
  }),
  appraisals: route({
    method: 'get',
    path: '/pieces/:id/appraisals',
    room: 'worth',
    access: 'read',
    summary: 'Appraisals of a piece, newest first',
    params: byId,
    answer: answers(
      z.object({
        items: z.array(appraisalSummary),
      }),
      'Appraisals',
    ),
  }),
  appraisal: route({
    method: 'get',
    path: '/appraisals/:id',
    room: 'worth',
    access: 'read',
    summary: 'An appraisal as it was made',
    params: byId,
    answer: answers(keptAppraisal, 'The record, its fingerprint, whether it is whole'),
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
    answer: answers(recomputed, 'Both figures and what lies between them'),
    status: 200,
  }),
};
