export {
  LISTING_SECTIONS,
  type ListingFacts,
  type ListingSection,
  type ListingStyle,
  PLAIN_STYLE,
  sectionsInOrder,
  type WordingProblem,
  cautionsFor,
  checkWording,
  claimFor,
  writeListing,
} from './write.ts';
export { type Shot, type ShotList, shotList } from './shots.ts';
