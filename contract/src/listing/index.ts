export { type ListingBody, type ListingDraft, listingRoutes } from './listing.ts';
