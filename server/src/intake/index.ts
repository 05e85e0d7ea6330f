export { mountIntake, searchWords } from './routes.ts';
export { changePiece, pieceRecord } from './change.ts';
export {
  alterationsOf,
  gradeRecord,
  priceState,
  identifyRecord,
  madeSpan,
  Readers,
  trailRecord,
} from './readings.ts';
export { PictureStore } from './pictures.ts';
export { instant, loadPieces, type PieceRecord } from './record.ts';
