export { custodyBody } from './custody.ts';
export {
  type ConditionBody,
  type QuotedScale,
  completeness,
  conditionBody,
  finding,
  quotedBody,
} from './findings.ts';
export {
  agreementShape,
  completenessShape,
  defectDifferenceShape,
  findingShape,
  gradeAnswerShape,
  inspectionShape,
  treatmentPlanShape,
} from './grading.ts';
export { identifyAnswerShape } from './identification.ts';
export { AS_FOUND, type IntakeBody, emptyIntake, intakeBody } from './intake.ts';
export {
  type ListingRecord,
  type MarketMessage,
  type TakenPostage,
  type WaitingErrand,
  takenPostage,
} from './listing.ts';
export {
  type AttributionBody,
  type NarrowingBody,
  type StoredAttribution,
  attributionBody,
  narrowing,
  observation,
  observationsBody,
} from './observations.ts';
export { ofPiece, pieceRoutes } from './routes.ts';
export {
  type PictureRecord,
  type PicturesBody,
  type PieceSheet,
  type PieceSlip,
  type PricingBody,
  type Readings,
  type Tray,
  countedPartsShape,
  pricingBody,
  readings,
} from './sheet.ts';
