/** Reads packs in a thread of its own: one of ten thousand variants takes a second to check. */
import { referenceRoutes } from '@jutbank/contract/reference';
import type { Transaction } from '../db/index.ts';
import { answer, answeredOnce, readDocument, type Document } from '../http/index.ts';
import { answering, databaseOfThread } from '../threads/index.ts';
import { importPack } from './importPack.ts';
import { loadContents } from './queries.ts';
import { reviewPack } from './reviewPack.ts';

const database = databaseOfThread();

const work = {
  import({ bytes, once }: Document) {
    const route = referenceRoutes.importPack;
    const pack = readDocument(route, bytes);
    const begin = () => Promise.resolve((tx: Transaction) => importPack(tx, pack));
    return answeredOnce(database, once, route.status, begin, (counts) => Promise.resolve(answer(counts)));
  },
  async review({ bytes }: Document) {
    const pack = readDocument(referenceRoutes.reviewPack, bytes);
    return answer(reviewPack(pack, await loadContents(database)));
  },
};
export type PackWork = typeof work;
answering(work);
