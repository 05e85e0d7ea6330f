export { csvInTurns, isCsvError, readCsv } from './csv.ts';
export { lookAtList, mappingIn, rememberMapping, textOf, type ListReading } from './file.ts';
