export { COMPARABLES_JOB, listOfJob, type ComparablesJob } from './comparables.ts';
export { mountValue } from './routes.ts';
export { importComparables, referenceKnown } from './importComparables.ts';
export { answerEstimate, MarketOnDay, Markets, subjectAsked, VENUE_OF_SHOP } from './market.ts';
export { COUNTS_IN, keepReference, knownBeforeSale, type Knowledge } from './knowledge.ts';
export { isoDay, middlesOf } from './sales.ts';
export { normaliseRow, todayIso } from './normalise.ts';
export { insertComparables, knownHashes, nowCounted } from './queries.ts';
export { DailyRates, httpRates } from './rates.ts';
