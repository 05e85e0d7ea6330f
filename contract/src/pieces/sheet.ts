/** A piece as it is shown: its slip, its five readings, its sheet, the tray. */
import { intakeBody } from './intake.ts';
import { observationShape, makingClashShape } from './identification.ts';
import { gradeAnswerShape } from './grading.ts';
import { custodyEventShape, trailShape } from './trail.ts';
import { storedAttribution, narrowing } from './observations.ts';
import { conditionBodyShape, quotedScale } from './findings.ts';
import { listingRecord } from './listing.ts';
import { constructionShape } from '../reference/index.ts';
import { STAGES, type CountedParts } from '@jutbank/core/pieces';
import { moneyShape, moneySchema, positiveMoney, text, ulid, withheld } from '../http/index.ts';
import { TIERS } from '@jutbank/core/bench';
import { z } from 'zod';

const fraction = z.number().min(0).max(1);
export const frameShape = z
  .object({ x: fraction, y: fraction, width: fraction, height: fraction })
  .refine(
    (f) => f.width > 0 && f.height > 0 && f.x + f.width < 1.001 && f.y + f.height < 1.001,
    'the frame lies outside the picture',
  );
/** The pictures of a piece as they are wanted: those left out are taken away, and come back when they are named again. */
export const picturesBody = z.object({
  pictures: z
    .array(
      z.object({
        id: ulid,
        caption: text(200).default(''),
        frame: frameShape.nullable().default(null),
        mmPerPixel: z.number().positive().max(100).nullable().default(null),
      }),
    )
    .max(200)
    .refine((list) => new Set(list.map((p) => p.id)).size === list.length, 'a picture is named twice'),
});
export type PicturesBody = z.infer<typeof picturesBody>;

export const pictureRecord = z
  .object({
    id: z.string(),
    hash: z.string(),
    caption: z.string(),
    width: z.number(),
    height: z.number(),
    /** what of it goes out; null: all of it */
    frame: frameShape.nullable(),
    /** millimetres of the piece that one of its pixels shows, where a scale was set on it */
    mmPerPixel: z.number().nullable(),
    /** the picture as it goes out: framed, with its scale bar */
    shown: z.string(),
  })
  .meta({ id: 'PictureRecord' });
export type PictureRecord = z.infer<typeof pictureRecord>;

export const readings = z
  .object({
    which: z.object({
      tier: z.enum(TIERS),
      label: z.string(),
      probability: z.number().nullable(),
      decided: z.boolean(),
      /** what it is drawn as: decided, else the likeliest; null where nothing says */
      variant: z.string().nullable(),
      pattern: z.string().nullable(),
    }),
    when: z
      .object({
        core: z.string(),
        outer: z.string(),
        conflict: z.boolean(),
      })
      .nullable(),
    condition: z
      .object({
        inspected: z.boolean(),
        index: z.number(),
        scale: z.string(),
        grade: z.string(),
        note: z.string(),
      })
      .nullable(),
    /** null where no pattern is known, or no sale near it (`unsupported`) */
    worth: z
      .object({
        estimate: moneyShape,
        low: moneyShape,
        high: moneyShape,
        thin: z.boolean(),
        comparables: z.number(),
      })
      .nullable(),
    unsupported: z.boolean().exactOptional(),
    /** its market could not be reckoned just now: the fault is noted, and it is tried again */
    marketAway: z.boolean().exactOptional(),
    trail: z.object({
      word: z.enum(['none', 'thin', 'partial', 'good', 'complete']),
      share: z.number(),
      problems: z.number(),
    }),
  })
  .meta({ id: 'Readings' });
export type Readings = z.infer<typeof readings>;

export const pieceSlip = z
  .object({
    id: z.string(),
    stockNumber: z.string(),
    title: z.string(),
    construction: constructionShape,
    stage: z.enum(STAGES),
    missing: z.string(),
    attention: z.array(z.string()),
    picture: z.string().nullable(),
    cost: moneyShape.nullable(),
    ask: moneyShape.nullable(),
    readings: readings,
  })
  .meta({ id: 'PieceSlip' });
export type PieceSlip = z.infer<typeof pieceSlip>;

export const pricingBody = z.object({
  ask: positiveMoney.nullable(),
  floor: moneySchema.nullable(),
  note: text(1000).default(''),
});

/** What comes in several on a piece, and who says how many. */
export const countedPartsShape: z.ZodType<CountedParts> = z
  .object({
    blades: z.number(),
    tools: z.number(),
    /** in their order, as far as the pattern names them */
    bladeNames: z.array(z.string()),
    by: z.enum(['bench', 'form']).nullable(),
  })
  .meta({ id: 'CountedParts' });

export const companionsBody = z.object({ companions: z.array(ulid).max(60) });

export const pieceSheet = pieceSlip
  .extend({
    version: z.number(),
    /** where it lies; empty: nobody says */
    place: z.string(),
    createdAt: z.string(),
    intake: intakeBody,
    pictures: z.array(pictureRecord),
    observations: z.array(observationShape),
    attribution: storedAttribution.nullable(),
    /** one date for every page and paper, and who says it */
    date: z
      .object({
        core: z.string(),
        outer: z.string(),
        by: z.enum(['decision', 'form', 'bracket', 'both', 'years']),
        reason: z.string().nullable(),
        clash: makingClashShape.nullable(),
      })
      .nullable(),
    /** decided against evidence that speaks for an imitation */
    overruled: z.boolean(),
    /** in its package, and nobody opened it */
    sealed: z.boolean(),
    narrowing: narrowing,
    condition: conditionBodyShape,
    parts: countedPartsShape,
    grade: gradeAnswerShape,
    /** in years, as the grade takes it; null where it is not dated on both sides */
    age: z.number().nullable(),
    /** the scale it is quoted on, and why where that was chosen */
    quotedScale: quotedScale.shape.scale,
    quoted: quotedScale.nullable(),
    custody: z.array(custodyEventShape),
    trail: trailShape,
    pricing: pricingBody,
    listing: listingRecord.nullable(),
    /** where it is offered beside the marketplace; after it has left, where it is still to be taken down */
    offeredAt: z.array(z.object({ channel: z.string(), name: z.string(), since: z.string() })),
    reservation: z
      .object({
        reservedFor: withheld(z.string()),
        contact: z.string().nullable(),
        until: z.string(),
        deposit: moneyShape.nullable(),
        way: z.string(),
        paidOn: z.string().nullable(),
        reservationNote: withheld(z.string()),
      })
      .nullable(),
    /** it belongs to somebody else, and is sold for them */
    consignment: withheld(
      z.object({
        contact: z.string(),
        ownerName: z.string(),
        agreedOn: z.string(),
        until: z.string().nullable(),
        terms: z.object({
          sharePct: z.number(),
          fee: z.string().nullable(),
          least: z.string().nullable(),
          channelFeesBy: z.enum(['shop', 'owner']),
        }),
        note: z.string(),
      }),
    ),
    /** it went back to whoever it came from */
    givenBack: z
      .object({
        on: z.string(),
        ownerName: withheld(z.string()),
        because: z.string(),
        /** what came back of its price */
        refundedCost: withheld(moneyShape),
      })
      .nullable(),
    /** pieces that came with it and belong to it */
    companions: z.array(
      z.object({ id: z.string(), stockNumber: z.string(), title: z.string(), stage: z.enum(STAGES) }),
    ),
    /** sales of it that came back, newest first */
    returnedSales: z.array(z.object({ id: z.string(), invoiceNumber: z.string(), returnedOn: z.string() })),
    sale: z
      .object({
        id: z.string(),
        invoiceNumber: z.string(),
        certificateCode: z.string(),
        soldOn: z.string(),
      })
      .nullable(),
  })
  .meta({ id: 'PieceSheet' });
export type PieceSheet = z.infer<typeof pieceSheet>;
export type PricingBody = z.infer<typeof pricingBody>;

export const tray = z
  .object({
    groups: z.array(
      z.object({
        stage: z.enum(STAGES),
        count: z.number(),
        bound: withheld(moneyShape),
        slips: z.array(pieceSlip),
      }),
    ),
    attention: z.array(pieceSlip),
    bound: withheld(moneyShape),
    asking: moneyShape,
  })
  .meta({ id: 'Tray' });
export type Tray = z.infer<typeof tray>;
