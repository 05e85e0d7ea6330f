/** Listings, their wording, and what the marketplace answers. */
import { wordingProblemShape } from './shapes.ts';
import { z } from 'zod';
import { ofPiece } from '../pieces/index.ts';
import { answers, byId, required, route, text, ulid } from '../http/index.ts';

export const listingBody = z.object({
  title: required(300, 'A listing needs a title'),
  body: required(20_000, 'A listing needs its text'),
});
export type ListingBody = z.infer<typeof listingBody>;
export const listingDraft = z
  .object({
    /** the text as the rules would write it now */
    written: z.object({
      title: z.string(),
      body: z.string(),
    }),
    problems: z.array(wordingProblemShape),
    cautions: z.array(z.string()),
    /** what still stops it from going up */
    blocks: z.array(z.string()),
  })
  .meta({ id: 'ListingDraft' });
export type ListingDraft = z.infer<typeof listingDraft>;

const listing = ofPiece('listing');
export const listingRoutes = {
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
  answer: route({
    ...listing,
    method: 'post',
    path: '/pieces/:id/listing/messages/:message/answer',
    params: z.object({ id: ulid, message: ulid }),
    access: 'work',
    summary: 'Answer a question or decline an offer',
    body: z
      .object({ text: text(4000).default(''), decline: z.boolean().default(false) })
      .refine(({ text, decline }) => decline || text !== '', {
        path: ['text'],
        error: 'Write what is answered',
      }),
  }),
};
