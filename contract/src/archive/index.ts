export * from './archive.ts';
