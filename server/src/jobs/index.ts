export { cancelJob, findJob, JobRunner, queueJob } from './jobs.ts';
export { mountJobs } from './routes.ts';
