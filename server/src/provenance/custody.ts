/** Custody as it is written into the record. */
import { periodOf } from '@jutbank/core/dates';
import { provenanceRoutes } from '@jutbank/contract/provenance';
import type { Mount } from '../http/index.ts';
import { dayBounds, type Readers, changeByCall, mountChange } from '../pieces/index.ts';

/** Who had a piece when. */
export function mountCustody(mount: Mount, readers: Readers): void {
  mountChange(mount, readers, provenanceRoutes.putCustody, (tx, call) =>
    changeByCall(tx, call, 'custody-recorded', async () => {
      const { events } = call.body;
      await tx.run('DELETE FROM custody_event WHERE piece_id = ?', [call.params.id]);
      const sorted = [...events].sort(
        (a, b) => periodOf(a.period).start.earliest - periodOf(b.period).start.earliest,
      );
      if (sorted.length > 0)
        await tx.insertMany(
          'INSERT INTO custody_event (piece_id, position, holder, private, place, period, held_from, held_to, how, evidence, note) VALUES ?',
          sorted.map((e, i) => [
            call.params.id,
            i,
            e.holder,
            e.private,
            e.place,
            e.period,
            ...dayBounds(e.period),
            e.how,
            e.evidence,
            e.note,
          ]),
        );
    }),
  );
}
