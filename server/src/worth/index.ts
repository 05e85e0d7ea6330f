export { mountWorth } from './routes.ts';
export { revalueStock } from './stock.ts';
export { calibrateHouse } from './trackRecord.ts';
