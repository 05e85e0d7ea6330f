export { COMPARABLES_JOB, mountValue } from './routes.ts';
export { importComparables, knownFor, type RawFile } from './importComparables.ts';
export { answerEstimate, Markets, VENUE_OF_SHOP, type MarketOnDay } from './market.ts';
export { normaliseRow, todayIso } from './normalise.ts';
export { insertComparables, knownHashes } from './queries.ts';
