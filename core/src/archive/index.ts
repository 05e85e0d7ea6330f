export * from './keep.ts';
