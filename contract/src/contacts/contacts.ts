/** People and bodies the shop buys from and sells to. */
import { z } from 'zod';
import { answers, byId, pageQuery, pageShape, required, route, text } from '../http/index.ts';

export const contactBody = z.object({
  name: required(200, 'Who is it?'),
  address: text(500).default(''),
  email: z.union([z.literal(''), z.email('this is not an e-mail address').max(200)]).default(''),
  phone: text(60).default(''),
  taxNumber: text(60).default(''),
  note: text(2000).default(''),
  /** the day on which they agreed to be written to */
  consentOn: z.iso.date('write a day').nullable().default(null),
  consentTo: text(300).default(''),
});
export type ContactBody = z.infer<typeof contactBody>;
export const contact = contactBody
  .extend({
    id: z.string(),
    version: z.number(),
    /** an instant, where they asked to be forgotten */
    erasedAt: z.string().nullable(),
    bought: z.number().int(),
    consigned: z.number().int(),
  })
  .meta({ id: 'Contact' });
export type Contact = z.infer<typeof contact>;
export const erasure = z
  .object({
    erased: z.boolean(),
    /** invoices that still name them, as the law asks, and until when */
    kept: z.array(z.object({ invoiceNumber: z.string(), until: z.string() })),
  })
  .meta({ id: 'Erasure' });
export type Erasure = z.infer<typeof erasure>;

const contacts = { room: 'contacts' } as const;
export const contactRoutes = {
  listContacts: route({
    ...contacts,
    hides: ['buyers'],
    method: 'get',
    path: '/contacts',
    access: 'read',
    summary: 'People and bodies, by name',
    query: pageQuery.extend({ q: z.string().max(100).optional() }),
    answer: answers(pageShape(contact), 'A page of contacts'),
  }),
  exportContacts: route({
    ...contacts,
    hides: ['buyers'],
    method: 'get',
    path: '/contacts.vcf',
    access: 'work',
    summary: 'All of them as vCards (RFC 2426), but for those who asked to be forgotten',
    carries: 'file',
  }),
  addContact: route({
    ...contacts,
    hides: ['buyers'],
    method: 'post',
    path: '/contacts',
    access: 'work',
    summary: 'Note somebody',
    body: contactBody,
    answer: answers(contact, 'The contact'),
    status: 201,
  }),
  putContact: route({
    ...contacts,
    hides: ['buyers'],
    method: 'put',
    path: '/contacts/:id',
    access: 'work',
    summary: 'Change what is noted of somebody',
    params: byId,
    body: contactBody,
    answer: answers(contact, 'The contact'),
  }),
  eraseContact: route({
    ...contacts,
    hides: ['buyers'],
    method: 'delete',
    path: '/contacts/:id',
    access: 'own',
    summary: 'Forget somebody who asks for it, as far as the law lets',
    params: byId,
    answer: answers(erasure, 'What is forgotten, and what must be kept'),
  }),
};
