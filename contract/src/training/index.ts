export * from './training.ts';
