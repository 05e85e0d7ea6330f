export {
  type PieceProgress,
  STAGES,
  LEFT_STAGES,
  hasLeft,
  type Stage,
  missingNext,
  type TakenIn,
  stageOf,
  stockNumber,
} from './stage.ts';
export {
  type KnownOfPiece,
  type Statement,
  type StatementKind,
  extentOfInspection,
  statementsOf,
} from './statements.ts';
export { countedParts, MOST_BLADES, MOST_TOOLS, type CountedParts } from './countedParts.ts';
export { questionOf, SOURCE_OF_PIECE, type PieceToIdentify, type SourceOfPiece } from './question.ts';
export { asKnownOn, changesSince, type KnownThen, type SinceThen, type Written } from './asKnown.ts';
