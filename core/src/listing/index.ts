export * from './write.ts';
export * from './statements.ts';
