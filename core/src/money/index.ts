export * from './money.ts';
export * from './tax.ts';
