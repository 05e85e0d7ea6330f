export { todayIso } from './clock.ts';
