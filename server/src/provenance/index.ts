export { DocumentStore } from './documentStore.ts';
export { mountProvenance } from './routes.ts';
