export { addDays, todayIso } from './clock.ts';
