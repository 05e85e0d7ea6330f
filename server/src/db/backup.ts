/** The database written to a file by its own dump program, and read back from one. */
import { spawn } from 'node:child_process';
import { createReadStream, createWriteStream } from 'node:fs';
import { mkdir, rename, rm } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import type { Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { createGunzip, createGzip } from 'node:zlib';
import { DatabaseRefused } from './migrate.ts';
import { expandHosts } from './hosts.ts';

const MOST_SAID = 400;

/** One of the database's own programs on the first host of a URL, signed in without a password on its command line. */
function program(name: 'mariadb-dump' | 'mariadb', url: string, options: readonly string[]) {
  const { hostname, port, username, password, pathname } = new URL(expandHosts(url)[0] ?? url);
  const child = spawn(
    name,
    [
      // settings of this machine's user are not the shop's
      '--no-defaults',
      `--host=${hostname}`,
      `--port=${port || '3306'}`,
      `--user=${decodeURIComponent(username)}`,
      ...options,
      pathname.slice(1),
    ],
    { stdio: ['pipe', 'pipe', 'pipe'], env: { ...process.env, MYSQL_PWD: decodeURIComponent(password) } },
  );
  let said = '';
  child.stderr.on('data', (part: Buffer) => (said = (said + part.toString()).slice(-MOST_SAID)));
  const ended = new Promise<void>((resolve, reject) => {
    child.once('error', reject);
    child.once('close', (code) =>
      code === 0 ? resolve() : reject(new Error(said.trim() || `${name} ended with ${String(code)}`)),
    );
  });
  return { child, ended };
}

/**
 * The database as it is at one moment, compressed; half a dump is never left lying about.
 * @param through what it goes through on its way to the file, after it was compressed
 */
export async function dumpDatabase(
  url: string,
  path: string,
  through: readonly Transform[] = [],
): Promise<void> {
  await mkdir(dirname(path), { recursive: true });
  try {
    const { child, ended } = program('mariadb-dump', url, [
      '--single-transaction',
      '--hex-blob',
      '--skip-lock-tables',
    ]);
    child.stdin.end();
    await Promise.all([
      ended,
      pipeline([child.stdout, createGzip(), ...through, createWriteStream(`${path}.part`, { mode: 0o600 })]),
    ]);
    await rename(`${path}.part`, path);
  } catch (error) {
    await rm(`${path}.part`, { force: true });
    throw error;
  }
}

/** Reads a dump into a database that holds nothing. @param through what it goes through before it is uncompressed */
export async function loadDump(url: string, path: string, through: readonly Transform[] = []): Promise<void> {
  const { child, ended } = program('mariadb', url, ['--max-allowed-packet=256M']);
  child.stdout.resume();
  await Promise.all([ended, pipeline([createReadStream(path), ...through, createGunzip(), child.stdin])]);
}

/**
 * A copy of the database before an upgrade changes it.
 * @throws DatabaseRefused, with words, when none can be made
 */
export async function backupTo(url: string, folder: string): Promise<void> {
  const name = `before-upgrade-${new Date().toISOString().replace(/[:.]/g, '-')}.sql.gz`;
  try {
    await dumpDatabase(url, join(folder, name));
  } catch (error) {
    throw new DatabaseRefused(
      `The database must be upgraded, and no backup of it could be made first (${error instanceof Error ? error.message : String(error)}). Nothing was changed. Make room in ${folder}, and see that mariadb-dump is installed.`,
    );
  }
}
