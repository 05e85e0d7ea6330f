export { mountIntake } from './routes.ts';
