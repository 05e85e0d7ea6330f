export * from './finding.ts';
export * from './rules.ts';
export * from './grade.ts';
