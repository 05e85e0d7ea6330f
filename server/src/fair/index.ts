export { mountFair } from './routes.ts';
