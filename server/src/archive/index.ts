export { writeArchive, readArchive } from './bag.ts';
export type { BackupPlace } from './backup.ts';
export { backupTooOld } from './queries.ts';
export { mountArchive } from './routes.ts';
export { BackupRounds, runBackup } from './rounds.ts';
