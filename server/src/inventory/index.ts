export { mountInventory } from './routes.ts';
export { findEverything } from './find.ts';
