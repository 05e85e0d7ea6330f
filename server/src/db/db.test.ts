import { spawn } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { connect, createServer, type AddressInfo, type Socket } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { databaseForTest, OWNER, Visitor, intake } from '../testing/index.ts';
import { expandHosts } from './hosts.ts';
import { migrate, NewerDatabase, statementsOf } from './migrate.ts';
import { NotReady, openDatabase, type Database } from './database.ts';

let database: Database;
let url: string;
let drop: () => Promise<void>;
beforeAll(async () => {
  ({ database, url, drop } = await databaseForTest());
});
afterAll(() => drop());

test('migrations from empty, then none; a newer database is refused in words', async () => {
  expect(await migrate(database)).toBeGreaterThan(3);
  expect(await migrate(database)).toBe(0);
  await database.run("INSERT INTO schema_migration (name, checksum) VALUES ('9999_future.sql', 'x')");
  await expect(migrate(database)).rejects.toThrow(NewerDatabase);
  await database.run("DELETE FROM schema_migration WHERE name = '9999_future.sql'");
});

test('a transaction that deadlocks is run again; one that fails leaves nothing', async () => {
  await database.run('CREATE TABLE tug (id INT PRIMARY KEY, n INT NOT NULL)');
  await database.run('INSERT INTO tug VALUES (1, 0), (2, 0)');
  let tries = 0;
  const pull = (first: number, second: number) =>
    database.transaction(async (tx) => {
      tries++;
      await tx.run('UPDATE tug SET n = n + 1 WHERE id = ?', [first]);
      await tx.row('SELECT SLEEP(0.1)');
      await tx.run('UPDATE tug SET n = n + 1 WHERE id = ?', [second]);
    });
  await Promise.all([pull(1, 2), pull(2, 1)]);
  expect(tries).toBeGreaterThan(2);
  expect(await database.rows('SELECT n FROM tug')).toEqual([{ n: 2 }, { n: 2 }]);
  await expect(
    database.transaction(async (tx) => {
      await tx.run('UPDATE tug SET n = 99');
      throw new Error('no');
    }),
  ).rejects.toThrow('no');
  expect(await database.rows('SELECT n FROM tug')).toEqual([{ n: 2 }, { n: 2 }]);
});

describe('inside a transaction', () => {
  test('nothing but its own connection may be used, whoever asks', async () => {
    const inside = 'inside a transaction only its own connection may be used';
    const asks = async () => database.row('SELECT 1');
    await expect(database.transaction(async () => asks())).rejects.toThrow(inside);
    await expect(database.transaction(() => database.transaction(() => Promise.resolve(1)))).rejects.toThrow(
      inside,
    );
    await expect(
      database.transaction(() =>
        Promise.all([1, 2].map(() => new Promise((r) => setTimeout(r, 5)).then(asks))),
      ),
    ).rejects.toThrow(inside);
    // what goes on after its end is outside again
    let late: Promise<unknown> | undefined;
    await database.transaction(() => {
      late = new Promise((r) => setTimeout(r, 60)).then(asks);
      return Promise.resolve();
    });
    await expect(late).resolves.toBeDefined();
    await expect(database.transaction(() => database.apart(asks))).resolves.toBeDefined();
  });
  test('what is not ready is made so outside, and all of it is run again', async () => {
    await database.run('CREATE TABLE IF NOT EXISTS made (n INT)');
    let ready = false;
    const result = await database.transaction(async (tx) => {
      await tx.run('INSERT INTO made VALUES (1)');
      if (!ready)
        throw new NotReady(async () => {
          await database.row('SELECT 1');
          ready = true;
        });
      return tx.row<{ n: number }>('SELECT COUNT(*) AS n FROM made');
    });
    expect(result?.n).toBe(1);
  });
  test('what is read under a lock is what stands committed', async () => {
    await database.run('CREATE TABLE IF NOT EXISTS kept (id INT PRIMARY KEY, n INT NOT NULL)');
    await database.run('INSERT INTO kept VALUES (1, 0)');
    const add = () =>
      database.transaction(async (tx) => {
        await tx.row('SELECT id FROM tug WHERE id = 1');
        await tx.row('SELECT id FROM kept WHERE id = 1 FOR UPDATE');
        const before = await tx.row<{ n: number }>('SELECT n FROM kept WHERE id = 1');
        await tx.run('UPDATE kept SET n = ? WHERE id = 1', [Number(before?.n) + 1]);
      });
    await Promise.all(Array.from({ length: 12 }, add));
    expect(await database.row('SELECT n FROM kept')).toEqual({ n: 12 });
  });
});

test('of several hosts one that answers is used, and another when it ends', async () => {
  const real = new URL(url);
  const through = createServer((socket) => {
    const on = connect(Number(real.port), real.hostname);
    socket.pipe(on).pipe(socket);
    for (const end of [socket, on]) end.on('error', () => undefined);
    open.add(socket);
  });
  const open = new Set<Socket>();
  await new Promise<void>((resolve) => through.listen(0, '127.0.0.1', resolve));
  const first = (through.address() as AddressInfo).port;
  const several = openDatabase(url.replace(`@${real.host}`, `@127.0.0.1:9,127.0.0.1:${first},${real.host}`));
  expect(await several.row('SELECT 1 AS one')).toEqual({ one: 1 });
  // the host that was in use is gone: the next answers
  through.close();
  for (const socket of open) socket.destroy();
  await several.row('SELECT 1').catch(() => undefined);
  expect(await several.row('SELECT 2 AS two')).toEqual({ two: 2 });
  expect(await several.transaction((tx) => tx.row('SELECT 3 AS three'))).toEqual({ three: 3 });
  await several.close();
});

test('small things of the layer', () => {
  expect(expandHosts('mysql://u:p@a:1,b:2/db')).toEqual(['mysql://u:p@a:1/db', 'mysql://u:p@b:2/db']);
  expect(statementsOf('-- a; comment\nCREATE x;\nCREATE y;\n')).toEqual(['CREATE x', 'CREATE y']);
});

const port = () =>
  new Promise<number>((resolve) => {
    const probe = createServer().listen(0, '127.0.0.1', () => {
      const address = probe.address();
      probe.close(() => resolve(typeof address === 'object' && address ? address.port : 0));
    });
  });

describe('the server killed in a burst of writes', () => {
  test('nothing that was answered is lost, nothing is half there', async () => {
    const dataDir = mkdtempSync(join(tmpdir(), 'jutbank-kill-'));
    const at = await port();
    const root = join(import.meta.dirname, '../../..');
    const start = async () => {
      const child = spawn(process.execPath, ['--import', 'tsx', join(root, 'server/src/main.ts')], {
        cwd: root,
        env: {
          ...process.env,
          NODE_OPTIONS: '',
          JUTBANK_DATABASE_URL: url,
          JUTBANK_DATA_DIR: dataDir,
          JUTBANK_PORT: String(at),
        },
        stdio: ['ignore', 'pipe', 'inherit'],
      });
      await new Promise((resolve) => child.stdout.once('data', resolve));
      return child;
    };
    const first = await start();
    const owner = new Visitor(`http://127.0.0.1:${at}`);
    await owner.call('POST', '/setup', { shopName: 'Kill', baseCurrency: 'EUR', owner: OWNER });
    const answered: string[] = [];
    let running = true;
    let enough: () => void = () => undefined;
    const burst = new Promise<void>((resolve) => (enough = resolve));
    const writers = Array.from({ length: 4 }, async (_, w) => {
      for (let i = 0; running; i++) {
        const reply = await owner
          .call(
            'POST',
            '/pieces',
            { ...intake, title: `Burst ${w} ${i}` },
            { 'idempotency-key': `burst-${w}-${i}` },
          )
          .catch(() => undefined);
        if (reply?.status === 201) answered.push(reply.body.id);
        if (answered.length >= 25) enough();
      }
    });
    await burst;
    const gone = new Promise((resolve) => first.once('exit', resolve));
    first.kill('SIGKILL');
    await gone;
    running = false;
    await Promise.all(writers);
    const second = await start();
    const ids = new Set((await database.rows<{ id: string }>('SELECT id FROM piece')).map((r) => r.id));
    expect(answered.filter((id) => !ids.has(id))).toEqual([]);
    const orphans = await database.rows(
      "SELECT p.id FROM piece p LEFT JOIN ledger_entry l ON l.piece_id = p.id AND l.kind = 'taken-in' WHERE l.seq IS NULL",
    );
    expect(orphans).toEqual([]);
    expect((await owner.call('GET', '/ledger/verify')).body).toMatchObject({
      intact: true,
      entries: ids.size,
    });
    const end = new Promise((resolve) => second.once('exit', resolve));
    second.kill('SIGTERM');
    await end;
    rmSync(dataDir, { recursive: true, force: true });
  });
});
