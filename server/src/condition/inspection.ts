/** An inspection as it is written into the record. */
import { conditionRoutes } from '@jutbank/contract/condition';
import { conflict, type Mount } from '../http/index.ts';
import { snapshotCondition, saysTheSame, writeFindings } from './states.ts';
import { type Readers, changeByCall, mountChange } from '../pieces/index.ts';

/** What was found, and the school it is quoted in. */
export function mountInspection(mount: Mount, readers: Readers): void {
  mountChange(mount, readers, conditionRoutes.putQuoted, (tx, call) =>
    changeByCall(tx, call, 'quoted', async () => {
      const { quoted } = call.body;
      await tx.run('UPDATE piece SET quoted = ? WHERE id = ?', [
        quoted === null ? null : JSON.stringify(quoted),
        call.params.id,
      ]);
    }),
  );
  mountChange(mount, readers, conditionRoutes.putCondition, (tx, call) =>
    changeByCall(tx, call, 'inspected', async (before) => {
      const { findings, completeness, inspected } = call.body;
      const inspection = call.body.inspection ?? before.inspection;
      if (before.inspected && inspected && !saysTheSame(before, call.body))
        throw conflict('The inspection is finished. Open it again before you change what was found.');
      await writeFindings(tx, call.params.id, findings);
      await tx.run('UPDATE piece SET completeness = ?, inspected = ?, inspection = ? WHERE id = ?', [
        JSON.stringify(completeness),
        inspected,
        inspection === null ? null : JSON.stringify(inspection),
        call.params.id,
      ]);
      if (inspected && !before.inspected) {
        const states = await tx.row<{ n: number }>(
          'SELECT COUNT(*) AS n FROM condition_state WHERE piece_id = ?',
          [call.params.id],
        );
        const why = Number(states?.n ?? 0) === 0 ? 'as-found' : 'inspected-again';
        await snapshotCondition(
          tx,
          readers,
          { ...before, findings, completeness, inspection },
          why,
          call.person,
        );
      }
    }),
  );
}
