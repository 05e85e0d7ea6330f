import type { BackupRun, BackupSettings } from '@jutbank/contract/archive';
import { instant, type Queries } from '../db/index.ts';

export async function settingsOf(db: Queries): Promise<BackupSettings & { version: number }> {
  const row = await db.row<{
    every: number | null;
    daily: number;
    weekly: number;
    monthly: number;
    version: number;
  }>('SELECT every, daily, weekly, monthly, version FROM backup_settings WHERE id = 1');
  if (!row) throw new Error('the settings of backups are gone');
  return {
    every: row.every === null ? null : Number(row.every),
    daily: Number(row.daily),
    weekly: Number(row.weekly),
    monthly: Number(row.monthly),
    version: Number(row.version),
  };
}

const MOST_RUNS = 30;
export const lastRuns = async (db: Queries): Promise<BackupRun[]> =>
  (
    await db.rows<{
      id: string;
      begun_at: string;
      name: string | null;
      good: number;
      encrypted: number;
      size: string | null;
      files: number | null;
      entries: string | null;
      problem: string | null;
    }>('SELECT * FROM backup_run ORDER BY begun_at DESC, id DESC LIMIT ?', [MOST_RUNS])
  ).map((row) => ({
    id: row.id,
    begunAt: instant(row.begun_at),
    name: row.name,
    good: Boolean(row.good),
    encrypted: Boolean(row.encrypted),
    size: row.size === null ? null : Number(row.size),
    files: row.files === null ? null : Number(row.files),
    entries: row.entries === null ? null : Number(row.entries),
    problem: row.problem,
  }));

/** When the last good backup was begun; null where there is none. */
export async function lastGoodAt(db: Queries): Promise<string | null> {
  const row = await db.row<{ at: string | null }>(
    'SELECT MAX(begun_at) AS at FROM backup_run WHERE good = 1',
  );
  return row?.at == null ? null : instant(row.at);
}

const HOUR_MS = 3_600_000;
/** A shop younger than that is not yet warned. */
const YOUNG_MS = 48 * HOUR_MS;

/** The last good one is older than twice what the shop wants; or there is none, and the shop is no longer new. */
export async function backupTooOld(db: Queries): Promise<{ tooOld: boolean; lastGoodAt: string | null }> {
  const { every } = await settingsOf(db);
  const last = await lastGoodAt(db);
  const shop = await db.row<{ created_at: string }>('SELECT created_at FROM shop WHERE id = 1');
  const age = (at: string) => Date.now() - Date.parse(instant(at));
  const tooOld =
    every !== null &&
    (last === null
      ? shop !== undefined && age(shop.created_at) > YOUNG_MS
      : Date.now() - Date.parse(last) > 2 * every * HOUR_MS);
  return { tooOld, lastGoodAt: last };
}

export async function jobUnderWay(db: Queries, kind: string): Promise<string | null> {
  const row = await db.row<{ id: string }>(
    "SELECT id FROM job WHERE kind = ? AND state IN ('queued', 'running') ORDER BY created_at LIMIT 1",
    [kind],
  );
  return row?.id ?? null;
}
