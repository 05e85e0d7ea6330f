/** `npm run backup` and `npm run restore`, once there is a database (scripts/backup.mjs). */
import { basename, dirname, extname, resolve } from 'node:path';
import { migrate, openDatabase } from '../db/index.ts';
import { checkBackup, listBackups, makeBackup, restoreBackup, type BackupPlace } from './backup.ts';
import { readArchive } from './bag.ts';

const say = (text: string) => process.stdout.write(`${text}\n`);
const needed = (name: string): string => {
  const value = process.env[name];
  if (value === undefined) throw new Error(`${name} is not set`);
  return value;
};

/** @param from a backup by its name or its path, an archive by its path; the newest backup where none is named */
async function restore(place: BackupPlace, from: string | undefined): Promise<void> {
  if (from !== undefined && extname(from) === '.zip') {
    const database = openDatabase(place.databaseUrl, { connections: 2 });
    try {
      await migrate(database);
      const { shop, ledger } = await readArchive(database, place.dataDir, resolve(from));
      say(`${shop} is back: ${ledger.entries} entries of the ledger, all in order.`);
    } finally {
      await database.close();
    }
    return;
  }
  const [newest] = await listBackups(place.folder);
  const path = from?.includes('/') ? resolve(from) : undefined;
  const name = path ? basename(path) : (from ?? newest);
  if (name === undefined) throw new Error(`there is no backup in ${place.folder}`);
  const { entries } = await restoreBackup({ ...place, folder: path ? dirname(path) : place.folder }, name);
  say(`${name} is back: ${entries} entries of the ledger, all in order.`);
}

async function backUp(place: BackupPlace): Promise<void> {
  const { name, manifest } = await makeBackup(place, new Date().toISOString());
  const { entries } = await checkBackup(place, name);
  say(
    `${name}: the database and ${manifest.files.length} files, restored once and found whole (${entries} entries of the ledger)${manifest.salt === null ? '' : ', encrypted'}.`,
  );
}

const [, , act, from] = process.argv;
const place: BackupPlace = {
  databaseUrl: needed('JUTBANK_DATABASE_URL'),
  dataDir: needed('JUTBANK_DATA_DIR'),
  folder: needed('JUTBANK_BACKUP_DIR'),
  passphrase: process.env.JUTBANK_BACKUP_PASSPHRASE,
};
try {
  await (act === 'restore' ? restore(place, from) : backUp(place));
} catch (error) {
  process.stderr.write(`${error instanceof Error ? error.message : String(error)}\n`);
  process.exitCode = 1;
}
