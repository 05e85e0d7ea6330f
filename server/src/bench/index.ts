export { mountBench } from './routes.ts';
