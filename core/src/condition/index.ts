export * from './agreement.ts';
export * from './checkRules.ts';
export * from './finding.ts';
export * from './grade.ts';
export * from './inspection.ts';
export * from './rules.ts';
export * from './severity.ts';
export * from './treatment.ts';
