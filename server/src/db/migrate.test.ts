/** An upgrade interrupted at any statement goes on at the next start; what is not ours is refused in words. */
import { afterEach, beforeEach, describe, expect, test } from '@jest/globals';
import { databaseForTest } from '../testing/index.ts';
import { DatabaseRefused, migrate, type Migration } from './migrate.ts';
import type { Database } from './database.ts';

let database: Database;
let drop: () => Promise<void>;
beforeEach(async () => {
  ({ database, drop } = await databaseForTest());
});
afterEach(() => drop());

class Killed extends Error {}
/** The same database, whose process is killed before, or right after, its nth statement. */
function killedAt(n: number, when: 'before' | 'after'): Database {
  let seen = 0;
  const through = async <T>(run: () => Promise<T>): Promise<T> => {
    seen++;
    if (seen === n && when === 'before') throw new Killed();
    const result = await run();
    if (seen === n && when === 'after') throw new Killed();
    if (seen > n) throw new Killed();
    return result;
  };
  return {
    ...database,
    run: (sql, values) => through(() => database.run(sql, values)),
    transaction: (work) => through(() => database.transaction(work)),
    withLock: (name, seconds, work) => database.withLock(name, seconds, work),
  };
}
const shape = async (): Promise<string> =>
  JSON.stringify([
    await database.rows(
      "SELECT table_name, column_name, column_type FROM information_schema.columns WHERE table_schema = DATABASE() AND table_name NOT LIKE 'schema%' ORDER BY table_name, ordinal_position",
    ),
    await database.rows(
      "SELECT DISTINCT table_name, index_name FROM information_schema.statistics WHERE table_schema = DATABASE() AND table_name NOT LIKE 'schema%' ORDER BY 1, 2",
    ),
  ]);

const files: Migration[] = [
  {
    name: '1.sql',
    sql: 'CREATE TABLE a (id INT PRIMARY KEY, n INT NOT NULL);\nINSERT INTO a VALUES (1, 1), (2, 2);\nCREATE TABLE b (id INT PRIMARY KEY, a INT, FOREIGN KEY (a) REFERENCES a (id));\n',
  },
  {
    name: '2.sql',
    sql: 'ALTER TABLE a ADD COLUMN m INT NULL, ADD INDEX a_n (n);\nUPDATE a SET m = n * 10;\nUPDATE a SET n = n + 1;\nALTER TABLE a DROP COLUMN m, ADD COLUMN k INT NOT NULL DEFAULT 0;\nCREATE INDEX a_k ON a (k);\nDELETE FROM a WHERE n = 2;\n',
  },
];

test('killed at each statement, before it or right after, and started again: right every time', async () => {
  await migrate(database, { files });
  const whole = await shape();
  expect(await database.rows('SELECT id, n FROM a')).toEqual([{ id: 2, n: 3 }]);
  let kills = 0;
  for (const when of ['before', 'after'] as const)
    for (let n = 1; ; n++) {
      for (const table of ['b', 'a', 'schema_step', 'schema_migration'])
        await database.run(`DROP TABLE IF EXISTS ${table}`);
      const killed = await migrate(killedAt(n, when), { files }).then(
        () => false,
        (error: unknown) => error instanceof Killed,
      );
      await migrate(database, { files });
      expect(await shape()).toBe(whole);
      expect(await database.rows('SELECT id, n FROM a')).toEqual([{ id: 2, n: 3 }]);
      expect(await migrate(database, { files })).toBe(0);
      if (!killed) break;
      kills++;
    }
  expect(kills).toBeGreaterThan(40);
}, 120_000);

test('the files that ship, killed here and there', async () => {
  for (let n = 3; ; n += 17) {
    const killed = await migrate(killedAt(n, n % 2 === 0 ? 'before' : 'after')).then(
      () => false,
      (error: unknown) => error instanceof Killed,
    );
    if (!killed) break;
  }
  expect(await migrate(database)).toBe(0);
}, 60_000);

test('a real mistake in a statement is not taken for one that was done', async () => {
  const wrong = [{ name: '1.sql', sql: 'CREATE TABLE a (id INT);\nCREATE TABLE a (id INT);\n' }];
  await expect(migrate(database, { files: wrong })).rejects.toMatchObject({ errno: 1050 });
});

describe('what is refused, and untouched', () => {
  test('a database of another program', async () => {
    await database.run('CREATE TABLE orders (id INT)');
    await expect(migrate(database)).rejects.toThrow(/not Jutbank's \(orders\)/);
    expect(await database.rows('SHOW TABLES')).toHaveLength(1);
  });
  test('one that was made by other files, or whose upgrade was begun with others', async () => {
    await migrate(database, { files: files.slice(0, 1) });
    const changed = [{ name: '1.sql', sql: 'CREATE TABLE a (id BIGINT);\n' }];
    await expect(migrate(database, { files: changed })).rejects.toThrow(DatabaseRefused);
    await migrate(killedAt(9, 'after'), { files }).catch(() => undefined);
    const other = [files[0] as Migration, { name: '2.sql', sql: 'ALTER TABLE a ADD COLUMN z INT;\n' }];
    await expect(migrate(database, { files: other })).rejects.toThrow(/begun with another 2.sql/);
  });
});

test('a backup is made before an upgrade, not before the first time; where it fails nothing is changed', async () => {
  let backups = 0;
  const backup = () => {
    backups++;
    return Promise.resolve();
  };
  await migrate(database, { files: files.slice(0, 1), backup });
  expect(backups).toBe(0);
  const before = await shape();
  await expect(
    migrate(database, { files, backup: () => Promise.reject(new Error('no room')) }),
  ).rejects.toThrow('no room');
  expect(await shape()).toBe(before);
  await migrate(database, { files, backup });
  expect(backups).toBe(1);
  await migrate(database, { files, backup });
  expect(backups).toBe(1);
});
