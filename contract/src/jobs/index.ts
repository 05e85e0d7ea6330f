export { type JobAnswer, jobRoutes } from './jobs.ts';
