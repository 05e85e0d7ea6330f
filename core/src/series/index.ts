export * from './rule.ts';
export * from './standing.ts';
