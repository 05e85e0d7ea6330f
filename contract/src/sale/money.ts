/** Money routes: what a channel leaves, and limits worked back from it (formats.md). Amounts are in one currency. */
import { z } from 'zod';
import { minorDigits } from '@jutbank/core/money';
import type { MostToPay, Net } from '@jutbank/core/sale';
import { amount, answers, currency, route } from '../http/index.ts';

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

const price = amount.refine((a) => !(Number(a) < 0), 'must not be below 0');

/** Every amount of the body has no more decimals than its currency. */
export function amountsFit(body: { currency: string }, context: z.RefinementCtx): void {
  let digits: number;
  try {
    digits = minorDigits(body.currency);
  } catch {
    return; // the currency has its own message
  }
  const walk = (value: unknown, path: (string | number)[]): void => {
    if (typeof value === 'string' && path[0] !== 'currency' && /^-?\d+\.\d+$/.test(value)) {
      if ((value.split('.')[1]?.length ?? 0) > digits)
        context.addIssue({
          code: 'custom',
          path,
          message: `${body.currency} has ${digits} decimals, “${value}” has more`,
        });
    } else if (Array.isArray(value)) value.forEach((item, i) => walk(item, [...path, i]));
    else if (typeof value === 'object' && value !== null)
      for (const [key, item] of Object.entries(value)) walk(item, [...path, key]);
  };
  walk(body, []);
}

export const netQuestion = z
  .object({ currency, channel: channelSchema.default({}), price })
  .superRefine(amountsFit);
export const breakEvenQuestion = z
  .object({ currency, channel: channelSchema.default({}), cost: price, target: targetSchema.nullish() })
  .superRefine(amountsFit);
export const mostToPayQuestion = z
  .object({
    currency,
    buying: buyingSchema.default({}),
    channel: channelSchema.default({}),
    price,
    target: targetSchema.nullish(),
  })
  .superRefine(amountsFit);

export const moneyRoutes = {
  net: route({
    method: 'post',
    path: '/offers/net',
    room: 'sale',
    access: 'read',
    summary: 'What a channel leaves of a price',
    body: netQuestion,
    answer: answers<Net & { currency: string }>('Every fee, and what is left'),
  }),
  breakEven: route({
    method: 'post',
    path: '/offers/break-even',
    room: 'sale',
    access: 'read',
    summary: 'The lowest price that is enough',
    body: breakEvenQuestion,
    answer: answers<{ currency: string; ask: string; net: string }>('The price, and what it leaves'),
  }),
  mostToPay: route({
    method: 'post',
    path: '/offers/most-to-pay',
    room: 'sale',
    access: 'read',
    summary: 'The highest bid that still leaves the target',
    body: mostToPayQuestion,
    answer: answers<MostToPay>('Bid, cost, and each step'),
  }),
};
