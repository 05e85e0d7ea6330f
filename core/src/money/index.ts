export * from './money.ts';
export * from './tax.ts';
export { readAmount } from './typed.ts';
