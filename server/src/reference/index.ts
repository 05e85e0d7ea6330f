export { availabilityNotes, availabilityToday } from './availability.ts';
export { loadEncounters } from './encounters.ts';
export { Library } from './library.ts';
export { scarcityOfVariants } from './scarcity.ts';
export { mountReference } from './routes.ts';
export type { PackWork } from './packWorker.ts';
/** The module of the thread in which packs are read. */
export const PACK_WORKER = new URL('./packWorker.ts', import.meta.url);
