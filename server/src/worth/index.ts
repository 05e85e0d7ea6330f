export { mountWorth } from './routes.ts';
export { calibrateHouse } from './trackRecord.ts';
