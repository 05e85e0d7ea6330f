export { mountInventory } from './routes.ts';
