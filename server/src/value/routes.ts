/** Estimates and tasks; comparables and rates have files of their own. */
import { valueRoutes } from '@jutbank/contract/value';
import { answer, notFound, type Mount } from '../http/index.ts';
import { cancelJob, findJob } from '../jobs/index.ts';
import type { Library } from '../reference/index.ts';
import { mountComparables } from './comparables.ts';
import { answerEstimate } from './answer.ts';
import type { Markets } from './market.ts';
import { mountRates, type RateSource } from './rates.ts';

export function mountValue(mount: Mount, library: Library, markets: Markets, rates: RateSource): void {
  const { database } = mount;
  mountComparables(mount, library, markets);
  mountRates(mount, rates);

  mount.reads(valueRoutes.estimate, async ({ body }) => {
    const on = await (body.knownOn == null
      ? markets.on(body.asOf)
      : markets.asKnownOn(body.asOf, body.knownOn));
    return answer(await answerEstimate(database, on, body));
  });

  mount.reads(valueRoutes.job, async ({ params }) => {
    const job = await findJob(database, params.id);
    if (!job) throw notFound('task');
    return answer(job);
  });
  mount.writes(valueRoutes.cancelJob, async (tx, { params }) => {
    await cancelJob(tx, params.id);
    const job = await findJob(tx, params.id);
    if (!job) throw notFound('task');
    return answer(job);
  });
}
