/** Custody and the ledger. */
import { z } from 'zod';
import { ofPiece, custodyBody } from '../pieces/index.ts';
import { answers, byId, pageQuery, route, ulid, type Page } from '../http/index.ts';

export interface LedgerEntry {
  seq: number;
  pieceId: string | null;
  kind: string;
  at: string;
  by: string;
  body: unknown;
  previous: string;
  hash: string;
}
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
export interface AuditEntry extends LedgerEntry {
  /** of the piece, where it concerns one */
  stockNumber: string | null;
  title: string | null;
}
export interface AuditPage extends Page<AuditEntry> {
  people: string[];
  kinds: string[];
}

export interface LedgerCheck {
  intact: boolean;
  entries: number;
  head: string;
  firstBroken: number | null;
}

export const provenanceRoutes = {
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
    answer: answers<Page<LedgerEntry>>('A page of entries, newest first'),
  }),
  audit: route({
    method: 'get',
    path: '/ledger',
    room: 'provenance',
    access: 'own',
    summary: 'Who did what, newest first',
    query: pageQuery.extend(auditFilter.shape),
    answer: answers<AuditPage>('A page of entries, and who and what there is to ask for'),
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
    answer: answers<LedgerCheck>('Whether nothing was rewritten'),
  }),
};
