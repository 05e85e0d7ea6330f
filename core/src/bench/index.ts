export * from './observation.ts';
export { BENCH_SETTINGS, ENGINE_VERSION, type BenchSettings } from './settings.ts';
export { compileReference, type ReferenceIndex, type Row } from './compile.ts';
export { monthOf } from './months.ts';
export { checkQuestion, checkObservation, subjectKey } from './checkObservations.ts';
export { identify } from './identify.ts';
export { codeAnswers } from './codeAnswers.ts';
export { readSerial } from './stampSigns.ts';
export { numbersOf } from './history.ts';
