/** Money routes: stateless, the same functions that price stored pieces. */
import { breakEven, mostToPay, netOf, type Target } from '@jutbank/core/worth';
import { channelRoutes } from '@jutbank/contract/worth';
import { answer, invalid, type Mount } from '../http/index.ts';

export function mountChannels(mount: Mount): void {
  mount.handle(channelRoutes.net, ({ body }) =>
    Promise.resolve(answer({ currency: body.currency, ...netOf(body.currency, body.channel, body.price) })),
  );
  mount.handle(channelRoutes.breakEven, ({ body }) => {
    const found = breakEven(body.currency, body.channel, body.cost, body.target as Target | null);
    if (!found)
      throw invalid([
        { pointer: '/channel', message: 'no price is enough: the fees take all that a higher one brings' },
      ]);
    return Promise.resolve(answer({ currency: body.currency, ...found }));
  });
  mount.handle(channelRoutes.mostToPay, ({ body }) =>
    Promise.resolve(
      answer(mostToPay(body.currency, body.buying, body.channel, body.price, body.target as Target | null)),
    ),
  );
}
