export * from './write.ts';
