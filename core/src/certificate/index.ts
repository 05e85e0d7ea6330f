export * from './credential.ts';
export * from './words.ts';
