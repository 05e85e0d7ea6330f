export { mountListing } from './routes.ts';
export { besideOf, factsOf } from './facts.ts';
export { httpMarketplace, type Marketplace } from './marketplace.ts';
