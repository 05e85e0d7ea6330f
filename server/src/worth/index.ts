export { mountWorth } from './routes.ts';
