export * from './database.ts';
export { Busy, errorNumber, expandHosts } from './hosts.ts';
export * from './backup.ts';
export * from './migrate.ts';
export * from './revision.ts';
