export { mountProvenance } from './routes.ts';
