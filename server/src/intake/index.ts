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
export { noteState, treatmentInWords, writeFindings } from './condition.ts';
export { PictureStore } from './pictures.ts';
export { instant, loadPieces, type PieceRecord } from './record.ts';
