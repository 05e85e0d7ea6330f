/** The shop's habits of buying and selling: channels, tax, margins, the percentages it reckons with. */
import { z } from 'zod';
import { NO_TAX, TAX_BASES } from '@jutbank/core/money';
import { FIXED_PERCENTAGES } from '@jutbank/core/market';
import { amount, answers, required, route, slug } from '../http/index.ts';
import { buyingSchema, channelSchema, targetSchema } from './channels.ts';

export const care = z.enum(['careful', 'even', 'bold']);

const percent = (least: number, most: number) =>
  z.number('write a number').min(least, `not below ${least} %`).max(most, `at most ${most} %`);

export const pricingSettings = z.object({
  channels: z
    .array(z.object({ id: slug, name: required(80, 'what is this channel called?'), channel: channelSchema }))
    .min(1, 'at least one channel')
    .max(12)
    .refine((list) => new Set(list.map((c) => c.id)).size === list.length, 'two channels have one id'),
  usualChannel: slug,
  buying: buyingSchema,
  target: targetSchema,
  care,
  /** what keeping a piece for a month costs */
  holdingPerMonth: amount.refine((a) => !(Number(a) < 0), 'must not be below 0'),
  /** tax that a price holds */
  tax: z.object({ on: z.enum(TAX_BASES), pct: percent(0, 60) }).default(NO_TAX),
  /** a piece in its sealed package: what that brings more, how often something is wrong inside and what that takes */
  sealed: z
    .object({ premiumPct: percent(0, 200), faultPct: percent(0, 100), lossPct: percent(0, 100) })
    .default({ premiumPct: 15, faultPct: 8, lossPct: 20 }),
  /** the plain way beside the estimate: percent a point of the index, for box, papers, an alteration */
  fixed: z
    .object({
      perPoint: percent(0, 5),
      box: percent(0, 100),
      papers: percent(0, 100),
      altered: percent(-90, 0),
    })
    .default(FIXED_PERCENTAGES),
  /** fetch the day's exchange rates by itself */
  dailyRates: z.boolean().default(false),
});
export type PricingSettings = z.infer<typeof pricingSettings>;
export const USUAL_SETTINGS: PricingSettings = pricingSettings.parse({
  channels: [
    {
      id: 'quayside',
      name: 'Quayside market',
      channel: { commissionPct: 8, paymentPct: 2.5, paymentFixed: '0.30' },
    },
    { id: 'counter', name: 'Over the counter', channel: {} },
  ],
  usualChannel: 'quayside',
  buying: {},
  target: { marginPct: 30 },
  care: 'even',
  holdingPerMonth: '0.50',
});

export const versionedSettings = z
  .object({
    settings: pricingSettings,
    version: z.number(),
  })
  .meta({ id: 'VersionedSettings' });
export type VersionedSettings = z.infer<typeof versionedSettings>;

export const pricingSettingsRoutes = {
  settings: route({
    method: 'get',
    path: '/pricing-settings',
    hides: ['costs', 'margins'],
    room: 'shop',
    access: 'read',
    summary: 'Channels, tax, margins, habits of buying',
    answer: answers(versionedSettings, 'The settings'),
  }),
  putSettings: route({
    method: 'put',
    path: '/pricing-settings',
    room: 'shop',
    access: 'appraise',
    summary: 'Change channels, tax, margins, habits of buying',
    body: pricingSettings,
    answer: answers(versionedSettings, 'The settings'),
  }),
};
