export { Library } from './library.ts';
export { mountReference } from './routes.ts';
export { searchReference } from './search.ts';
