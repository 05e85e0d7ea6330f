/** Rates, estimates, jobs; comparables have a file of their own. */
import { valueRoutes } from '@jutbank/contract/value';
import { raiseRevision } from '../db/index.ts';
import { answer, invalid, notFound, type Mount } from '../http/index.ts';
import { cancelJob, findJob } from '../jobs/index.ts';
import type { Library } from '../reference/index.ts';
import { shopOf } from '../shop/index.ts';
import { mountComparables } from './comparables.ts';
import { answerEstimate, type Markets } from './market.ts';
import { storeRates } from './queries.ts';

export function mountValue(mount: Mount, library: Library, markets: Markets): void {
  const { database } = mount;
  mountComparables(mount, library, markets);

  mount.writes(valueRoutes.addRates, async (tx, { body }) => {
    const shop = await shopOf(tx);
    if (body.base !== shop.baseCurrency)
      throw invalid([{ pointer: '/base', message: `this shop’s rates are for one ${shop.baseCurrency}` }]);
    const counts = await storeRates(tx, body.rates);
    if (counts.added + counts.updated > 0) await raiseRevision(tx, 'rates');
    return answer(counts);
  });

  mount.reads(valueRoutes.listRates, async () => {
    const shop = await shopOf(database);
    const latest = await database.rows<{ currency: string; date: string; rate: string }>(
      'SELECT e.currency, e.day AS date, e.rate FROM exchange_rate e JOIN (SELECT currency, MAX(day) AS day FROM exchange_rate GROUP BY currency) l ON l.currency = e.currency AND l.day = e.day ORDER BY e.currency',
    );
    return answer({
      base: shop.baseCurrency,
      latest: latest.map((r) => ({ ...r, rate: String(Number(r.rate)) })),
    });
  });

  mount.reads(valueRoutes.estimate, async ({ body }) =>
    answer(await answerEstimate(database, await markets.on(body.asOf), body)),
  );

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
