/** Custody and the ledger. */
import { moneyShape, pageShape, answers, byId, pageQuery, route, ulid } from '../http/index.ts';
import { z } from 'zod';
import { ofPiece, custodyBody } from '../pieces/index.ts';

export const ledgerEntry = z
  .object({
    seq: z.number(),
    pieceId: z.string().nullable(),
    kind: z.string(),
    at: z.string(),
    by: z.string(),
    body: z.unknown(),
    previous: z.string(),
    hash: z.string(),
  })
  .meta({ id: 'LedgerEntry' });
export type LedgerEntry = z.infer<typeof ledgerEntry>;
const auditFilter = z.object({
  /** the name under which it was done */
  person: z.string().trim().min(1).max(160).optional(),
  kind: z
    .string()
    .regex(/^[a-z-]{1,40}$/, 'this is no kind of entry')
    .optional(),
  piece: ulid.optional(),
  from: z.iso.date().optional(),
  to: z.iso.date().optional(),
});
export type AuditFilter = z.infer<typeof auditFilter>;
export const auditEntry = ledgerEntry
  .extend({
    /** of the piece, where it concerns one */
    stockNumber: z.string().nullable(),
    title: z.string().nullable(),
  })
  .meta({ id: 'AuditEntry' });
export type AuditEntry = z.infer<typeof auditEntry>;
export const auditPage = pageShape(auditEntry).extend({
  people: z.array(z.string()),
  kinds: z.array(z.string()),
});
export type AuditPage = z.infer<typeof auditPage>;

export const ledgerCheck = z
  .object({
    intact: z.boolean(),
    entries: z.number(),
    head: z.string(),
    firstBroken: z.number().nullable(),
  })
  .meta({ id: 'LedgerCheck' });
export type LedgerCheck = z.infer<typeof ledgerCheck>;

/** A piece as it was known on a day, by what had been written down, and what came since. */
export const asKnown = z
  .object({
    on: z.string(),
    title: z.string().nullable(),
    /** decided then, with the states of the reckoning and the reference that it rested on */
    decided: z
      .object({
        label: z.string(),
        tier: z.string(),
        reason: z.string(),
        engineVersion: z.string().nullable(),
        referenceRevision: z.string().nullable(),
      })
      .nullable(),
    /** what was seen then, judged by the reference and the engine of today: what knowing more has changed */
    byToday: z.object({
      label: z.string(),
      tier: z.string(),
      engineVersion: z.string(),
      referenceRevision: z.string(),
    }),
    seen: z.array(z.string()),
    found: z.array(z.string()),
    inspected: z.boolean(),
    provenance: z.string().nullable(),
    ask: moneyShape.nullable(),
    /** by the prices that were known then; null where none near it were */
    worth: z.object({ estimate: moneyShape, low: moneyShape, high: moneyShape }).nullable(),
    papers: z.array(z.object({ what: z.string(), path: z.string() })),
    since: z.array(
      z.object({ at: z.string(), by: z.string(), kind: z.string(), parts: z.array(z.string()) }),
    ),
  })
  .meta({ id: 'AsKnown' });
export type AsKnown = z.infer<typeof asKnown>;

export const provenanceRoutes = {
  asKnown: route({
    method: 'get',
    path: '/pieces/:id/as-known',
    hides: ['costs', 'margins'],
    room: 'provenance',
    access: 'read',
    summary: 'What was known of a piece on a day, and what changed since',
    params: byId,
    query: z.object({ on: z.iso.date('write a day') }),
    answer: answers(asKnown, 'As it was known then'),
  }),
  putCustody: route({
    ...ofPiece('provenance'),
    method: 'put',
    path: '/pieces/:id/custody',
    access: 'work',
    summary: 'Who had it when',
    body: custodyBody,
  }),
  ledger: route({
    method: 'get',
    path: '/pieces/:id/ledger',
    room: 'provenance',
    access: 'read',
    summary: 'Everything that happened to a piece',
    params: byId,
    query: pageQuery,
    answer: answers(pageShape(ledgerEntry), 'A page of entries, newest first'),
  }),
  audit: route({
    method: 'get',
    path: '/ledger',
    room: 'provenance',
    access: 'own',
    summary: 'Who did what, newest first',
    query: pageQuery.extend(auditFilter.shape),
    answer: answers(auditPage, 'A page of entries, and who and what there is to ask for'),
  }),
  auditExport: route({
    method: 'get',
    path: '/ledger/export.csv',
    room: 'provenance',
    access: 'own',
    summary: 'The same as CSV, safe to open in a spreadsheet',
    query: auditFilter,
    carries: 'file',
  }),
  verify: route({
    method: 'get',
    path: '/ledger/verify',
    room: 'provenance',
    access: 'read',
    summary: 'Walk the hashed chain',
    answer: answers(ledgerCheck, 'Whether nothing was rewritten'),
  }),
};
