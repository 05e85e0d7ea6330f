/**
 * What must happen outside exactly once: written down in the transaction that decides it, told afterwards, and told
 * again with the same key until it is answered. What concerns one piece is told in the order in which it was decided.
 */
import { ulid } from 'ulid';
import type { Money } from '@jutbank/core/money';
import type { Database, Transaction } from '../db/index.ts';
import { Unanswered } from './caller.ts';
import type { Marketplace, OutsideListing } from './marketplace.ts';

export type Errand =
  | {
      readonly kind: 'publish';
      readonly listing: OutsideListing;
    }
  | { readonly kind: 'reprice'; readonly price: Money }
  | {
      readonly kind: 'answer';
      readonly message: string;
      readonly text: string;
      readonly counter?: Money;
    }
  | {
      readonly kind: 'end';
      /** the listing that is meant, where it had gone up by then: another may have gone up since */
      readonly ref?: string | null;
    };

interface ErrandRow {
  id: string;
  piece_id: string;
  body: Errand;
  attempts: number;
}

export const sendOut = (tx: Transaction, pieceId: string, errand: Errand): Promise<number> =>
  tx.run('INSERT INTO outbox (id, piece_id, kind, body) VALUES (?, ?, ?, ?)', [
    ulid(),
    pieceId,
    errand.kind,
    JSON.stringify(errand),
  ]);

/** Nobody else tells an errand while it is being told; after so long the teller is taken for dead. */
const CLAIM_SECONDS = 60;
const FIRST_WAIT_SECONDS = 5;
const LONGEST_WAIT_SECONDS = 1800;

export class Outbox {
  constructor(
    readonly database: Database,
    readonly marketplace: Marketplace,
  ) {}

  /** Tells what is due, of one piece or of all; what is not answered waits for the next time. The number told. */
  async deliver(pieceId?: string): Promise<number> {
    for (let told = 0; ; told++) {
      const errand = await this.#claim(pieceId);
      if (!errand) return told;
      try {
        const ref = await this.#tell(errand);
        await this.#done(errand, ref);
      } catch (error) {
        if (!(error instanceof Unanswered)) throw error;
        await this.#later(errand, error);
        if (pieceId !== undefined) return told;
      }
    }
  }

  /** The oldest errand of a piece that nobody is telling. */
  #claim(pieceId: string | undefined): Promise<ErrandRow | undefined> {
    return this.database.transaction(async (tx) => {
      const row = await tx.row<ErrandRow>(
        `SELECT id, piece_id, body, attempts FROM outbox o
         WHERE state = 'waiting' AND ${pieceId === undefined ? 'next_at <= UTC_TIMESTAMP(3)' : 'piece_id = ? AND (attempts > 0 OR next_at <= UTC_TIMESTAMP(3))'}
           AND (claimed_until IS NULL OR claimed_until < UTC_TIMESTAMP(3))
           AND NOT EXISTS (SELECT 1 FROM outbox e WHERE e.piece_id = o.piece_id AND e.state = 'waiting' AND e.id < o.id)
         ORDER BY id LIMIT 1 FOR UPDATE SKIP LOCKED`,
        pieceId === undefined ? [] : [pieceId],
      );
      if (row)
        await tx.run(
          'UPDATE outbox SET claimed_until = DATE_ADD(UTC_TIMESTAMP(3), INTERVAL ? SECOND) WHERE id = ?',
          [CLAIM_SECONDS, row.id],
        );
      return row;
    });
  }

  /** @returns the marketplace's own name of a listing that went up */
  async #tell({ id, piece_id, body }: ErrandRow): Promise<string | undefined> {
    if (body.kind === 'publish') return this.marketplace.publish(body.listing, id);
    const listing = await this.database.row<{ ref: string | null }>(
      'SELECT marketplace_ref AS ref FROM listing WHERE piece_id = ?',
      [piece_id],
    );
    const ref = (body.kind === 'end' ? body.ref : null) ?? listing?.ref;
    // it never went up: there is nothing to answer or to end
    if (ref == null) return undefined;
    if (body.kind === 'answer')
      await this.marketplace.answer(ref, body.message, body.text, body.counter ?? null, id);
    else if (body.kind === 'reprice') await this.marketplace.reprice(ref, body.price, id);
    else await this.marketplace.end(ref, id);
    return undefined;
  }

  #done({ id, piece_id, body }: ErrandRow, ref: string | undefined): Promise<void> {
    return this.database.transaction(async (tx) => {
      if (body.kind === 'publish')
        await tx.run('UPDATE listing SET marketplace_ref = ? WHERE piece_id = ?', [ref ?? null, piece_id]);
      await tx.run(
        "UPDATE outbox SET state = 'told', told_at = UTC_TIMESTAMP(3), claimed_until = NULL, problem = NULL WHERE id = ?",
        [id],
      );
    });
  }

  async #later({ id, attempts }: ErrandRow, error: Unanswered): Promise<void> {
    const wait = Math.min(LONGEST_WAIT_SECONDS, FIRST_WAIT_SECONDS * 2 ** attempts);
    await this.database.run(
      'UPDATE outbox SET state = ?, attempts = attempts + 1, claimed_until = NULL, problem = ?, next_at = DATE_ADD(UTC_TIMESTAMP(3), INTERVAL ? SECOND) WHERE id = ?',
      [
        error.again ? 'waiting' : 'refused',
        error.message.slice(0, 300),
        Math.round(wait * (0.75 + Math.random() / 2)),
        id,
      ],
    );
  }
}

const LOOKED_AT_MS = 3000;

/** Looks again and again whether something is due. */
export class OutboxRounds {
  #timer: NodeJS.Timeout | undefined;
  #round: Promise<void> = Promise.resolve();
  #stopped = false;

  constructor(
    readonly outbox: Outbox,
    readonly onError: (error: unknown) => void,
  ) {}

  start(): void {
    this.#round = this.outbox
      .deliver()
      .then(
        () => undefined,
        (error: unknown) => this.onError(error),
      )
      .then(() => {
        if (this.#stopped) return;
        this.#timer = setTimeout(() => this.start(), LOOKED_AT_MS);
        this.#timer.unref();
      });
  }

  async stop(): Promise<void> {
    this.#stopped = true;
    clearTimeout(this.#timer);
    await this.#round;
  }
}
