export * from './stage.ts';
export * from './allocation.ts';
