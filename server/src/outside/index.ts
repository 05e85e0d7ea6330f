export { type CarrierQuote, type Carriers, httpCarriers } from './carriers.ts';
export { type GaugeAddress, Gauges } from './gauges.ts';
export { type Marketplace, httpMarketplace } from './marketplace.ts';
export { Outbox, OutboxRounds, sendOut } from './outbox.ts';
export { type RateSource, day, httpRates } from './rates.ts';
