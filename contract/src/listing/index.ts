export {
  type DeskRow,
  type ListingBlock,
  type ListingBody,
  type ListingDraft,
  listingRoutes,
} from './listing.ts';
