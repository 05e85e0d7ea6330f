export * from './routes.ts';
export { sessionReader } from './session.ts';
export { findShop, shopOf, takeNumber } from './queries.ts';
