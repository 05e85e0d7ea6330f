export { intakeRoutes } from './intake.ts';
export {
  type LotBody,
  type LotPiece,
  type LotSharesBody,
  type LotSheet,
  type LotSummary,
  lotRoutes,
} from './lots.ts';
