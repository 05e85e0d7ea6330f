export { mountLots } from './lots.ts';
export { mountIntake, searchWords } from './routes.ts';
export { changePiece, pieceRecord } from './change.ts';
export {
  alterationsOf,
  gradeQuestion,
  gradeRecord,
  priceState,
  identifyRecord,
  madeSpan,
  measuresInWords,
  Readers,
  subjectOf,
  trailRecord,
} from './readings.ts';
export { noteState, writeFindings } from './condition.ts';
export { PictureStore } from './pictures.ts';
export { instant, loadPieces, type PieceRecord } from './record.ts';
export { takeIn } from './takeIn.ts';
export { ownPrice } from './ownPrices.ts';
