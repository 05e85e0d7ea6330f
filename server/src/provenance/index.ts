export * from './routes.ts';
export { appendLedger, canonical, entryIntact, sha256, verifyLedger } from './ledger.ts';
