/**
 * Backups: the database as it was at one moment, and every file it names. Files are kept under their own names once for
 * all backups of a folder, so that a nightly backup of ten thousand pictures costs what is new.
 */
import { createReadStream, createWriteStream } from 'node:fs';
import { copyFile, mkdir, readdir, readFile, rename, rm, stat, writeFile } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { randomUUID } from 'node:crypto';
import { z } from 'zod';
import { keptBackups, type KeepRule } from '@jutbank/core/archive';
import { dumpDatabase, loadDump, migrate, openDatabase, type Database } from '../db/index.ts';
import { verifyLedger } from '../ledger/index.ts';
import { decrypting, encrypting, keyOf, newSalt, printOfFile, type BackupKey } from './cipher.ts';

export interface BackupPlace {
  readonly databaseUrl: string;
  /** where the shop's files lie: `files` in it */
  readonly dataDir: string;
  /** where backups are kept */
  readonly folder: string;
  /** undefined: they are not encrypted */
  readonly passphrase: string | undefined;
}

const kept = z.object({ path: z.string(), size: z.number(), sha256: z.string() });
const manifest = z.object({
  format: z.literal('jutbank.backup/1'),
  at: z.string(),
  database: kept,
  files: z.array(kept),
  /** the shelf its files stand on, and the salt of the passphrase where there is one */
  shelf: z.string(),
  salt: z.string().nullable(),
});
export type BackupManifest = z.infer<typeof manifest>;
type Kept = z.infer<typeof kept>;

const MANIFEST = 'manifest.json';
const OPEN_SHELF = 'files-open';
const shelfOf = ({ id }: BackupKey): string => `files-${id}`;
const nameOf = (at: string): string => at.replace(/[:.]/g, '-');
const BACKUP = /^\d{4}-\d\d-\d\dT\d\d-\d\d-\d\d-\d{3}Z$/;

/** One salt for a folder: files of several backups stand on one shelf, under one key. */
async function keyFor(
  folder: string,
  passphrase: string | undefined,
): Promise<{ key: BackupKey; salt: string } | undefined> {
  if (passphrase === undefined) return undefined;
  await mkdir(folder, { recursive: true });
  const path = join(folder, 'salt');
  const known = await readFile(path, 'utf8').catch(() => undefined);
  const salt = known ?? newSalt();
  if (known === undefined) await writeFile(path, salt, { mode: 0o600 });
  return { key: keyOf(passphrase, salt), salt };
}

/** All files below a folder, by their path in it; what is still being written is left out. */
async function filesBelow(folder: string): Promise<{ path: string; size: number }[]> {
  const found: { path: string; size: number }[] = [];
  for (const entry of await readdir(folder, { recursive: true, withFileTypes: true }).catch(() => [])) {
    if (!entry.isFile() || /\.(part|tmp)$/.test(entry.name)) continue;
    const path = join(entry.parentPath, entry.name);
    found.push({ path: path.slice(folder.length + 1), size: (await stat(path)).size });
  }
  return found.sort((a, b) => a.path.localeCompare(b.path));
}

/** @throws whatever stands in its way: then nothing of it is left */
export async function makeBackup(
  place: BackupPlace,
  at: string,
  progress: (share: number) => Promise<void> = () => Promise.resolve(),
): Promise<{ name: string; manifest: BackupManifest }> {
  const { databaseUrl, dataDir, folder } = place;
  const secret = await keyFor(folder, place.passphrase);
  const name = nameOf(at);
  const making = join(folder, `${name}.making`);
  const shelf = secret ? shelfOf(secret.key) : OPEN_SHELF;
  const through = () => (secret ? [encrypting(secret.key)] : []);
  try {
    await mkdir(making, { recursive: true });
    const dump = join(making, 'database.sql.gz');
    // first the database: every file that it names is there already, and files are never changed
    await dumpDatabase(databaseUrl, dump, through());
    await progress(0.4);
    const before = new Map(((await newestManifest(folder, shelf))?.files ?? []).map((f) => [f.path, f]));
    const files: Kept[] = [];
    const source = join(dataDir, 'files');
    const present = await filesBelow(source);
    for (const [i, { path, size }] of present.entries()) {
      const target = join(folder, shelf, path);
      const known = before.get(path);
      const there = await stat(target).then(
        () => true,
        () => false,
      );
      if (known?.size === size && there) files.push(known);
      else {
        await mkdir(dirname(target), { recursive: true });
        await pipeline([
          createReadStream(join(source, path)),
          ...through(),
          createWriteStream(`${target}.part`, { mode: 0o600 }),
        ]);
        await rename(`${target}.part`, target);
        files.push({ path, size, sha256: await printOfFile(target) });
      }
      if (i % 200 === 0) await progress(0.4 + (0.3 * i) / Math.max(1, present.length));
    }
    const made: BackupManifest = {
      format: 'jutbank.backup/1',
      at,
      database: { path: 'database.sql.gz', size: (await stat(dump)).size, sha256: await printOfFile(dump) },
      files,
      shelf,
      salt: secret?.salt ?? null,
    };
    await writeFile(join(making, MANIFEST), JSON.stringify(made, null, 1), { mode: 0o600 });
    await rename(making, join(folder, name));
    return { name, manifest: made };
  } catch (error) {
    await rm(making, { recursive: true, force: true });
    throw error;
  }
}

/** The backups of a folder, the newest first. */
export const listBackups = async (folder: string): Promise<string[]> =>
  (await readdir(folder).catch(() => []))
    .filter((name) => BACKUP.test(name))
    .sort()
    .reverse();

export async function readManifest(folder: string, name: string): Promise<BackupManifest> {
  return manifest.parse(JSON.parse(await readFile(join(folder, name, MANIFEST), 'utf8')));
}

async function newestManifest(folder: string, shelf: string): Promise<BackupManifest | undefined> {
  for (const name of await listBackups(folder)) {
    const found = await readManifest(folder, name).catch(() => undefined);
    if (found?.shelf === shelf) return found;
  }
  return undefined;
}

/** @throws where one is missing, or is not what it was when it was written */
async function checkFiles(
  folder: string,
  name: string,
  { database, files, shelf }: BackupManifest,
): Promise<void> {
  for (const [where, file] of [
    [join(folder, name), database] as const,
    ...files.map((f) => [join(folder, shelf), f] as const),
  ])
    if ((await printOfFile(join(where, file.path)).catch(() => '')) !== file.sha256)
      throw new Error(`${file.path} is missing from the backup, or is not what was written`);
}

function throughOf(
  { salt, shelf }: BackupManifest,
  passphrase: string | undefined,
): () => ReturnType<typeof decrypting>[] {
  if (salt === null) return () => [];
  if (passphrase === undefined) throw new Error('the backup is encrypted: its passphrase is needed');
  const key = keyOf(passphrase, salt);
  if (shelf !== shelfOf(key)) throw new Error('the backup was encrypted with another passphrase');
  return () => [decrypting(key)];
}

export interface CheckedBackup {
  /** entries of the ledger that were walked */
  readonly entries: number;
}

/**
 * Restores a backup into a database beside the shop's, walks its ledger, and looks whether every file it names is there.
 * @throws where anything of it is wrong: then it is no backup
 */
export async function checkBackup(place: BackupPlace, name: string): Promise<CheckedBackup> {
  const { databaseUrl, folder, passphrase } = place;
  const found = await readManifest(folder, name);
  await checkFiles(folder, name, found);
  const through = throughOf(found, passphrase);
  const scratch = `jutbank_check_${randomUUID().replaceAll('-', '')}`;
  const beside = new URL(databaseUrl);
  beside.pathname = `/${scratch}`;
  const admin = openDatabase(databaseUrl, { connections: 1 });
  try {
    await admin.run(`CREATE DATABASE ${scratch}`);
    await loadDump(beside.href, join(folder, name, found.database.path), through());
    const restored = openDatabase(beside.href, { connections: 1 });
    try {
      const ledger = await verifyLedger(restored);
      if (!ledger.intact) throw new Error('the ledger in the backup does not hold together');
      await namesOnlyWhatIsThere(restored, found);
      return { entries: ledger.entries };
    } finally {
      await restored.close();
    }
  } finally {
    await admin.run(`DROP DATABASE IF EXISTS ${scratch}`).catch(() => undefined);
    await admin.close();
  }
}

async function namesOnlyWhatIsThere(database: Database, { files }: BackupManifest): Promise<void> {
  const there = new Set(files.map((f) => (f.path.split(/[/\\]/).at(-1) ?? '').split('.')[0]));
  const named = await database.rows<{ hash: string }>(
    'SELECT hash FROM picture UNION SELECT shown_hash FROM picture WHERE shown_hash IS NOT NULL UNION SELECT file_hash FROM document WHERE file_hash IS NOT NULL',
  );
  const missing = named.find(({ hash }) => !there.has(hash));
  if (missing)
    throw new Error(`the database names a file that is not in the backup (${missing.hash.slice(0, 12)}…)`);
}

/** Backups that the rule does not keep, and files that none of those that stay names, go. */
export async function pruneBackups(folder: string, rule: KeepRule): Promise<void> {
  const names = await listBackups(folder);
  const manifests = new Map<string, BackupManifest>();
  for (const name of names) {
    const found = await readManifest(folder, name).catch(() => undefined);
    if (found) manifests.set(name, found);
  }
  const stay = new Set(
    keptBackups(
      [...manifests.values()].map((m) => m.at),
      rule,
    ),
  );
  for (const [name, { at }] of manifests)
    if (!stay.has(at)) {
      await rm(join(folder, name), { recursive: true, force: true });
      manifests.delete(name);
    }
  const needed = new Set([...manifests.values()].flatMap((m) => m.files.map((f) => join(m.shelf, f.path))));
  for (const { path } of await filesBelow(folder))
    if (/^files-[^/\\]+[/\\]/.test(path) && !needed.has(path)) await rm(join(folder, path), { force: true });
}

/**
 * A backup back into a shop's place: database and files. The database must hold nothing.
 * @throws where the database is in use, the passphrase is another, or anything of the backup is wrong
 */
export async function restoreBackup(place: BackupPlace, name: string): Promise<CheckedBackup> {
  const { databaseUrl, dataDir, folder, passphrase } = place;
  const found = await readManifest(folder, name);
  await checkFiles(folder, name, found);
  const through = throughOf(found, passphrase);
  const database = openDatabase(databaseUrl, { connections: 2 });
  try {
    const tables = await database.row<{ n: number }>(
      'SELECT COUNT(*) AS n FROM information_schema.tables WHERE table_schema = DATABASE()',
    );
    if (Number(tables?.n ?? 0) > 0)
      throw new Error('the database holds something already; restore into an empty one');
    await loadDump(databaseUrl, join(folder, name, found.database.path), through());
    for (const { path } of found.files) {
      const target = join(dataDir, 'files', path);
      const source = join(folder, found.shelf, path);
      await mkdir(dirname(target), { recursive: true });
      const undone = through();
      if (undone.length === 0) await copyFile(source, `${target}.part`);
      else await pipeline([createReadStream(source), ...undone, createWriteStream(`${target}.part`)]);
      await rename(`${target}.part`, target);
    }
    // of an older version: what has been added since
    await migrate(database);
    const ledger = await verifyLedger(database);
    if (!ledger.intact) throw new Error('the ledger does not hold together');
    return { entries: ledger.entries };
  } finally {
    await database.close();
  }
}
