export { csvInTurns, isCsvError, readCsv, type CsvError, type CsvRow } from './csv.ts';
export { lookAtList, mappingIn, rememberMapping, textOf, type ListReading } from './file.ts';
