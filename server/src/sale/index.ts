export { mountSale } from './routes.ts';
