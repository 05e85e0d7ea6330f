export * from './database.ts';
export { Busy, errorNumber, expandHosts, isGone } from './hosts.ts';
export * from './backup.ts';
export * from './migrate.ts';
export * from './revision.ts';
export * from './rows.ts';
