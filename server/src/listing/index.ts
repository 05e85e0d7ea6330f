export { mountListing } from './routes.ts';
export { factsOf } from './facts.ts';
export { httpMarketplace, type Marketplace } from './marketplace.ts';
