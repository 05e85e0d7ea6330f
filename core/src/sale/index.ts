export * from './net.ts';
export * from './limits.ts';
export * from './tax.ts';
