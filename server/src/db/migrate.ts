/**
 * Numbered .sql files, applied in order under a lock, never edited after landing. Each statement is noted as it is done,
 * so that an upgrade that was interrupted anywhere goes on where it stood.
 */
import { createHash } from 'node:crypto';
import { readdir, readFile } from 'node:fs/promises';
import type { Database } from './database.ts';
import { errorNumber } from './hosts.ts';

const FOLDER = new URL('../../migrations/', import.meta.url);
const LOCK = 'jutbank-migrations';
const LOCK_WAIT_S = 60;

/** This database is not one that can be used; the message says what to do. */
export class DatabaseRefused extends Error {}
export class NewerDatabase extends DatabaseRefused {}

/** What a statement meets that had been carried out before its note was written. */
const DONE_ALREADY = new Set([
  1050, // table exists
  1060, // column exists
  1061, // index exists
  1068, // primary key exists
  1091, // column or index is gone
  1826, // foreign key exists
  1005, // the same, told by the storage engine
  1022,
  121,
]);

/** Changes to rows are noted in their own transaction; changes to tables are each whole or not at all. */
const changesRows = (statement: string): boolean => /^(INSERT|UPDATE|DELETE|REPLACE)\b/i.test(statement);

export interface Migration {
  readonly name: string;
  readonly sql: string;
}
export interface MigrateOptions {
  /** in place of the files that ship */
  readonly files?: readonly Migration[];
  /** what is done before a database that holds something is changed; where it fails nothing is */
  readonly backup?: (() => Promise<void>) | undefined;
}

const shipped = async (): Promise<Migration[]> => {
  const names = (await readdir(FOLDER)).filter((f) => f.endsWith('.sql')).sort();
  return Promise.all(
    names.map(async (name) => ({ name, sql: await readFile(new URL(name, FOLDER), 'utf8') })),
  );
};

/**
 * @returns how many files were applied
 * @throws DatabaseRefused for a database that is another program's, of a newer version, or changed
 */
export async function migrate(database: Database, options: MigrateOptions = {}): Promise<number> {
  const files = options.files ?? (await shipped());
  return database.withLock(LOCK, LOCK_WAIT_S, async () => {
    await refuseForeign(database);
    await database.run(
      'CREATE TABLE IF NOT EXISTS schema_migration (name VARCHAR(120) NOT NULL PRIMARY KEY, checksum CHAR(64) NOT NULL, applied_at DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3))',
    );
    await database.run(
      'CREATE TABLE IF NOT EXISTS schema_step (name VARCHAR(120) NOT NULL, step INT UNSIGNED NOT NULL, checksum CHAR(64) NOT NULL, done BOOLEAN NOT NULL DEFAULT FALSE, PRIMARY KEY (name, step))',
    );
    const done = new Map(
      (
        await database.rows<{ name: string; checksum: string }>('SELECT name, checksum FROM schema_migration')
      ).map((r) => [r.name, r.checksum]),
    );
    const unknown = [...done.keys()].filter((name) => !files.some((f) => f.name === name));
    if (unknown.length > 0)
      throw new NewerDatabase(
        `This data directory was written by a newer Jutbank (it knows ${unknown.join(', ')}). Start that version, or use another data directory.`,
      );
    for (const { name, sql } of files) {
      const known = done.get(name);
      if (known !== undefined && known !== checksumOf(sql))
        throw new DatabaseRefused(
          `The migration ${name} is not the one this database was made with. Restore the program's own files, or use another data directory.`,
        );
    }
    const open = files.filter((f) => !done.has(f.name));
    if (open.length > 0 && done.size > 0) await options.backup?.();
    for (const file of open) await apply(database, file);
    return open.length;
  });
}

const checksumOf = (sql: string): string => createHash('sha256').update(sql).digest('hex');

/** A database in which somebody else keeps his tables is not touched. */
async function refuseForeign(database: Database): Promise<void> {
  const tables = (
    await database.rows<{ name: string }>(
      'SELECT table_name AS name FROM information_schema.tables WHERE table_schema = DATABASE()',
    )
  ).map((t) => t.name);
  if (tables.some((table) => table !== 'cluster_lock') && !tables.includes('schema_migration'))
    throw new DatabaseRefused(
      `This database holds tables that are not Jutbank's (${tables.slice(0, 3).join(', ')}). Give it an empty database of its own.`,
    );
}

async function apply(database: Database, { name, sql }: Migration): Promise<void> {
  const noted = new Map(
    (
      await database.rows<{ step: number; checksum: string; done: number }>(
        'SELECT step, checksum, done FROM schema_step WHERE name = ?',
        [name],
      )
    ).map((r) => [Number(r.step), r]),
  );
  for (const [step, statement] of statementsOf(sql).entries()) {
    const checksum = checksumOf(statement);
    const before = noted.get(step);
    if (before && before.checksum !== checksum)
      throw new DatabaseRefused(
        `An upgrade was begun with another ${name}. Go on with the version that began it, or restore the backup made before.`,
      );
    if (before?.done) continue;
    const note = 'UPDATE schema_step SET done = TRUE WHERE name = ? AND step = ?';
    await database.run('INSERT IGNORE INTO schema_step (name, step, checksum) VALUES (?, ?, ?)', [
      name,
      step,
      checksum,
    ]);
    if (changesRows(statement))
      await database.transaction(async (tx) => {
        await tx.run(statement);
        await tx.run(note, [name, step]);
      });
    else {
      await database.run(statement).catch((error: unknown) => {
        // begun before and not noted: it may be done
        if (before === undefined || !DONE_ALREADY.has(errorNumber(error) ?? 0)) throw error;
      });
      await database.run(note, [name, step]);
    }
  }
  await database.run('INSERT INTO schema_migration (name, checksum) VALUES (?, ?)', [name, checksumOf(sql)]);
}

/** Our migrations hold no semicolons inside strings, and comments only at the start of a line. */
export const statementsOf = (sql: string): string[] =>
  sql
    .replace(/^\s*--.*$/gm, '')
    .split(/;\s*$/m)
    .map((s) => s.trim())
    .filter(Boolean);
