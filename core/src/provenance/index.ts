export * from './trail.ts';
