export { type PieceProgress, STAGES, type Stage, missingNext, stageOf, stockNumber } from './stage.ts';
export { type KnownOfPiece, type StatementKind, extentOfInspection, statementsOf } from './statements.ts';
