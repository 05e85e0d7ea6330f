export { Library } from './library.ts';
export { mountReference, searchReference } from './routes.ts';
