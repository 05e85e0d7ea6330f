export {
  type LedgerRow,
  appendLedger,
  canonical,
  countLedger,
  entryIntact,
  entryOf,
  ledgerOfPiece,
  sha256,
  verifyLedger,
} from './ledger.ts';
