/** A copy of the database as it is, before an upgrade changes it. */
import { spawn } from 'node:child_process';
import { createWriteStream } from 'node:fs';
import { mkdir, rename, rm } from 'node:fs/promises';
import { join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { createGzip } from 'node:zlib';
import { DatabaseRefused } from './migrate.ts';
import { expandHosts } from './hosts.ts';

/**
 * Written by the database's own dump program into a file of its own; half a backup is never left lying about.
 * @throws DatabaseRefused, with words, when none can be made
 */
export async function backupTo(url: string, folder: string): Promise<void> {
  const { hostname, port, username, password, pathname } = new URL(expandHosts(url)[0] ?? url);
  const name = pathname.slice(1);
  const path = join(folder, `before-upgrade-${new Date().toISOString().replace(/[:.]/g, '-')}.sql.gz`);
  try {
    await mkdir(folder, { recursive: true });
    const dump = spawn(
      'mariadb-dump',
      [
        `--host=${hostname}`,
        `--port=${port || '3306'}`,
        `--user=${decodeURIComponent(username)}`,
        '--single-transaction',
        '--hex-blob',
        '--skip-lock-tables',
        name,
      ],
      {
        stdio: ['ignore', 'pipe', 'pipe'],
        env: { ...process.env, MYSQL_PWD: decodeURIComponent(password) },
      },
    );
    let said = '';
    dump.stderr.on('data', (part: Buffer) => (said = (said + part.toString()).slice(-400)));
    const ended = new Promise<number | null>((resolve, reject) => {
      dump.once('error', reject);
      dump.once('close', resolve);
    });
    const [code] = await Promise.all([
      ended,
      pipeline(dump.stdout, createGzip(), createWriteStream(`${path}.part`, { mode: 0o600 })),
    ]);
    if (code !== 0) throw new Error(said.trim() || `mariadb-dump ended with ${String(code)}`);
    await rename(`${path}.part`, path);
  } catch (error) {
    await rm(`${path}.part`, { force: true });
    throw new DatabaseRefused(
      `The database must be upgraded, and no backup of it could be made first (${error instanceof Error ? error.message : String(error)}). Nothing was changed. Make room in ${folder}, and see that mariadb-dump is installed.`,
    );
  }
}
