export * from './observation.ts';
export { BENCH_SETTINGS, ENGINE_VERSION, type BenchSettings } from './settings.ts';
export { compileReference, compiling, withEncounters, type ReferenceIndex } from './compile.ts';
export { type Row } from './compiled.ts';
export {
  NO_ENCOUNTERS,
  type Encounters,
  type Frequency,
  type LearntFrom,
  type LearntLevel,
} from './frequency.ts';
export { monthOf } from './months.ts';
export { checkQuestion, checkObservation, subjectKey } from './checkObservations.ts';
export { checksOf, identify } from './identify.ts';
export type { CheckOutcomes } from './nextChecks.ts';
export { codeAnswers } from './codeAnswers.ts';
export { numbersOf } from './history.ts';
export { prepared } from './expectations.ts';
export { withAlerts } from './tier.ts';
export { type ReferenceHit, searchReference } from './search.ts';
export { bearsNumber, numbersRead, seenBefore, type KnownNumber, type ReadNumber } from './seenNumbers.ts';
