/** What the shop asks for a piece. */
import { worthRoutes } from '@jutbank/contract/worth';
import { conflict, type Mount } from '../http/index.ts';
import { sendOut } from '../outside/index.ts';
import { type Readers, changeByCall, mountChange } from '../pieces/index.ts';

/** What the shop asks. */
export function mountPricing(mount: Mount, readers: Readers): void {
  mountChange(mount, readers, worthRoutes.putPricing, (tx, call) =>
    changeByCall(tx, call, 'priced', async (before) => {
      const { ask, floor, note } = call.body;
      if (before.listing?.state === 'published') {
        if (!ask) throw conflict('It is up: take it down before its price is taken away.');
        const same =
          ask.amount === before.pricing.ask?.amount && ask.currency === before.pricing.ask.currency;
        if (!same) await sendOut(tx, before.id, { kind: 'reprice', price: ask });
      }
      await tx.run(
        'UPDATE piece SET ask = ?, ask_currency = ?, floor_price = ?, floor_currency = ?, pricing_note = ? WHERE id = ?',
        [
          ask?.amount ?? null,
          ask?.currency ?? null,
          floor?.amount ?? null,
          floor?.currency ?? null,
          note,
          call.params.id,
        ],
      );
    }),
  );
}
