
export { type Assessment, gradeQuestion, identifyQuestion, isSealed } from './assess.ts';
export { changePiece, dayBounds, lockPiece, pieceRecord } from './change.ts';
export { costOf } from './costs.ts';
export { intakeColumns, createPiece } from './create.ts';
export { factsOf } from './facts.ts';
export { changeByCall, mountChange } from './mountChange.ts';
export { bearsNumber, duplicateSerials } from './duplicateSerials.ts';
export { ownPrice } from './ownPrice.ts';
export { PictureStore, addPicture, uploadedPicture } from './pictures.ts';
export { Readers, measuresInWords, subjectOf } from './readers.ts';
export { type PieceRecord, instant, loadPieces } from './record.ts';
export { mountPieces, searchWords } from './routes.ts';
export { type RecordContext, contextOf, factsForStatements } from './statements.ts';
