/** Listings, their wording, and what the marketplace answers. */
import { wordingProblemShape } from './shapes.ts';
import { z } from 'zod';
import { POSTAGE_ZONES } from '@jutbank/core/listing';
import { LANGUAGES } from '@jutbank/core/words';
import { ofPiece, takenPostage } from '../pieces/index.ts';
import { answers, byId, moneyShape, positiveMoney, required, route, text, ulid } from '../http/index.ts';

const words = {
  title: required(300, 'A listing needs a title'),
  body: required(20_000, 'A listing needs its text'),
};
export const listingBody = z.object({
  ...words,
  /** a second language has its own text beside the English one */
  language: z.enum(LANGUAGES).default('en'),
});
export type ListingBody = z.infer<typeof listingBody>;
/** Something that is missing, and the stage of the piece where it is mended. */
const blockShape = z.object({
  text: z.string(),
  stage: z.enum(['intake', 'bench', 'condition', 'worth', 'listing']),
});
export type ListingBlock = z.infer<typeof blockShape>;

export { POSTAGE_ZONES };
export const postage = z
  .object({
    /** packed, in grams, and whether its own weight is only taken for granted */
    grams: z.number(),
    weighed: z.boolean(),
    size: z.array(z.number()),
    insuredFor: moneyShape.nullable(),
    zones: z.array(
      z.object({
        zone: z.enum(POSTAGE_ZONES),
        quotes: z.array(
          z.object({
            carrier: z.string(),
            service: z.string(),
            price: moneyShape,
            tracked: z.boolean(),
            insuredUpTo: z.number(),
            days: z.array(z.number()),
            topics: z.array(z.string()),
          }),
        ),
      }),
    ),
  })
  .meta({ id: 'Postage' });
export type Postage = z.infer<typeof postage>;

export const deskRow = z
  .object({
    id: z.string(),
    version: z.number(),
    stockNumber: z.string(),
    title: z.string(),
    picture: z.string().nullable(),
    ask: moneyShape.nullable(),
    missing: z.array(blockShape),
  })
  .meta({ id: 'DeskRow' });
export type DeskRow = z.infer<typeof deskRow>;

export const listingDraft = z
  .object({
    /** the text as the rules would write it now */
    written: z.object({
      title: z.string(),
      body: z.string(),
    }),
    problems: z.array(wordingProblemShape),
    /** the same in a second language, where the shop writes one */
    second: z
      .object({
        language: z.enum(LANGUAGES),
        written: z.object({ title: z.string(), body: z.string() }),
        /** as it was edited or went up; null: as it is written */
        kept: z.object({ title: z.string(), body: z.string() }).nullable(),
        problems: z.array(wordingProblemShape),
      })
      .nullable(),
    postage: takenPostage.nullable(),
    cautions: z.array(z.string()),
    /** what is to be thought of where it is sold over the counter */
    cautionsAtCounter: z.array(z.string()),
    /** pictures a buyer looks for, ticked off by what is there */
    shots: z.array(z.object({ id: z.string(), ask: z.string(), done: z.boolean() })),
    /** findings that no picture shows */
    unseen: z.array(z.string()),
    /** what still stops it from going up */
    blocks: z.array(blockShape),
  })
  .meta({ id: 'ListingDraft' });
export type ListingDraft = z.infer<typeof listingDraft>;

const listing = ofPiece('listing');
export const listingRoutes = {
  desk: route({
    method: 'get',
    path: '/listing-desk',
    room: 'listing',
    access: 'read',
    summary: 'What is ready to be listed or nearly so, and what each still misses',
    answer: answers(
      z.object({ items: z.array(deskRow), ready: z.number().int(), waiting: z.number().int() }),
      'The queue, ready ones first',
    ),
  }),
  postage: route({
    method: 'get',
    path: '/pieces/:id/postage',
    room: 'listing',
    access: 'read',
    summary: 'What the carriers ask for it, packed and insured, at home and in three zones',
    params: byId,
    answer: answers(postage, 'Quotes by zone'),
  }),
  takePostage: route({
    ...listing,
    method: 'post',
    path: '/pieces/:id/postage',
    access: 'work',
    summary: 'Take the cheapest tracked quote of each zone for this piece: it is printed and reckoned with',
  }),
  offerAt: route({
    ...listing,
    method: 'put',
    path: '/pieces/:id/offered-at',
    access: 'work',
    summary: 'Where it is offered beside the marketplace, by the shop’s channels',
    body: z.object({
      channels: z
        .array(z.string().max(80))
        .max(20)
        .refine((ids) => new Set(ids).size === ids.length, 'a channel is named twice'),
    }),
  }),
  takenDownAt: route({
    ...listing,
    method: 'post',
    path: '/pieces/:id/offered-at/taken-down',
    access: 'work',
    summary: 'It has left, and was taken down where it was still offered',
    body: z.object({ channel: z.string().max(80) }),
  }),
  takeDown: route({
    ...listing,
    method: 'post',
    path: '/pieces/:id/listing/take-down',
    access: 'appraise',
    summary: 'Take it off the marketplace; its text becomes a draft again',
    body: z.object({ because: required(300, 'Why is it taken down?') }),
  }),
  secondExample: route({
    ...listing,
    method: 'post',
    path: '/pieces/:id/second-example',
    access: 'work',
    summary: 'A new piece of the same kind: what is common is copied, and nothing that is not',
    status: 201,
  }),
  draft: route({
    method: 'get',
    path: '/pieces/:id/listing/draft',
    room: 'listing',
    access: 'read',
    summary: 'The listing as the stored facts write it, and what an edit dropped',
    params: byId,
    answer: answers(listingDraft, 'Draft and problems'),
  }),
  putListing: route({
    ...listing,
    method: 'put',
    path: '/pieces/:id/listing',
    access: 'work',
    summary: 'Keep the text of a listing',
    body: listingBody,
  }),
  publish: route({
    ...listing,
    method: 'post',
    path: '/pieces/:id/listing/publish',
    access: 'appraise',
    summary: 'Put it up on the marketplace',
  }),
  fetchMessages: route({
    ...listing,
    method: 'post',
    path: '/pieces/:id/listing/messages/fetch',
    access: 'work',
    summary: 'Bring in questions and offers',
  }),
  answers: route({
    method: 'get',
    path: '/pieces/:id/listing/messages/:message/answers',
    room: 'listing',
    params: z.object({ id: ulid, message: ulid }),
    access: 'read',
    summary: 'What the record says to a question',
    answer: answers(z.object({ items: z.array(z.string()) }), 'At most three, the nearest first'),
  }),
  answer: route({
    ...listing,
    method: 'post',
    path: '/pieces/:id/listing/messages/:message/answer',
    params: z.object({ id: ulid, message: ulid }),
    access: 'work',
    summary: 'Answer a question or decline an offer',
    body: z
      .object({
        text: text(4000).default(''),
        decline: z.boolean().default(false),
        /** another price, for somebody who made an offer */
        counter: positiveMoney.nullish(),
      })
      .refine(({ text, decline, counter }) => decline || counter != null || text !== '', {
        path: ['text'],
        error: 'Write what is answered',
      }),
  }),
};
