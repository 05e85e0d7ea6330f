export { CARE, type Care, type TradeTerms, ceiling } from './ceiling.ts';
export { CAUSES, type Cause, type PointOfValue, adjustmentsOf, pointOf } from './appraisal.ts';
export { decisionOver, valueOfSampleInformation, valueOfPerfectInformation } from './informationValue.ts';
export { BASES, BASIS_DEFINITIONS, type Basis, basesOfValue } from './bases.ts';
export { type Buying, type MostToPay, type Target, breakEven, costOf, leftOf, mostToPay } from './limits.ts';
export { type Channel, type Net, netOf } from './net.ts';
export { correctedEstimate } from './override.ts';
export { PAIRS_SHOWN, pairsBehind } from './pairs.ts';
export {
  type AskPoint,
  type Hazard,
  type OfferAdvice,
  type OfferJudgement,
  type Standing,
  askCurve,
  judgeOffer,
  learnHazard,
} from './patience.ts';
export { REPRICE_REASONS, AGES, type Age, type RepriceReason, ageOf, repriceAdvice } from './stock.ts';
export {
  type Band,
  HEARD_FROM,
  type HouseCalibration,
  type RangesHeld,
  type Settled,
  type Share,
  type SoldAfter,
  calibrationOf,
  houseCalibration,
  rangesHeld,
} from './trackRecord.ts';
