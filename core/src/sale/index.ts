export * from './net.ts';
export * from './limits.ts';
