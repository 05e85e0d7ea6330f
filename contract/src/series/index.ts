export * from './series.ts';
