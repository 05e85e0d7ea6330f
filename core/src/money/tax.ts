/** Tax inside a price: on the whole of a sale, or on the margin over what was paid for the goods. */
import { Decimal } from 'decimal.js';
import { minorDigits } from './money.ts';

export const TAX_BASES = ['none', 'sales', 'margin'] as const;
export interface SaleTax {
  readonly on: (typeof TAX_BASES)[number];
  /** percent of the price (or margin) without tax */
  readonly pct: number;
}
export const NO_TAX: SaleTax = { on: 'none', pct: 0 };

/** What of each further unit of a taxed price is tax: pct ÷ (100 + pct), the price holding it already. */
export const taxShare = (tax: SaleTax): Decimal =>
  tax.on === 'none' ? new Decimal(0) : new Decimal(tax.pct).div(new Decimal(tax.pct).plus(100));

/**
 * The tax that a price holds, rounded to the minor unit, halves away from zero. On the margin nothing falls due where
 * the piece brings no more than was `paid` for it; a loss is not set against other pieces. Which of the two a shop may
 * use is for its tax adviser to say.
 */
export function taxIn(currency: string, tax: SaleTax, price: Decimal, paid: Decimal): Decimal {
  const taxed = tax.on === 'margin' ? Decimal.max(0, price.minus(paid)) : price;
  return taxed.times(taxShare(tax)).toDecimalPlaces(minorDigits(currency), Decimal.ROUND_HALF_UP);
}
