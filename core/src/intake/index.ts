export { ALLOCATION_METHODS, type Allocation, allocateLot } from './allocation.ts';
export { type Dealt, dealPictures, picturesByName } from './dealPictures.ts';
export { pastedPieces, type PastedPiece } from './pastedPieces.ts';
export { guessStockMapping, stockNotation, stockWordsSaid } from './stockList.ts';
export { pictureNames, type ReadRow, type RowProblem, type StockRow, stockRowReader } from './stockRow.ts';
export {
  STOCK_COLUMNS,
  STOCK_STATES,
  STOCK_WORD_COLUMNS,
  type StockColumn,
  stockMeaningsOf,
  type StockWordColumn,
} from './stockWords.ts';
