export {
  type AppraisalBody,
  type AppraisalEvidence,
  type AppraisalRecord,
  type AppraisalSummary,
  type AppraisedAndSold,
  type AppraisedRow,
  type Grounds,
  type KeptAppraisal,
  type NearSale,
  PURPOSES,
  type PairedSale,
  type PairsShown,
  type Purpose,
  type Recomputed,
  type SaleCheck,
  type TrackRecord,
  worthRoutes,
} from './appraisals.ts';
export { channelRoutes } from './channels.ts';
export type { OverrideRecord, WorthOfPiece } from './corrections.ts';
export { type OfferAnswer, type OfferRecord, type PieceFinances, offerRoutes } from './offers.ts';
export { mostToPayShape } from './shapes.ts';
export {
  REVALUATION_JOB,
  type StockGrounds,
  type StockPiece,
  type StockTotals,
  type StockValuation,
  stockRoutes,
} from './stock.ts';
export { netFields } from './shapes.ts';
