import { stringify } from 'csv-stringify/sync';
import { provenanceRoutes } from '@jutbank/contract/provenance';
import { answer, decodeCursor, pageOf, safeCell, type Mount } from '../http/index.ts';
import type { PictureStore, Readers } from '../pieces/index.ts';
import type { Markets } from '../market/index.ts';
import { mountAsKnown } from './asKnown.ts';
import { mountDocuments } from './documents.ts';
import type { DocumentStore } from './documentStore.ts';
import { mountExports } from './exports.ts';
import { mountCustody } from './custody.ts';
import { auditEntries, countAudit } from './audit.ts';
import { canonical, countLedger, ledgerOfPiece, verifyLedger } from '../ledger/index.ts';

const EXPORT_STEP = 2000;

export function mountProvenance(
  mount: Mount,
  readers: Readers,
  pictures: PictureStore,
  documents: DocumentStore,
  markets: Markets,
): void {
  mountAsKnown(mount, readers, markets);
  mountCustody(mount, readers);
  mountDocuments(mount, readers, documents);
  mountExports(mount, readers, pictures);
  const { database } = mount;
  mount.handle(provenanceRoutes.ledger, async ({ params, query }) => {
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
  mount.handle(provenanceRoutes.audit, async ({ query }) => {
    const before = decodeCursor(query.cursor, 1)?.[0];
    const [rows, total, people, kinds] = await Promise.all([
      auditEntries(database, query, before === undefined ? undefined : Number(before), query.limit + 1),
      countAudit(database, query),
      database.rows<{ person: string }>('SELECT DISTINCT person FROM ledger_entry ORDER BY person LIMIT 200'),
      database.rows<{ kind: string }>('SELECT DISTINCT kind FROM ledger_entry ORDER BY kind LIMIT 200'),
    ]);
    const page = pageOf(
      rows,
      query.limit,
      total,
      (e) => e,
      (e) => [e.seq],
    );
    return answer({ ...page, people: people.map((p) => p.person), kinds: kinds.map((k) => k.kind) });
  });
  mount.handle(provenanceRoutes.auditExport, async ({ query, response }) => {
    response
      .type('text/csv')
      .setHeader('Content-Disposition', 'attachment; filename="ledger.csv"')
      .write(stringify([['seq', 'at', 'by', 'kind', 'piece', 'body', 'hash']]));
    let before: number | undefined;
    for (;;) {
      const rows = await auditEntries(database, query, before, EXPORT_STEP);
      response.write(
        stringify(
          rows.map((e) =>
            [String(e.seq), e.at, e.by, e.kind, e.stockNumber ?? '', canonical(e.body), e.hash].map(safeCell),
          ),
        ),
      );
      const last = rows.at(-1);
      if (!last || rows.length < EXPORT_STEP) break;
      before = last.seq;
    }
    response.end();
    return undefined;
  });
  mount.handle(provenanceRoutes.verify, async () => answer(await verifyLedger(database)));
}
