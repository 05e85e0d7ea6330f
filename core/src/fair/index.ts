export {
  BAG_VERSION,
  type FairBag,
  FairTable,
  isBag,
  type PackedEncounters,
  packEncounters,
  packRates,
} from './bag.ts';
export {
  type FairJudgement,
  type FairQuestion,
  checkFairQuestion,
  fairSubject,
  judgeAsked,
} from './judge.ts';
export {
  type FairCandidate,
  type FairCheck,
  type FairChoice,
  type FairHit,
  type FairSight,
  type LookQuestion,
  checkLook,
  goneAlerts,
  lookAt,
  searchFair,
} from './look.ts';
