/** Estimates; comparables and rates have files of their own. */
import { marketRoutes } from '@jutbank/contract/market';
import { answer, type Mount } from '../http/index.ts';
import type { Library } from '../reference/index.ts';
import { mountComparables } from './comparables.ts';
import { answerEstimate } from './answer.ts';
import type { Markets } from './market.ts';
import { mountRates } from './rates.ts';
import type { RateSource } from '../outside/index.ts';

export function mountMarket(mount: Mount, library: Library, markets: Markets, rates: RateSource): void {
  const { database } = mount;
  mountComparables(mount, library, markets);
  mountRates(mount, rates);

  mount.handle(marketRoutes.estimate, async ({ body }) => {
    const on = await (body.knownOn == null
      ? markets.on(body.asOf)
      : markets.asKnownOn(body.asOf, body.knownOn));
    return answer(await answerEstimate(database, on, body));
  });
}
