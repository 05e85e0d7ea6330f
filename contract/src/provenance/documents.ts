/** Documents that prove something of pieces, and bodies with the names they had. */
import { CLAIM_KINDS, DOCUMENT_KINDS } from '@jutbank/core/provenance';
import { z } from 'zod';
import { answers, byId, edtf, required, route, slug, text, ulid } from '../http/index.ts';

const claim = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('feature'),
    feature: slug,
    value: z.union([z.string().min(1, 'what does it say?').max(80), z.number()]),
  }),
  z.object({ kind: z.literal('number'), number: required(80, 'Which number?') }),
  z.object({ kind: z.literal('made'), period: edtf }),
  z.object({
    kind: z.literal('owner'),
    holder: required(200, 'Who had it?'),
    period: edtf.nullable().default(null),
  }),
  z.object({ kind: z.literal('other'), says: required(500, 'What does it say?') }),
]);
export const documentBody = z.object({
  kind: z.enum(DOCUMENT_KINDS),
  title: required(200, 'What is it called?'),
  dated: edtf.nullable().default(null),
  /** who wrote or issued it */
  author: text(200).default(''),
  keptAt: text(200).default(''),
  page: text(60).default(''),
  transcription: text(20_000).default(''),
  /** what it says of this piece; other pieces keep what is said of them */
  claims: z.array(claim).max(60).default([]),
});
export type DocumentBody = z.infer<typeof documentBody>;
export type ClaimKind = (typeof CLAIM_KINDS)[number];

export const documentRecord = documentBody
  .extend({
    id: z.string(),
    version: z.number(),
    file: z
      .object({ name: z.string(), type: z.string(), size: z.number(), fingerprint: z.string() })
      .nullable(),
    /** of each claim: what it says in words, and whether that holds against the piece */
    checked: z.array(
      z.object({
        says: z.string(),
        verdict: z.enum(['agrees', 'contradicts', 'not-seen', 'open']),
        because: z.string(),
      }),
    ),
    /** other pieces it speaks of */
    elsewhere: z.array(z.object({ id: z.string(), stockNumber: z.string(), title: z.string() })),
    notedBy: z.string(),
    notedAt: z.string(),
  })
  .meta({ id: 'DocumentRecord' });
export type DocumentRecord = z.infer<typeof documentRecord>;

export const bodyNames = z.object({
  names: z
    .array(z.object({ name: required(200, 'What was it called?'), period: edtf }))
    .min(1, 'a body has a name')
    .max(30),
  note: text(500).default(''),
});
export type BodyNames = z.infer<typeof bodyNames>;
export const bodyRecord = bodyNames
  .extend({ id: z.string(), version: z.number() })
  .meta({ id: 'BodyRecord' });
export type BodyRecord = z.infer<typeof bodyRecord>;

const ofPiece = { room: 'provenance', params: byId } as const;
const one = answers(documentRecord, 'The document, as it stands against this piece');
const pieceAndDocument = z.object({ id: ulid, document: ulid });
export const documentRoutes = {
  documents: route({
    ...ofPiece,
    method: 'get',
    path: '/pieces/:id/documents',
    access: 'read',
    summary: 'Documents of a piece, each claim set against what was seen',
    answer: answers(z.object({ items: z.array(documentRecord) }), 'Documents'),
  }),
  addDocument: route({
    ...ofPiece,
    method: 'post',
    path: '/pieces/:id/documents',
    access: 'work',
    summary: 'Note a document of a piece',
    body: documentBody,
    answer: one,
    status: 201,
  }),
  putDocument: route({
    ...ofPiece,
    params: pieceAndDocument,
    method: 'put',
    path: '/pieces/:id/documents/:document',
    access: 'work',
    summary: 'Change what is noted of a document, and what it says of this piece',
    body: documentBody,
    answer: one,
  }),
  linkDocument: route({
    ...ofPiece,
    params: pieceAndDocument,
    method: 'post',
    path: '/pieces/:id/documents/:document/link',
    access: 'work',
    summary: 'A document of another piece speaks of this one too',
    answer: one,
  }),
  unlinkDocument: route({
    ...ofPiece,
    params: pieceAndDocument,
    method: 'delete',
    path: '/pieces/:id/documents/:document',
    access: 'work',
    summary: 'A document does not speak of this piece; with its last piece it goes',
    answer: answers(z.object({ removed: z.boolean() }), 'Whether the document itself is gone'),
  }),
  addFile: route({
    ...ofPiece,
    params: pieceAndDocument,
    method: 'post',
    path: '/pieces/:id/documents/:document/file',
    access: 'work',
    summary: 'The scan of a document (multipart part `file`): PDF, picture or text, kept as it is',
    carries: 'upload',
    answer: one,
    status: 201,
  }),
  file: route({
    method: 'get',
    path: '/documents/:id/file',
    room: 'provenance',
    params: byId,
    access: 'read',
    summary: 'The scan of a document',
    carries: 'file',
  }),
  bodies: route({
    method: 'get',
    path: '/bodies',
    room: 'provenance',
    access: 'read',
    summary: 'Museums, firms, services and units, by the names they had',
    answer: answers(z.object({ items: z.array(bodyRecord) }), 'Bodies'),
  }),
  addBody: route({
    method: 'post',
    path: '/bodies',
    room: 'provenance',
    access: 'work',
    summary: 'Note the names of a body',
    body: bodyNames,
    answer: answers(bodyRecord, 'The body'),
    status: 201,
  }),
  putBody: route({
    method: 'put',
    path: '/bodies/:id',
    room: 'provenance',
    params: byId,
    access: 'work',
    summary: 'Change the names of a body',
    body: bodyNames,
    answer: answers(bodyRecord, 'The body'),
  }),
  removeBody: route({
    method: 'delete',
    path: '/bodies/:id',
    room: 'provenance',
    params: byId,
    access: 'work',
    summary: 'Take a body off the list',
    answer: answers(z.object({ removed: z.string() }), 'Which'),
  }),
  linkedArt: route({
    ...ofPiece,
    method: 'get',
    path: '/pieces/:id/linked-art.json',
    access: 'read',
    summary: 'Object, production, custody and documents as Linked Art JSON-LD',
    carries: 'file',
  }),
  custodyCsv: route({
    ...ofPiece,
    method: 'get',
    path: '/pieces/:id/custody.csv',
    access: 'read',
    summary: 'Who had it when, as CSV; private persons as in print',
    carries: 'file',
  }),
  dossier: route({
    ...ofPiece,
    method: 'get',
    path: '/pieces/:id/dossier.pdf',
    hides: ['costs', 'margins', 'buyers'],
    access: 'read',
    summary:
      'Everything known of a piece, for paper: evidence, condition, comparables, custody, documents, ledger',
    carries: 'file',
  }),
};
