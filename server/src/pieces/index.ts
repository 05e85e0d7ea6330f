export {
  ATTENTION_COLUMNS,
  attentionFacts,
  attentionOf,
  LONG_UNSOLD_DAYS,
  PUBLISHED_LISTING,
  type AttentionRow,
} from './attention.ts';
export { type Assessment, assessPiece, gradeQuestion, identifyQuestion, isSealed } from './assess.ts';
export { changePiece, dayBounds, lockPiece, pieceRecord } from './change.ts';
export { mountLabels } from './labels.ts';
export { COUNTER, costOf, costsOf, withPostage } from './costs.ts';
export {
  intakeColumns,
  createPiece,
  createPieces,
  type NewPiece,
  numberKey,
  numbersInUse,
} from './create.ts';
export { factsOf } from './facts.ts';
export { changeByCall, mountChange } from './mountChange.ts';
export { duplicateSerials, numbersOfShop, type NumberOfShop } from './duplicateSerials.ts';
export { ownPrice } from './ownPrice.ts';
export { PictureStore, addPicture, uploadedPicture } from './pictures.ts';
export { Readers, measuresInWords } from './readers.ts';
export { type PieceRecord, loadPieces } from './record.ts';
export { FIRST_PICTURE } from './slips.ts';
export { mountPieces, searchWords } from './routes.ts';
export { subjectOf, whyNoEstimate } from './subject.ts';
export { seenOf } from './trail.ts';
export { type RecordContext, contextOf, factsForStatements } from './statements.ts';
export { writeObservations } from './observations.ts';
