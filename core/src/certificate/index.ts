export * from './credential.ts';
