export { MOST_AMENDED, amendMarket, mostAmended } from './amend.ts';
export type { Line } from './columns.ts';
export {
  ALTERATIONS,
  type Alteration,
  type Comparable,
  type EstimateSubject,
  GRADE_WORDS,
  ITEM_STATES,
  type ItemState,
  type MarketPattern,
  type MarketReference,
  type MarketVariant,
  PRICE_KINDS,
  type PriceKind,
  type RateOn,
  VENUE_KINDS,
  VENUE_OF_SHOP,
  type VenueKind,
} from './comparable.ts';
export {
  type Adjustment,
  type Estimate,
  FIXED_PERCENTAGES,
  estimateWorth,
  mixtureQuantile,
} from './estimate.ts';
export {
  type Evidence,
  type GatheredPrices,
  NOTHING_GATHERED,
  evidenceIn,
  gatherPrices,
  median,
} from './evidence.ts';
export { fitMarket } from './fit.ts';
export { marketForMakers } from './forMakers.ts';
export type { FittedMarket } from './fitted.ts';
export { amountInBase } from './inBase.ts';
export { guessMapping, guessNotation, rowReader, wordsSaid } from './lists/mapping.ts';
export { type RowCells, changedCell } from './lists/nearSame.ts';
export { WORD_COLUMNS, type WordColumn, meaningsOf } from './lists/words.ts';
export { Market, type PricedRow } from './market.ts';
export { fromLowerHalf, lowerHalf, packMarket, type PackedMarket, unpackMarket } from './packed.ts';
export { readRateList } from './rateList.ts';
export { marketReferenceOf } from './reference.ts';
export { VALUE_ENGINE_VERSION, VALUE_SETTINGS, type ValueSettings } from './settings.ts';
export { studentDensityAt0, studentQuantile } from './studentT.ts';
export { type SoldOfPattern, TREND_SETTINGS, type Trend, trendsOfMarket, trendOfPattern } from './trends.ts';
export { MARKETS, type MarketName, inTwoMarkets } from './twoMarkets.ts';
