/** Numbered .sql files, applied in order under a lock, never edited after landing. */
import { createHash } from 'node:crypto';
import { readdir, readFile } from 'node:fs/promises';
import type { Database } from './database.ts';

const FOLDER = new URL('../../migrations/', import.meta.url);
const LOCK = 'jutbank-migrations';

export class NewerDatabase extends Error {}

export async function migrate(database: Database): Promise<number> {
  return database.withLock(LOCK, 60, async () => {
    await database.run(
      'CREATE TABLE IF NOT EXISTS schema_migration (name VARCHAR(120) NOT NULL PRIMARY KEY, checksum CHAR(64) NOT NULL, applied_at DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3))',
    );
    const done = new Map(
      (
        await database.rows<{ name: string; checksum: string }>('SELECT name, checksum FROM schema_migration')
      ).map((r) => [r.name, r.checksum]),
    );
    const files = (await readdir(FOLDER)).filter((f) => f.endsWith('.sql')).sort();
    const unknown = [...done.keys()].filter((name) => !files.includes(name));
    if (unknown.length > 0)
      throw new NewerDatabase(
        `This data directory was written by a newer Jutbank (it knows ${unknown.join(', ')}). Start that version, or use another data directory.`,
      );
    let applied = 0;
    for (const name of files) {
      const sql = await readFile(new URL(name, FOLDER), 'utf8');
      const checksum = createHash('sha256').update(sql).digest('hex');
      const known = done.get(name);
      if (known !== undefined) {
        if (known !== checksum) throw new Error(`migration ${name} was changed after it had been applied`);
        continue;
      }
      for (const statement of statementsOf(sql)) await database.run(statement);
      await database.run('INSERT INTO schema_migration (name, checksum) VALUES (?, ?)', [name, checksum]);
      applied++;
    }
    return applied;
  });
}

/** Our migrations hold no semicolons inside strings, and comments only at the start of a line. */
export const statementsOf = (sql: string): string[] =>
  sql
    .replace(/^\s*--.*$/gm, '')
    .split(/;\s*$/m)
    .map((s) => s.trim())
    .filter(Boolean);
