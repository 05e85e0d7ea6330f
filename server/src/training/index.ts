export { mountTraining } from './routes.ts';
