/** The reference as the engine wants it: built once per revision, immutable, shared by all requests. */
import { setImmediate as turn } from 'node:timers/promises';
import { compiling, prepared, withEncounters, type ReferenceIndex } from '@jutbank/core/bench';
import { dayOfInstant, calendarOf } from '@jutbank/core/dates';
import { revisions, type Database, type Queries } from '../db/index.ts';
import { loadEncounters } from './encounters.ts';
import { loadContents } from './queries.ts';

interface Kept {
  readonly basis: string;
  readonly index: Promise<ReferenceIndex>;
}

export class Library {
  #compiled: Kept | undefined;
  #counted: Kept | undefined;

  constructor(readonly database: Database) {}

  /**
   * The index of the newest revision, with what the shop has met by now; revisions are read anew at each call, so
   * that no copy of the server lags. New sales and decisions are counted again without compiling again.
   */
  async index(db: Queries = this.database): Promise<ReferenceIndex> {
    const now = await revisions(db);
    const compiled = this.#compile(now.reference);
    const basis = `${compiled.basis} ${now.comparables} ${now.encounters}`;
    if (this.#counted?.basis !== basis) {
      const counted: Kept = {
        basis,
        index: Promise.all([compiled.index, loadEncounters(this.database)]).then(([index, met]) =>
          withEncounters(index, met),
        ),
      };
      this.#counted = counted;
      counted.index.catch(() => {
        if (this.#counted === counted) this.#counted = undefined;
      });
    }
    return this.#counted.index;
  }

  #compile(revision: number): Kept {
    const today = dayOfInstant(Date.now());
    const { year, month } = calendarOf(today);
    // open windows end today, by the month: a new month is a new index
    const basis = `${revision} ${year}-${month}`;
    if (this.#compiled?.basis === basis) return this.#compiled;
    const compiled: Kept = {
      basis,
      index: loadContents(this.database).then((contents) =>
        inTurns(compiling(contents, String(revision), today)),
      ),
    };
    this.#compiled = compiled;
    compiled.index.then(prepare, () => {
      if (this.#compiled === compiled) this.#compiled = undefined;
    });
    return compiled;
  }
}

/** Runs steps one after the other and lets requests be answered in between. */
async function inTurns<T>(steps: Generator<undefined, T>): Promise<T> {
  for (;;) {
    const step = steps.next();
    if (step.done) return step.value;
    await turn();
  }
}

/** What the first questions would wait for, a piece at a time between requests. */
function prepare(index: ReferenceIndex): void {
  void inTurns(prepared(index));
}
