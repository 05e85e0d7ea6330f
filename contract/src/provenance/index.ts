export {
  type AuditEntry,
  type AuditFilter,
  type AuditPage,
  type LedgerCheck,
  type LedgerEntry,
  provenanceRoutes,
} from './provenance.ts';
