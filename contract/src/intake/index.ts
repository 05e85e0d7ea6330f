export { intakeRoutes } from './intake.ts';
export {
  type LotBody,
  type LotPiece,
  type LotSharesBody,
  type LotSheet,
  type LotSummary,
  lotPiecesBody,
  type LotPiecesBody,
  lotRoutes,
  MOST_AT_ONCE,
} from './lots.ts';
export {
  type ListedPiece,
  MOST_STOCK_ROWS,
  type StockListAnswer,
  type StockListPieces,
  stockListRoutes,
  type StockListSummary,
  type StockLook,
  stockMapping,
} from './stockLists.ts';
