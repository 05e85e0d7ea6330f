export * from './routes.ts';
export { sessionReader, sweepSessions } from './session.ts';
export { findShop, shopOf, takeNumber } from './queries.ts';
export { mountWorthSettings, usualChannel, worthSettingsOf } from './worthSettings.ts';
