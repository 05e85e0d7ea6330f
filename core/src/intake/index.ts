export * from './stage.ts';
