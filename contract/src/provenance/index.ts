/** Custody and the ledger. */
import { z } from 'zod';
import { EVIDENCE_KINDS } from '@jutbank/core/provenance';
import { answers, byId, edtf, pageQuery, required, route, text, type Page } from '../http/index.ts';

export const custodyEvent = z.object({
  holder: required(200, 'Who had it?'),
  private: z.boolean().default(false),
  place: text(200).nullable().default(null),
  period: edtf,
  how: text(500).nullable().default(null),
  evidence: z.enum(EVIDENCE_KINDS),
  note: text(2000).nullable().default(null),
});
export const custodyBody = z.object({ events: z.array(custodyEvent).max(200) });
export type CustodyBody = z.infer<typeof custodyBody>;

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
export interface LedgerCheck {
  intact: boolean;
  entries: number;
  head: string;
  firstBroken: number | null;
}

export const provenanceRoutes = {
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
  verify: route({
    method: 'get',
    path: '/ledger/verify',
    room: 'provenance',
    access: 'read',
    summary: 'Walk the hashed chain',
    answer: answers<LedgerCheck>('Whether nothing was rewritten'),
  }),
};
