export {
  type LedgerRow,
  appendEntries,
  appendLedger,
  type NewEntry,
  canonical,
  countLedger,
  entryIntact,
  entryOf,
  ledgerOfPiece,
  markOf,
  recordMark,
  sha256,
  verifyLedger,
} from './ledger.ts';
export { untilNextEntry } from './untilNextEntry.ts';
