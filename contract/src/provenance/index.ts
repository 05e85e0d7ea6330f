export {
  type AsKnown,
  type AuditEntry,
  type AuditFilter,
  type AuditPage,
  type LedgerCheck,
  type LedgerEntry,
  provenanceRoutes,
} from './provenance.ts';
export { linkedArtFile } from './linkedArtShape.ts';
export {
  type BodyNames,
  type BodyRecord,
  bodyNames,
  type ClaimKind,
  type DocumentBody,
  documentBody,
  type DocumentRecord,
  documentRoutes,
} from './documents.ts';
