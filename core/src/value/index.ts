export * from './comparable.ts';
export { VALUE_ENGINE_VERSION, VALUE_SETTINGS } from './settings.ts';
export { fitMarket, type Market } from './fit.ts';
export * from './estimate.ts';
