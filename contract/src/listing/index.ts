export {
  type DeskRow,
  type ListingBlock,
  type ListingBody,
  type ListingDraft,
  POSTAGE_ZONES,
  type Postage,
  listingRoutes,
} from './listing.ts';
