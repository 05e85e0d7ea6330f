export { usualChannel, pricingSettingsOf, tradeTermsOf } from './pricingSettings.ts';
export { type Issuer, issuerOf, letterheadOf, paperSettingsOf } from './paperSettings.ts';
export { findShop, shopOf, takeNumber } from './queries.ts';
export { VERSION, mountShop } from './routes.ts';
export { sessionReader, sweepSessions } from './session.ts';
