/** Money routes: what a channel leaves, and limits worked back from it (formats.md). Amounts are in one currency. */
import { netShape, mostToPayShape } from './shapes.ts';
import { z } from 'zod';
import { minorDigits } from '@jutbank/core/money';
import { amount, answers, currency, route } from '../http/index.ts';
import { channelSchema, targetSchema, buyingSchema } from '../shop/index.ts';

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

export const channelRoutes = {
  net: route({
    method: 'post',
    path: '/offers/net',
    room: 'worth',
    access: 'read',
    summary: 'What a channel leaves of a price',
    body: netQuestion,
    answer: answers(
      z.intersection(
        netShape,
        z.object({
          currency: z.string(),
        }),
      ),
      'Every fee, and what is left',
    ),
  }),
  breakEven: route({
    method: 'post',
    path: '/offers/break-even',
    room: 'worth',
    access: 'read',
    summary: 'The lowest price that is enough',
    body: breakEvenQuestion,
    answer: answers(
      z.object({
        currency: z.string(),
        ask: z.string(),
        net: z.string(),
      }),
      'The price, and what it leaves',
    ),
  }),
  mostToPay: route({
    method: 'post',
    path: '/offers/most-to-pay',
    room: 'worth',
    access: 'read',
    summary: 'The highest bid that still leaves the target',
    body: mostToPayQuestion,
    answer: answers(mostToPayShape, 'Bid, cost, and each step'),
  }),
};
