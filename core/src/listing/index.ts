export {
  LISTING_SECTIONS,
  POSTAGE_ZONES,
  type PostageZone,
  type ListingFacts,
  type ListingSection,
  type ListingStyle,
  type ListingText,
  PLAIN_STYLE,
  sectionsInOrder,
  type WordingProblem,
  checkWording,
  claimFor,
  writeListing,
} from './write.ts';
export { drawnShot, type DrawnShot, type Shot, type ShotList, shotList } from './shots.ts';
export { cautionsFor, PLACES_OF_SALE, type CautionRules, type PlaceOfSale } from './cautions.ts';
export { answersFrom } from './answers.ts';
