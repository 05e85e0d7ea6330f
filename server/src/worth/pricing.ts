/** What the shop asks for a piece. */
import { worthRoutes } from '@jutbank/contract/worth';
import type { Mount } from '../http/index.ts';
import { type Readers, changeByCall, mountChange } from '../pieces/index.ts';

/** What the shop asks. */
export function mountPricing(mount: Mount, readers: Readers): void {
  mountChange(mount, readers, worthRoutes.putPricing, (tx, call) =>
    changeByCall(tx, call, 'priced', async () => {
      const { ask, floor, note } = call.body;
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
