export * from './routes.ts';
export { appendLedger, canonical, sha256, verifyLedger } from './ledger.ts';
