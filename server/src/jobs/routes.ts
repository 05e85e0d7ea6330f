import { jobRoutes } from '@jutbank/contract/jobs';
import { answer, notFound, type Mount } from '../http/index.ts';
import { cancelJob, findJob } from './jobs.ts';

/** How far a long task is, and calling it off. */
export function mountJobs(mount: Mount): void {
  const { database } = mount;
  mount.handle(jobRoutes.job, async ({ params }) => {
    const job = await findJob(database, params.id);
    if (!job) throw notFound('task');
    return answer(job);
  });
  mount.handleInTransaction(jobRoutes.cancelJob, async (tx, { params }) => {
    await cancelJob(tx, params.id);
    const job = await findJob(tx, params.id);
    if (!job) throw notFound('task');
    return answer(job);
  });
}
