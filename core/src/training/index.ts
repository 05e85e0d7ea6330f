export { type DrillPiece, questionsOfPiece } from './fromPieces.ts';
export { questionsOfReference } from './fromReference.ts';
export {
  DRILL_KINDS,
  type DrillDrawing,
  type DrillKind,
  type DrillQuestion,
  LEAST_CHOICES,
  MOST_CHOICES,
} from './question.ts';
export { afterAnswer, type DrillCard, type Learnt, learntOf, nextQuestions } from './schedule.ts';
