/** Channels of sale and habits of buying, as a shop sets them. Amounts are in one currency. */
import { z } from 'zod';
import { amount } from '../http/index.ts';

const percent = z.number('write a number').min(0, 'not below 0').max(1000, 'at most 1000').nullish();
const fee = amount.refine((a) => !(Number(a) < 0), 'must not be below 0').nullish();

export const channelSchema = z.object({
  commissionPct: percent,
  commissionOn: z.enum(['price', 'price-and-postage']).nullish(),
  commissionMin: fee,
  commissionMax: fee,
  fixedFee: fee,
  paymentPct: percent,
  paymentFixed: fee,
  taxOnFeesPct: percent,
  postageCharged: fee,
  postageCost: fee,
  packing: fee,
  insurancePct: percent,
});
export type ChannelBody = z.infer<typeof channelSchema>;

export const targetSchema = z.union(
  [
    z.strictObject({ marginPct: z.number().gt(-1000).lt(100, 'a margin is below 100 % of what is left') }),
    z.strictObject({ markUpPct: z.number().gt(-100).max(100_000) }),
    z.strictObject({ profit: amount }),
  ],
  'one of marginPct (of what is left), markUpPct (of the cost) or profit',
);
export type TargetBody = z.infer<typeof targetSchema>;

export const buyingSchema = z.object({
  premiumPct: percent,
  premiumMin: fee,
  taxOnPremiumPct: percent,
  taxOnHammerPct: percent,
  otherCosts: fee,
  increment: amount.refine((a) => Number(a) > 0, 'must be above 0').nullish(),
});
