export * from './account.ts';
