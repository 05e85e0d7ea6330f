
export { COMPARABLE_COLUMNS, COMPARABLE_STATES, type ComparableColumn, type ComparableFilter, type ComparableRecord, type ComparableState, type ComparablesImportAnswer, type EstimateAnswer, type EstimateQuestion, type EstimateRow, type FileLook, type ImportRecord, REQUIRED_COLUMNS, type RatesKnown, type RatesStored, type RowError, type SuspectRecord, columnMapping, comparableRow, estimateAnswer, estimateQuestion, estimateRow, marketRoutes } from './market.ts';
export { trendShape } from './shapes.ts';
