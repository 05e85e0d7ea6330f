/** All pieces as rows: asked for in many ways, acted on many at once, each with the place where it lies. */
import { TIERS } from '@jutbank/core/bench';
import { STAGES } from '@jutbank/core/pieces';
import { CONSTRUCTIONS } from '@jutbank/core/reference';
import { z } from 'zod';
import {
  amount,
  answers,
  moneyShape,
  pageQuery,
  pageShape,
  required,
  route,
  text,
  ulid,
  withheld,
} from '../http/index.ts';
import { constructionShape } from '../reference/index.ts';

export const INVENTORY_SORTS = ['newest', 'oldest', 'changed', 'title', 'dearest', 'cheapest'] as const;
export type InventorySort = (typeof INVENTORY_SORTS)[number];

const price = amount.refine((a) => !(Number(a) < 0), 'must not be below 0').optional();
const days = z.coerce.number().int().min(0).max(36_500).optional();
export const inventoryFilter = z.object({
  /** words of its name, number, source; every word must begin one */
  q: z.string().max(100).optional(),
  /** `here`: all that have not left */
  stage: z.enum([...STAGES, 'here']).optional(),
  construction: z.enum(CONSTRUCTIONS).optional(),
  maker: z.string().max(80).optional(),
  pattern: z.string().max(80).optional(),
  source: z.string().max(160).optional(),
  lot: ulid.optional(),
  place: z.string().max(120).optional(),
  /** in the shop's currency */
  askFrom: price,
  askTo: price,
  /** in stock for at least so many days */
  days,
  warned: z.literal('1').optional(),
  sort: z.enum(INVENTORY_SORTS).default('newest'),
});
export type InventoryFilter = z.input<typeof inventoryFilter>;

export const inventoryRow = z
  .object({
    id: z.string(),
    stockNumber: z.string(),
    title: z.string(),
    construction: constructionShape,
    stage: z.enum(STAGES),
    picture: z.string().nullable(),
    /** what was decided, by name; null where nothing is */
    attributed: z.string().nullable(),
    variant: z.string().nullable(),
    pattern: z.string().nullable(),
    tier: z.enum(TIERS).nullable(),
    /** as they were last reckoned; null where they were not */
    made: z.string().nullable(),
    grade: z.string().nullable(),
    worth: moneyShape.nullable(),
    cost: withheld(moneyShape),
    ask: moneyShape.nullable(),
    source: z.string(),
    lot: z.object({ id: z.string(), name: z.string() }).nullable(),
    place: z.string(),
    /** since it came in, or since it was written down where that is not known */
    days: z.number().int(),
    warnings: z.array(z.string()),
  })
  .meta({ id: 'InventoryRow' });
export type InventoryRow = z.infer<typeof inventoryRow>;

const keptView = z.object({
  name: required(80, 'What is this view called?'),
  /** the query of its address */
  asks: z.string().max(1000),
});
export type KeptView = z.infer<typeof keptView>;

export const inventoryRoutes = {
  listRows: route({
    method: 'get',
    path: '/inventory',
    room: 'inventory',
    access: 'read',
    summary: 'All pieces as rows, by what is asked and in the order that is asked',
    query: pageQuery.extend(inventoryFilter.shape),
    answer: answers(pageShape(inventoryRow), 'A page of rows'),
  }),
  exportRows: route({
    method: 'get',
    path: '/inventory.csv',
    room: 'inventory',
    access: 'work',
    summary: 'The same as CSV (RFC 4180), all of it',
    query: inventoryFilter.extend({
      /** only these, by their ids, comma separated */
      pieces: z.string().max(6000).optional(),
    }),
    carries: 'file',
  }),
  due: route({
    method: 'get',
    path: '/due.ics',
    room: 'inventory',
    access: 'work',
    summary:
      'What is to be done on a day as a calendar (iCalendar, RFC 5545): reservations, consignments and listings that end, quarantines to review, invoices that are due',
    carries: 'file',
  }),
  choices: route({
    method: 'get',
    path: '/inventory/choices',
    room: 'inventory',
    access: 'read',
    summary: 'What there is to ask by: places, sources, lots',
    answer: answers(
      z.object({
        places: z.array(z.string()),
        sources: z.array(z.string()),
        lots: z.array(z.object({ id: z.string(), name: z.string() })),
      }),
      'The choices',
    ),
  }),
  movePieces: route({
    method: 'post',
    path: '/inventory/place',
    room: 'inventory',
    access: 'work',
    summary: 'Where pieces lie from now on; the ledger keeps where they were',
    body: z.object({
      pieces: z.array(ulid).min(1, 'choose at least one piece').max(200, 'at most 200 at once'),
      /** empty: nobody says */
      place: text(120),
    }),
    answer: answers(z.object({ moved: z.number().int() }), 'How many lie elsewhere now'),
  }),
  views: route({
    method: 'get',
    path: '/inventory/views',
    room: 'inventory',
    access: 'read',
    summary: 'The views that this person kept',
    answer: answers(z.object({ items: z.array(keptView) }), 'By name'),
  }),
  putViews: route({
    method: 'put',
    path: '/inventory/views',
    room: 'inventory',
    access: 'read',
    summary: 'Keep views of the list',
    body: z.object({
      items: z
        .array(keptView)
        .max(40)
        .refine((items) => new Set(items.map((v) => v.name)).size === items.length, 'two views of one name'),
    }),
    answer: answers(z.object({ items: z.array(keptView) }), 'By name'),
  }),
};
