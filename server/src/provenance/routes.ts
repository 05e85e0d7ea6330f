import { provenanceRoutes } from '@jutbank/contract/provenance';
import { answer, decodeCursor, pageOf, type Mount } from '../http/index.ts';
import { countLedger, ledgerOfPiece, verifyLedger } from './ledger.ts';

export function mountProvenance(mount: Mount): void {
  const { database } = mount;
  mount.reads(provenanceRoutes.ledger, async ({ params, query }) => {
    const before = decodeCursor(query.cursor, 1)?.[0];
    const rows = await ledgerOfPiece(
      database,
      params.id,
      before === undefined ? undefined : Number(before),
      query.limit + 1,
    );
    return answer(
      pageOf(
        rows,
        query.limit,
        await countLedger(database, params.id),
        (e) => e,
        (e) => [e.seq],
      ),
    );
  });
  mount.reads(provenanceRoutes.verify, async () => answer(await verifyLedger(database)));
}
