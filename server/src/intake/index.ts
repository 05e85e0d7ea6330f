export { mountLots } from './lots.ts';
export { mountIntake, searchWords } from './routes.ts';
export { changePiece, dayBounds, pieceRecord } from './change.ts';
export {
  alterationsOf,
  gradeQuestion,
  gradeRecord,
  priceState,
  identifyQuestion,
  identifyRecord,
  isSealed,
  madeSpan,
  measuresInWords,
  Readers,
  subjectOf,
  trailRecord,
} from './readings.ts';
export { noteState, writeFindings } from './condition.ts';
export { addPicture, PictureStore, uploadedPicture } from './pictures.ts';
export { instant, loadPieces, type PieceRecord } from './record.ts';
export { takeIn } from './takeIn.ts';
export { ownPrice } from './ownPrices.ts';
