export { mountListing } from './routes.ts';
export { factsOf } from './facts.ts';
