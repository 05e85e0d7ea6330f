export * from './day.ts';
export * from './period.ts';
export * from './spoken.ts';
