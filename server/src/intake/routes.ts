import { intakeRoutes } from '@jutbank/contract/intake';
import type { Mount } from '../http/index.ts';
import type { Markets } from '../market/index.ts';
import { type Readers, intakeColumns, createPiece, changeByCall, mountChange } from '../pieces/index.ts';
import { mountLots } from './lots.ts';
import { mountStockLists } from './stockLists.ts';

/** Taking pieces in, one by one or as lots, and what was recorded then. */
export function mountIntake(mount: Mount, readers: Readers, markets: Markets): void {
  mountLots(mount, readers, markets);
  mountStockLists(mount, readers);
  mount.handleInTransaction(
    intakeRoutes.createPiece,
    async (tx, { body, person }) => ({ id: await createPiece(tx, body, person) }),
    readers.tellSheet,
  );

  mountChange(mount, readers, intakeRoutes.putIntake, (tx, call) =>
    changeByCall(tx, call, 'intake-changed', async () => {
      const columns = intakeColumns(call.body);
      await tx.run(
        `UPDATE piece SET ${Object.keys(columns)
          .map((c) => `${c} = ?`)
          .join(', ')} WHERE id = ?`,
        [...Object.values(columns), call.params.id],
      );
    }),
  );
}
