export * from './problem.ts';
export * from './mount.ts';
export { diskFull, problemOf } from './faults.ts';
export { Room } from './room.ts';
export { answer, answeredOnce, sweepKeys, type Answered } from './once.ts';
export * from './page.ts';
export * from './upload.ts';
