/** The shop backed up by itself: asked every few minutes whether one is due, by one copy of the server at a time. */
import { ulid } from 'ulid';
import { BACKUP_JOB } from '@jutbank/contract/archive';
import type { Database, Queries } from '../db/index.ts';
import { queueJob } from '../jobs/index.ts';
import { checkBackup, makeBackup, pruneBackups, type BackupPlace } from './backup.ts';
import { jobUnderWay, lastGoodAt, settingsOf } from './queries.ts';

const EVERY_MS = 5 * 60_000;
/** The first look is not taken while the shop opens. */
const FIRST_MS = 60_000;
const HOUR_MS = 3_600_000;

/** Whom the ledger of tasks names where nobody asked. */
const BY_ITSELF = '';

export class BackupRounds {
  #timer: NodeJS.Timeout | undefined;

  constructor(
    readonly database: Database,
    readonly onError: (error: unknown) => void,
  ) {}

  start(): void {
    const turn = (after: number) => {
      this.#timer = setTimeout(() => {
        queueIfDue(this.database)
          .catch(this.onError)
          .finally(() => turn(EVERY_MS));
      }, after);
      this.#timer.unref();
    };
    turn(FIRST_MS);
  }

  stop(): void {
    clearTimeout(this.#timer);
  }
}

/** @returns the task where one is due and none under way */
export const queueIfDue = (database: Database): Promise<string | undefined> =>
  database.transaction(async (tx) => {
    // of several copies that look at once, one queues it
    await tx.row('SELECT id FROM backup_settings WHERE id = 1 FOR UPDATE');
    const { every } = await settingsOf(tx);
    const shop = await tx.row('SELECT id FROM shop WHERE id = 1');
    if (every === null || !shop || (await jobUnderWay(tx, BACKUP_JOB)) !== null) return undefined;
    // one that failed is tried again, but not every few minutes
    const last = await tx.row<{ age: number }>(
      'SELECT TIMESTAMPDIFF(MINUTE, MAX(begun_at), UTC_TIMESTAMP(3)) AS age FROM backup_run',
    );
    const good = await lastGoodAt(tx);
    const due = good === null || Date.now() - Date.parse(good) >= every * HOUR_MS;
    if (!due || (last?.age != null && Number(last.age) < 60)) return undefined;
    return queueJob(tx, BACKUP_JOB, {}, BY_ITSELF);
  });

/** The task: made, checked by restoring it, noted; what the rule no longer keeps goes. */
export async function runBackup(
  database: Database,
  place: BackupPlace,
  progress: (share: number) => Promise<void>,
): Promise<{ name: string }> {
  const id = ulid();
  const at = new Date().toISOString();
  try {
    const { name, manifest } = await makeBackup(place, at, progress);
    await progress(0.7);
    const { entries } = await checkBackup(place, name);
    const size = manifest.database.size + manifest.files.reduce((sum, f) => sum + f.size, 0);
    await noteRun(database, {
      id,
      name,
      good: true,
      encrypted: manifest.salt !== null,
      size,
      files: manifest.files.length,
      entries,
      problem: null,
    });
    await pruneBackups(place.folder, await settingsOf(database));
    return { name };
  } catch (error) {
    const problem = (error instanceof Error ? error.message : String(error)).slice(0, MOST_SAID);
    await noteRun(database, {
      id,
      name: null,
      good: false,
      encrypted: place.passphrase !== undefined,
      size: null,
      files: null,
      entries: null,
      problem,
    });
    throw error;
  }
}
const MOST_SAID = 500;

interface Run {
  readonly id: string;
  readonly name: string | null;
  readonly good: boolean;
  readonly encrypted: boolean;
  readonly size: number | null;
  readonly files: number | null;
  readonly entries: number | null;
  readonly problem: string | null;
}
const noteRun = (db: Queries, run: Run) =>
  db.run(
    'INSERT INTO backup_run (id, name, good, encrypted, size, files, entries, problem) VALUES (?, ?, ?, ?, ?, ?, ?, ?)',
    [run.id, run.name, run.good, run.encrypted, run.size, run.files, run.entries, run.problem],
  );
