export * from './comparable.ts';
export { VALUE_ENGINE_VERSION, VALUE_SETTINGS, type ValueSettings } from './settings.ts';
export { fitMarket, type FitOptions, type Start } from './fit.ts';
export type { ExcludedSale, FittedMarket, Suspect } from './fitted.ts';
export { amendMarket, MOST_AMENDED, mostAmended } from './amend.ts';
export { Market } from './market.ts';
export * from './estimate.ts';
export {
  evidenceIn,
  gatherPrices,
  NOTHING_GATHERED,
  type Evidence,
  type GatheredPrices,
} from './evidence.ts';
export {
  guessMapping,
  guessNotation,
  rowReader,
  takeGuesses,
  wordsSaid,
  type ColumnMapping,
} from './lists/mapping.ts';
export { DATE_ORDERS, type DateOrder } from './lists/cells.ts';
export {
  meaningsOf,
  NO_MEANING,
  WORD_COLUMNS,
  type WordColumn,
  type WordSaid,
  type WordsMeant,
} from './lists/words.ts';
export { changedCell, type RowCells } from './lists/nearSame.ts';
export * from './bases.ts';
export * from './appraisal.ts';
export * from './trackRecord.ts';
export * from './patience.ts';
export * from './override.ts';
export { PAIRS_SHOWN, pairsBehind, type PairsOfLine, type SalePair } from './pairs.ts';
export * from './asking.ts';
export * from './twoMarkets.ts';
export * from './trends.ts';
export * from './stock.ts';
export * from './rateList.ts';
export { namesSaid, nameKey, type NameSaid, type NamesKnown, type NamesMeant } from './lists/naming.ts';
export { studentDensityAt0, studentQuantile } from './studentT.ts';
