export { mountListing } from './routes.ts';
