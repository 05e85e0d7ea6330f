export * from './database.ts';
export * from './backup.ts';
export * from './migrate.ts';
export * from './revision.ts';
