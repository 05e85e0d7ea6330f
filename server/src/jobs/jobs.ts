/** Long work as rows in the database: claimed with SKIP LOCKED, with progress and cancel, picked up after a kill. */
import { ulid } from 'ulid';
import type { JobAnswer } from '@jutbank/contract/jobs';
import type { Database, Queries, Transaction } from '../db/index.ts';

interface JobRow {
  id: string;
  kind: string;
  state: JobAnswer['state'];
  payload: string;
  progress: string;
  result: unknown;
}

export async function queueJob(
  db: Queries,
  kind: string,
  payload: unknown,
  personId: string,
): Promise<string> {
  const id = ulid();
  await db.run('INSERT INTO job (id, kind, payload, person_id) VALUES (?, ?, ?, ?)', [
    id,
    kind,
    JSON.stringify(payload),
    personId,
  ]);
  return id;
}

export async function findJob(db: Queries, id: string): Promise<JobAnswer | undefined> {
  const row = await db.row<JobRow>('SELECT id, state, progress, result FROM job WHERE id = ?', [id]);
  return row && { id: row.id, state: row.state, progress: Number(row.progress), result: row.result };
}

export async function cancelJob(tx: Transaction, id: string): Promise<void> {
  await tx.run("UPDATE job SET state = 'cancelled' WHERE id = ? AND state IN ('queued', 'running')", [id]);
}

/** Work must be one transaction of its own: a worker that dies leaves nothing half done. */
export type JobWork = (payload: unknown, progress: (share: number) => Promise<void>) => Promise<unknown>;

class Cancelled extends Error {}

/** A job whose worker has not been heard of for so long is taken over. */
const LOST_AFTER_SECONDS = 30;
const POLL_MS = 400;

export class JobRunner {
  #timer: NodeJS.Timeout | undefined;
  #working: Promise<void> | undefined;
  #stopped = false;

  constructor(
    readonly database: Database,
    readonly kinds: Readonly<Record<string, JobWork>>,
    readonly onError: (error: unknown) => void,
  ) {}

  start(): void {
    const turn = () => {
      this.#working = this.runOne()
        .catch((error: unknown) => {
          this.onError(error);
          return false;
        })
        .then((worked) => {
          if (!this.#stopped) this.#timer = setTimeout(turn, worked ? 0 : POLL_MS);
        });
    };
    turn();
  }

  async stop(): Promise<void> {
    this.#stopped = true;
    clearTimeout(this.#timer);
    await this.#working;
  }

  /** Claims and runs one job; false when none waits. */
  async runOne(): Promise<boolean> {
    const job = await this.#claim();
    if (!job) return false;
    // how far it is must be seen while it goes on, from inside its transaction too
    const heartbeat = (share: number) =>
      this.database.apart(async () => {
        const alive = await this.database.run(
          "UPDATE job SET progress = ?, heartbeat = UTC_TIMESTAMP(3) WHERE id = ? AND state = 'running'",
          [share.toFixed(4), job.id],
        );
        if (alive === 0 && (await findJob(this.database, job.id))?.state === 'cancelled')
          throw new Cancelled();
      });
    try {
      const work = this.kinds[job.kind];
      if (!work) throw new Error(`nobody knows how to do ${job.kind}`);
      const result = await work(JSON.parse(job.payload), heartbeat);
      await this.database.run(
        "UPDATE job SET state = 'done', progress = 1, result = ?, payload = '' WHERE id = ? AND state = 'running'",
        [JSON.stringify(result), job.id],
      );
    } catch (error) {
      if (error instanceof Cancelled) return true;
      this.onError(error);
      const told = JSON.stringify({ message: 'This task failed; nothing was changed.' });
      await this.database.run("UPDATE job SET state = 'failed', result = ?, payload = '' WHERE id = ?", [
        told,
        job.id,
      ]);
    }
    return true;
  }

  #claim(): Promise<JobRow | undefined> {
    return this.database.transaction(async (tx) => {
      const job = await tx.row<JobRow>(
        `SELECT id, kind, state, payload, progress, result FROM job
         WHERE state = 'queued' OR (state = 'running' AND heartbeat < DATE_SUB(UTC_TIMESTAMP(3), INTERVAL ? SECOND))
         ORDER BY created_at LIMIT 1 FOR UPDATE SKIP LOCKED`,
        [LOST_AFTER_SECONDS],
      );
      if (job)
        await tx.run("UPDATE job SET state = 'running', heartbeat = UTC_TIMESTAMP(3) WHERE id = ?", [job.id]);
      return job;
    });
  }
}
