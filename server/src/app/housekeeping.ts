/** What nobody will ask for again goes: keys, sessions, counters, finished tasks, errands that were told; what the sales
 * since have said of the house's ranges is heard. */
import type { Database } from '../db/index.ts';
import { sweepKeys, sweepUploads } from '../http/index.ts';
import { sweepSessions } from '../shop/index.ts';
import { calibrateHouse } from '../worth/index.ts';

const EVERY_MS = 10 * 60_000;
const KEEP_DAYS = 14;

export async function sweep(database: Database, uploads: string): Promise<void> {
  await sweepUploads(uploads);
  await sweepKeys(database);
  await sweepSessions(database);
  await database.run('DELETE FROM rate_counter WHERE resets_at < UTC_TIMESTAMP(3)');
  await database.run(
    "DELETE FROM job WHERE state IN ('done', 'failed', 'cancelled') AND created_at < DATE_SUB(UTC_TIMESTAMP(3), INTERVAL ? DAY)",
    [KEEP_DAYS],
  );
  await database.run(
    "DELETE FROM outbox WHERE state = 'told' AND told_at < DATE_SUB(UTC_TIMESTAMP(3), INTERVAL ? DAY)",
    [KEEP_DAYS],
  );
}

export class Housekeeping {
  #timer: NodeJS.Timeout | undefined;

  constructor(
    readonly database: Database,
    /** where files lie that come in */
    readonly uploads: string,
    readonly onError: (error: unknown) => void,
  ) {}

  start(): void {
    const turn = () => {
      sweep(this.database, this.uploads)
        .then(() => calibrateHouse(this.database))
        .catch(this.onError);
    };
    turn();
    this.#timer = setInterval(turn, EVERY_MS);
    this.#timer.unref();
  }

  stop(): void {
    clearInterval(this.#timer);
  }
}
