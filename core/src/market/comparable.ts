/** Comparable sales and what an estimate is asked about (formats.md, "Comparables"). */
import type { Construction, VariantKind } from '../reference/index.ts';
import type { Money } from '../money/index.ts';

export const PRICE_KINDS = ['sold', 'asking', 'offer'] as const;
export type PriceKind = (typeof PRICE_KINDS)[number];
export const VENUE_KINDS = ['auction', 'retail', 'fair', 'private', 'online'] as const;
export type VenueKind = (typeof VENUE_KINDS)[number];
/** Where a shop sells, and what it reckons by. */
export const VENUE_OF_SHOP: VenueKind = 'retail';
export const ITEM_STATES = ['original', 'later', 'none', 'not-applicable'] as const;
export type ItemState = (typeof ITEM_STATES)[number];
export const ALTERATIONS = [
  'reground',
  'refinished',
  'polished',
  'repaired',
  'replaced',
  'engraved',
  'named',
] as const;
export type Alteration = (typeof ALTERATIONS)[number];

/** The words of each grading scale, best first (formats.md, "Grading"). */
export const GRADE_WORDS = {
  collector: ['mint', 'near-mint', 'excellent', 'very-good', 'good', 'fair', 'poor'],
  user: ['new', 'like-new', 'light-user', 'user', 'project'],
  finish: ['new', 'excellent', 'very-good', 'good', 'fair', 'poor'],
} as const satisfies Record<string, readonly string[]>;

export interface Comparable {
  readonly id: string;
  /** the day that counts (the middle of a month or year), days since 1970 */
  readonly day: number;
  /** as written down */
  readonly price: Money;
  readonly priceKind: PriceKind;
  readonly venueKind: VenueKind;
  /** the house, shop or fair, where it is named */
  readonly venue?: string | undefined;
  readonly pattern: string;
  readonly variant: string | undefined;
  readonly conditionIndex: number | undefined;
  /** a grade word stands for less than an index */
  readonly conditionBy?: 'index' | 'grade';
  /** the scale it was graded on, where a grade was told: which buyers it speaks of */
  readonly gradeScale?: string | undefined;
  readonly box: ItemState | undefined;
  readonly papers: ItemState | undefined;
  readonly sheath: ItemState | undefined;
  readonly alterations: readonly Alteration[];
  /** percent that must be added; undefined = not known */
  readonly buyerPremiumPct: number | undefined;
  readonly shippingIncluded: boolean;
}

export interface EstimateSubject {
  readonly pattern: string;
  /** what is missing to 1 is an unlisted variant */
  readonly variants: readonly { readonly variant: string; readonly probability: number }[];
  readonly conditionIndex: number | undefined;
  readonly box: ItemState | undefined;
  readonly papers: ItemState | undefined;
  readonly sheath: ItemState | undefined;
  readonly alterations: readonly Alteration[];
}

/** What the regression knows of a reference: who belongs where. */
export interface MarketVariant {
  readonly id: string;
  readonly pattern: string;
  readonly kind: VariantKind;
  /** values of its features that a buyer pays for: `scale-material horn` */
  readonly materials?: readonly string[];
  readonly quantity?: number | undefined;
  /** first year of its making */
  readonly year?: number | undefined;
}
export interface MarketPattern {
  readonly id: string;
  readonly maker: string;
  readonly construction: Construction;
}
export interface MarketReference {
  readonly patterns: ReadonlyMap<string, MarketPattern>;
  readonly variants: ReadonlyMap<string, MarketVariant>;
}

/** Units of a currency for one of the base on a day; undefined where no rate is known. */
export type RateOn = (currency: string, day: number) => number | undefined;
