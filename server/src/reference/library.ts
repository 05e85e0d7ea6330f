/** The reference as the engine wants it: built once per revision, immutable, shared by all requests. */
import { setImmediate as turn } from 'node:timers/promises';
import { compiling, prepared, withEncounters, type ReferenceIndex } from '@jutbank/core/bench';
import { dayOfInstant, calendarOf, type Day } from '@jutbank/core/dates';
import { NotReady, revisionOf, revisions, type Database, type Transaction } from '../db/index.ts';
import { loadEncounters } from './encounters.ts';
import { loadContents } from './queries.ts';

interface Kept {
  readonly basis: string;
  readonly index: Promise<ReferenceIndex>;
}
/** An index that is made, and the revision of the reference it is of. */
interface Made {
  readonly reference: string;
  readonly index: ReferenceIndex;
}

export class Library {
  #compiled: Kept | undefined;
  #counted: Kept | undefined;
  #made: Made | undefined;

  constructor(readonly database: Database) {}

  /**
   * The index of the newest revision, with what the shop has met by now; revisions are read anew at each call, so
   * that no copy of the server lags. New sales and decisions are counted again without compiling again.
   */
  async index(): Promise<ReferenceIndex> {
    const now = await revisions(this.database);
    const compiled = this.#compile(now.reference);
    const basis = `${compiled.basis} ${now.comparables} ${now.encounters}`;
    if (this.#counted?.basis !== basis) {
      const counted: Kept = {
        basis,
        index: Promise.all([compiled.index, loadEncounters(this.database)]).then(([index, met]) => {
          const made = withEncounters(index, met);
          this.#made = { reference: compiled.basis, index: made };
          return made;
        }),
      };
      this.#counted = counted;
      counted.index.catch(() => {
        if (this.#counted === counted) this.#counted = undefined;
      });
    }
    return this.#counted.index;
  }

  /**
   * The index inside a transaction, of the reference as the transaction sees it; how often things were met may be a
   * moment old. Where it is not made yet it is made outside, and the transaction begins again.
   */
  async atHand(tx: Transaction): Promise<ReferenceIndex> {
    const { basis } = this.#month(await revisionOf(tx, 'reference'));
    if (this.#made?.reference !== basis) throw new NotReady(() => this.index());
    return this.#made.index;
  }

  /** Open windows end today, by the month: a new month is a new index. */
  #month(revision: number): { basis: string; today: Day } {
    const today = dayOfInstant(Date.now());
    const { year, month } = calendarOf(today);
    return { basis: `${revision} ${year}-${month}`, today };
  }

  #compile(revision: number): Kept {
    const { basis, today } = this.#month(revision);
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
