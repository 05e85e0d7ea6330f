/** Series that are followed, by the shop or by a customer: what is owned, double, missing, wanted. */
import { TIERS } from '@jutbank/core/bench';
import { AVAILABILITIES, VARIANT_KINDS } from '@jutbank/core/reference';
import { SLOT_WISHES, type SeriesRule } from '@jutbank/core/series';
import { z } from 'zod';
import { editionShape } from '../reference/index.ts';
import {
  answers,
  byId,
  moneyShape,
  positiveMoney,
  required,
  route,
  slug,
  text,
  ulid,
  withheld,
} from '../http/index.ts';

const some = (message: string) => z.array(slug).min(1, message).max(200);
const somePatterns = some('choose at least one pattern');
export const seriesRule = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('patterns'),
    patterns: somePatterns,
    /** none: all but what only imitates them */
    kinds: z.array(z.enum(VARIANT_KINDS)).exactOptional(),
  }),
  z.object({ kind: z.literal('stamp'), mark: slug }),
  z.object({ kind: z.literal('values'), patterns: somePatterns, feature: slug }),
  z.object({ kind: z.literal('years'), patterns: somePatterns }),
  z.object({ kind: z.literal('picked'), variants: some('choose at least one form') }),
]) satisfies z.ZodType<SeriesRule>;

const conditionIndex = z.number().min(0).max(100).nullable();
export const seriesBody = z.object({
  name: required(160, 'What is it called?'),
  rule: seriesRule,
  /** whose want list it is; null: the shop’s own */
  contactId: ulid.nullable().default(null),
  /** condition index below which the best example is to be replaced */
  upgradeBelow: conditionIndex.default(null),
  note: text(1000).default(''),
});
export type SeriesBody = z.infer<typeof seriesBody>;

export const seriesSummary = z
  .object({
    id: z.string(),
    version: z.number(),
    name: z.string(),
    rule: seriesRule,
    contactId: z.string().nullable(),
    buyerName: withheld(z.string()),
    upgradeBelow: conditionIndex,
    note: z.string(),
    filled: z.number().int(),
    of: z.number().int(),
    /** examples beyond the best of each */
    doubles: z.number().int(),
  })
  .meta({ id: 'SeriesSummary' });
export type SeriesSummary = z.infer<typeof seriesSummary>;

export const slotWishBody = z.object({
  /** a slot as the series tells it */
  key: z.string().min(1).max(200),
  /** null: nothing is said of it any more */
  wish: z.enum(SLOT_WISHES).nullable(),
  atMost: positiveMoney.nullable().default(null),
  leastIndex: conditionIndex.default(null),
});
export type SlotWishBody = z.infer<typeof slotWishBody>;

const heldPiece = z
  .object({
    id: z.string(),
    stockNumber: z.string(),
    title: z.string(),
    tier: z.enum(TIERS),
    grade: z.string().nullable(),
    conditionIndex,
    worth: moneyShape.nullable(),
    ask: moneyShape.nullable(),
    /** days in stock, up to its sale */
    days: z.number().int(),
    sold: z.boolean(),
  })
  .meta({ id: 'HeldPiece' });
export type HeldPiece = z.infer<typeof heldPiece>;

const whySell = z.discriminatedUnion('why', [
  z.object({ why: z.literal('worse'), by: z.number() }),
  z.object({ why: z.literal('not-inspected') }),
  z.object({ why: z.literal('less-sure') }),
  z.object({ why: z.literal('dearer'), worth: moneyShape }),
  z.object({ why: z.literal('longer'), days: z.number() }),
]);

export const availabilityShape = z
  .object({
    state: z.enum(AVAILABILITIES),
    on: z.string(),
    source: z.string(),
    gone: z.boolean(),
  })
  .meta({ id: 'AvailabilityToday' });

const moneyRange = z
  .object({ low: moneyShape, likely: moneyShape, high: moneyShape })
  .meta({ id: 'MoneyRange' });
const range = z.object({ low: z.number(), likely: z.number(), high: z.number() });

export const seriesSlot = z
  .object({
    key: z.string(),
    name: z.string(),
    variants: z.array(z.string()),
    pattern: z.string(),
    window: z.string().nullable(),
    kind: z.enum(VARIANT_KINDS),
    edition: editionShape.nullable(),
    made: z.number().nullable(),
    state: z.enum(['owned', 'upgrade', 'elsewhere', 'missing', 'skipped']),
    best: heldPiece.nullable(),
    doubles: z.array(z.object({ piece: heldPiece, why: z.array(whySell) })),
    sold: z.array(heldPiece),
    /** pieces of the stock that would fill a customer’s slot */
    offers: z.array(heldPiece),
    wish: z
      .object({ wish: z.enum(SLOT_WISHES), atMost: moneyShape.nullable(), leastIndex: conditionIndex })
      .nullable(),
    /** of the best example, or of one as it is wanted; null where nothing supports a price */
    price: moneyRange.nullable(),
    rarity: z.object({
      left: range.nullable(),
      seen: z.object({ count: z.number().int(), years: z.number().int() }),
    }),
    availability: availabilityShape.nullable(),
  })
  .meta({ id: 'SeriesSlot' });
export type SeriesSlotAnswer = z.infer<typeof seriesSlot>;

export const seriesDetail = seriesSummary
  .extend({
    slots: z.array(seriesSlot),
    completion: z.object({
      filled: z.number().int(),
      of: z.number().int(),
      owned: moneyRange,
      missing: moneyRange,
      share: range.nullable(),
      unpriced: z.number().int(),
    }),
    /** keys of missing slots, the hardest to get first */
    hardest: z.array(z.string()),
  })
  .meta({ id: 'SeriesDetail' });
export type SeriesDetail = z.infer<typeof seriesDetail>;

export const wantedBy = z
  .object({
    series: z.object({ id: z.string(), name: z.string() }),
    buyerName: withheld(z.string()),
    contactId: z.string().nullable(),
    slot: z.string(),
    /** decided to be the one; else it may be */
    sure: z.boolean(),
    atMost: moneyShape.nullable(),
    leastIndex: conditionIndex,
    /** it would take the place of one that is not good enough */
    upgrade: z.boolean(),
  })
  .meta({ id: 'WantedBy' });
export type WantedBy = z.infer<typeof wantedBy>;

const series = { room: 'series' } as const;
export const seriesRoutes = {
  listSeries: route({
    ...series,
    method: 'get',
    path: '/series',
    access: 'read',
    summary: 'Series that are followed, the shop’s own first',
    answer: answers(z.object({ items: z.array(seriesSummary) }), 'All series'),
  }),
  series: route({
    ...series,
    method: 'get',
    path: '/series/:id',
    access: 'read',
    summary: 'A series slot by slot, and how far it is from whole',
    params: byId,
    answer: answers(seriesDetail, 'The series'),
  }),
  addSeries: route({
    ...series,
    method: 'post',
    path: '/series',
    access: 'work',
    summary: 'Follow a series',
    body: seriesBody,
    answer: answers(seriesDetail, 'The series'),
    status: 201,
  }),
  putSeries: route({
    ...series,
    method: 'put',
    path: '/series/:id',
    access: 'work',
    summary: 'Change what a series is',
    params: byId,
    body: seriesBody,
    answer: answers(seriesDetail, 'The series'),
  }),
  removeSeries: route({
    ...series,
    method: 'delete',
    path: '/series/:id',
    access: 'work',
    summary: 'Follow a series no longer',
    params: byId,
    answer: answers(z.object({ removed: z.string() }), 'What is gone'),
  }),
  wishForSlot: route({
    ...series,
    method: 'put',
    path: '/series/:id/wishes',
    access: 'work',
    summary: 'Say of one slot that it is wanted, owned elsewhere, or not cared for',
    params: byId,
    body: slotWishBody,
    answer: answers(seriesDetail, 'The series'),
  }),
  wantedBy: route({
    ...series,
    method: 'get',
    path: '/pieces/:id/wanted-by',
    access: 'read',
    summary: 'Who follows a series that this piece is missing in',
    params: byId,
    answer: answers(z.object({ items: z.array(wantedBy) }), 'Those who want it'),
  }),
};
