/** The engine's answers as they are sent. */
import { VENUE_KINDS } from '@jutbank/core/market';
import type {
  MostToPay,
  RangesHeld,
  Band,
  HouseCalibration,
  PointOfValue,
  Net,
  Hazard,
  AskPoint,
  OfferAdvice,
} from '@jutbank/core/worth';
import { z } from 'zod';

/** A share with its honest interval. */
const share = {
  of: z.number(),
  held: z.number(),
  share: z.number(),
  low: z.number(),
  high: z.number(),
};

export const mostToPayShape: z.ZodType<MostToPay> = z
  .object({
    currency: z.string(),
    net: z.string(),
    bid: z.string().nullable(),
    cost: z.string().nullable(),
    steps: z.array(
      z.object({
        name: z.string(),
        amount: z.string(),
      }),
    ),
  })
  .meta({ id: 'MostToPay' });

export const rangesHeldShape: z.ZodType<RangesHeld> = z
  .object({
    ...share,
    /** the middle of price ÷ figure and of price ÷ concluded value: above 1 where too little was said */
    ofFigure: z.number(),
    ofConcluded: z.number(),
  })
  .meta({ id: 'RangesHeld' });

export const bandShape: z.ZodType<Band> = z
  .object({
    ...share,
    from: z.number(),
    to: z.number(),
    /** mean of what was stated in it */
    stated: z.number(),
  })
  .meta({ id: 'Band' });

export const houseCalibrationShape: z.ZodType<HouseCalibration> = z
  .object({
    of: z.number(),
    held: z.number(),
    /** what the market's own ranges are to be multiplied by */
    stretch: z.number(),
  })
  .meta({ id: 'HouseCalibration' });

export const pointOfValueShape: z.ZodType<PointOfValue> = z
  .object({
    venueKind: z.enum(VENUE_KINDS),
    /** share of outcomes below it */
    point: z.number(),
    factor: z.number(),
  })
  .meta({ id: 'PointOfValue' });

/** Every fee of a channel, and what it leaves. */
export const netFields = {
  gross: z.string(),
  commission: z.string(),
  fixedFee: z.string(),
  paymentFee: z.string(),
  taxOnFees: z.string(),
  postageCost: z.string(),
  packing: z.string(),
  insurance: z.string(),
  net: z.string(),
};
export const netShape: z.ZodType<Net> = z.object(netFields).meta({ id: 'Net' });

export const hazardShape: z.ZodType<Hazard> = z
  .object({
    /** chance to sell within a week at the estimate */
    base: z.number(),
    /** how fast it falls as more is asked */
    steepness: z.number(),
    /** pieces it was learned from */
    learnedFrom: z.number(),
  })
  .meta({ id: 'Hazard' });

export const askPointShape: z.ZodType<AskPoint> = z
  .object({
    ratio: z.number(),
    price: z.number(),
    /** expected weeks until it sells */
    weeks: z.number(),
    net: z.number(),
    /** expected net, less what waiting costs */
    value: z.number(),
  })
  .meta({ id: 'AskPoint' });

export const offerAdviceShape: z.ZodType<OfferAdvice> = z.enum(['take', 'counter', 'wait']);
