import { readdir, stat } from 'node:fs/promises';
import { join } from 'node:path';
import { ARCHIVE_JOB, archiveRoutes, BACKUP_JOB, type BackupsAnswer } from '@jutbank/contract/archive';
import type { Queries } from '../db/index.ts';
import { answer, checkVersion, conflict, notFound, type Mount } from '../http/index.ts';
import { queueJob } from '../jobs/index.ts';
import { appendLedger } from '../ledger/index.ts';
import { backupTooOld, jobUnderWay, lastRuns, settingsOf } from './queries.ts';

const ARCHIVE = /^jutbank-[\w-]+\.zip$/;

/** @param archives where archives are made @param encrypted whether backups are under a passphrase */
export function mountArchive(mount: Mount, archives: string, encrypted: boolean): void {
  const { database } = mount;
  const told = async (db: Queries): Promise<BackupsAnswer> => {
    const { version, ...settings } = await settingsOf(db);
    return {
      settings,
      version,
      encrypted,
      runs: await lastRuns(db),
      ...(await backupTooOld(db)),
      running: await jobUnderWay(db, BACKUP_JOB),
      archives: await madeArchives(archives),
      archiving: await jobUnderWay(db, ARCHIVE_JOB),
    };
  };
  const answered = (backups: BackupsAnswer) => answer(backups, { etag: `"v${backups.version}"` });

  mount.handle(archiveRoutes.backups, async () => answered(await told(database)));

  mount.handleInTransaction(archiveRoutes.putBackupSettings, async (tx, { body, ifMatch }) => {
    await tx.row('SELECT id FROM backup_settings WHERE id = 1 FOR UPDATE');
    checkVersion(ifMatch, (await settingsOf(tx)).version, 'these settings');
    await tx.run(
      'UPDATE backup_settings SET version = version + 1, every = ?, daily = ?, weekly = ?, monthly = ? WHERE id = 1',
      [body.every, body.daily, body.weekly, body.monthly],
    );
    return answered(await told(tx));
  });

  mount.handleInTransaction(archiveRoutes.backUp, async (tx, { person }) => {
    await tx.row('SELECT id FROM backup_settings WHERE id = 1 FOR UPDATE');
    if ((await jobUnderWay(tx, BACKUP_JOB)) !== null) throw conflict('A backup is being made already.');
    return answer({ job: await queueJob(tx, BACKUP_JOB, {}, person.id) });
  });

  mount.handleInTransaction(archiveRoutes.makeArchive, async (tx, { person }) => {
    await tx.row('SELECT id FROM backup_settings WHERE id = 1 FOR UPDATE');
    if ((await jobUnderWay(tx, ARCHIVE_JOB)) !== null) throw conflict('An archive is being made already.');
    // that everything left the shop is written down
    await appendLedger(tx, { pieceId: null, kind: 'archived', person, body: {} });
    return answer({ job: await queueJob(tx, ARCHIVE_JOB, {}, person.id) });
  });

  mount.handle(archiveRoutes.archive, async ({ params, response }) => {
    const made = await madeArchives(archives);
    if (!made.some(({ name }) => name === params.name)) throw notFound('archive');
    response.download(join(archives, params.name));
    return undefined;
  });
}

/** The newest first. */
async function madeArchives(folder: string): Promise<BackupsAnswer['archives']> {
  const names = (await readdir(folder).catch(() => [])).filter((name) => ARCHIVE.test(name));
  const made = await Promise.all(
    names.map(async (name) => {
      const found = await stat(join(folder, name));
      return { name, size: found.size, madeAt: found.mtime.toISOString() };
    }),
  );
  return made.sort((a, b) => b.madeAt.localeCompare(a.madeAt));
}
