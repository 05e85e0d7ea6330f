
export { VENUE_OF_SHOP, answerEstimate, answeredRows, subjectAsked } from './answer.ts';
export { COMPARABLES_JOB, type ComparablesJob, listOfJob } from './comparables.ts';
export { ceiling, estimateIn, inBase } from './estimates.ts';
export { houseRecord, keepHouseRecord, settingsInUse } from './houseRecord.ts';
export { importComparables, referenceKnown } from './importComparables.ts';
export { COUNTS_IN, type Knowledge, keepReference, knownBeforeSale } from './knowledge.ts';
export { type DayRates, MarketOnDay, Markets } from './market.ts';
export { normaliseRow } from './normalise.ts';
export { insertComparables, stampRevision } from './queries.ts';
export { DailyRates } from './rates.ts';
export { mountMarket } from './routes.ts';
export { isoDay, middlesOf } from './sales.ts';
