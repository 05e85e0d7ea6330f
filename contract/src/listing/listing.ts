/** Listings, their wording, and what the marketplace answers. */
import { z } from 'zod';
import type { WordingProblem } from '@jutbank/core/listing';
import { answers, byId, required, route, text, ulid } from '../http/index.ts';

export const listingBody = z.object({
  title: required(300, 'A listing needs a title'),
  body: required(20_000, 'A listing needs its text'),
});
export type ListingBody = z.infer<typeof listingBody>;
export interface ListingDraft {
  /** the text as the rules would write it now */
  written: { title: string; body: string };
  problems: WordingProblem[];
  cautions: string[];
  /** what still stops it from going up */
  blocks: string[];
}

const listing = { room: 'listing', params: byId, answer: answers<unknown>('The piece sheet') } as const;
export const listingRoutes = {
  draft: route({
    method: 'get',
    path: '/pieces/:id/listing/draft',
    room: 'listing',
    access: 'read',
    summary: 'The listing as the stored facts write it, and what an edit dropped',
    params: byId,
    answer: answers<ListingDraft>('Draft and problems'),
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
    body: z.object({ text: text(4000).default(''), decline: z.boolean().default(false) }),
  }),
};
