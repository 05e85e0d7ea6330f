export * from './problem.ts';
export * from './mount.ts';
export { answer, sweepKeys, type Answered } from './once.ts';
export * from './page.ts';
export * from './upload.ts';
