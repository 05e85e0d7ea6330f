/** The reference as the engine wants it: built once per revision, immutable, shared by all requests. */
import { compileReference, prepared, type ReferenceIndex } from '@jutbank/core/bench';
import { revisionOf, type Database, type Queries } from '../db/index.ts';
import { loadContents } from './queries.ts';

export class Library {
  #current: { revision: number; index: Promise<ReferenceIndex> } | undefined;

  constructor(readonly database: Database) {}

  /** The index of the newest revision; a revision read anew at each call, so that no copy of the server lags. */
  async index(db: Queries = this.database): Promise<ReferenceIndex> {
    const revision = await revisionOf(db, 'reference');
    if (this.#current?.revision !== revision) {
      const index = loadContents(this.database).then((contents) =>
        compileReference(contents, String(revision)),
      );
      this.#current = { revision, index };
      index.then(prepare, () => undefined);
      index.catch(() => {
        this.#current = undefined;
      });
    }
    return this.#current.index;
  }
}

/** What the first questions would wait for, a piece at a time between requests. */
function prepare(index: ReferenceIndex): void {
  const steps = prepared(index);
  const next = () => {
    if (!steps.next().done) setImmediate(next);
  };
  setImmediate(next);
}
