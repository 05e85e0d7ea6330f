/** The most to pay for what a piece may bring, on a shop's terms. */
import { mixtureQuantile, type Estimate } from '../market/index.ts';
import { money, type SaleTax } from '../money/index.ts';
import { mostToPay, type Buying, type MostToPay, type Target } from './limits.ts';
import type { Channel } from './net.ts';

/** Points of what a piece might bring that are counted on. */
export const CARE = { careful: 0.25, even: 0.5, bold: 0.6 } as const;
export type Care = keyof typeof CARE;

/** How a shop buys, and sells again. */
export interface TradeTerms {
  readonly buying: Buying;
  /** through which it sells again */
  readonly channel: Channel;
  readonly target: Target;
  readonly tax: SaleTax;
}

/** The point of the estimate that is counted on, and the most to pay for it. @param base currency of all amounts */
export function ceiling(
  base: string,
  terms: TradeTerms,
  estimate: Pick<Estimate, 'byVariant'>,
  care: Care,
): { readonly price: string; readonly most: MostToPay } {
  const price = money(Math.exp(mixtureQuantile(estimate.byVariant, CARE[care])), base).amount;
  return { price, most: mostToPay(base, terms.buying, terms.channel, price, terms.target, terms.tax) };
}
