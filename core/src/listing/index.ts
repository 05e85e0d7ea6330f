export {
  type ListingFacts,
  type WordingProblem,
  cautionsFor,
  checkWording,
  claimFor,
  writeListing,
} from './write.ts';
