export { mountSeries } from './routes.ts';
