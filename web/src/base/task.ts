/** Long work of the server, followed from here. */
import { jobRoutes } from '@jutbank/contract/jobs';
import { ApiProblem, send } from './api.ts';

const ASKED_EVERY_MS = 400;

/**
 * Asks after a task until it is done. @param tell hears the share that is done
 * @throws when it failed or was cancelled; nothing was changed then
 */
export async function awaitJob(id: string, tell: (share: number) => void): Promise<unknown> {
  for (;;) {
    const job = await send(jobRoutes.job, { params: { id } });
    tell(job.progress);
    if (job.state === 'done') return job.result;
    if (job.state === 'failed')
      throw new ApiProblem(500, 'It did not go through', 'Nothing was changed.', []);
    if (job.state === 'cancelled')
      throw new ApiProblem(0, 'Cancelled', 'Cancelled: nothing was changed.', []);
    await new Promise((resolve) => setTimeout(resolve, ASKED_EVERY_MS));
  }
}
