export { mountLots } from './lots.ts';
export { mountIntake, searchWords } from './routes.ts';
export { changePiece, dayBounds, lockPiece, pieceRecord } from './change.ts';
export { alterationsOf, measuresInWords, priceState, Readers, subjectOf, trailRecord } from './readings.ts';
export {
  assessPiece,
  gradeQuestion,
  identifyQuestion,
  isSealed,
  type Assessment,
  type PieceDate,
} from './assess.ts';
export { seenBefore } from './numbers.ts';
export { noteState, writeFindings } from './condition.ts';
export { addPicture, PictureStore, uploadedPicture } from './pictures.ts';
export { instant, loadPieces, type PieceRecord } from './record.ts';
export { takeIn } from './takeIn.ts';
export { costOf, costsOf } from './costs.ts';
export { ownPrice } from './ownPrices.ts';
export { correctedFigure, inForce, overridesOf } from './overrides.ts';
export { besideOf, knownOf, type Beside } from './statements.ts';
