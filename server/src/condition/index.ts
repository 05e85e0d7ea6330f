export { mountCondition } from './routes.ts';
