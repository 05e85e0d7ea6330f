/** A cluster at work of which one database and one server are killed: nothing answered is lost or doubled, and both come back. */
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync, readdirSync, readFileSync, rmSync, chmodSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import mysql from 'mysql2/promise';
import { openDatabase } from '../../server/src/db/database.ts';
import { freePort } from '../setup/mariadb.mjs';
import { ShopAtWork } from './atWork.ts';

const root = join(import.meta.dirname, '../..');
const wait = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));
const WRITERS = 8;
const AT_WORK_MS = 5000;
/** Nobody waits longer, whatever was killed. */
const LONGEST_MS = 15_000;

let cluster: ChildProcess;
let dataDir: string;
let address: string;

beforeAll(async () => {
  dataDir = mkdtempSync(join(tmpdir(), 'jutbank-cluster-'));
  // its databases run as a user of their own
  chmodSync(dataDir, 0o755);
  const port = await freePort();
  address = `http://127.0.0.1:${port}/api/v1`;
  cluster = spawn(process.execPath, ['scripts/cluster.mjs', '--empty'], {
    cwd: root,
    env: { ...process.env, NODE_OPTIONS: '', JUTBANK_DATA_DIR: dataDir, JUTBANK_PORT: String(port) },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  let said = '';
  cluster.stdout?.on('data', (part: Buffer) => (said += part.toString()));
  while (!said.includes('Ctrl-C')) {
    if (cluster.exitCode !== null) throw new Error(`the cluster did not start: ${said}`);
    await wait(200);
  }
}, 240_000);

afterAll(async () => {
  cluster.kill('SIGINT');
  await new Promise((resolve) => cluster.once('exit', resolve));
  rmSync(dataDir, { recursive: true, force: true });
}, 60_000);

/** Processes of this cluster by a part of their command line; servers by their data folder. */
function pidsOf(what: 'server' | `node-${number}`): number[] {
  return readdirSync('/proc')
    .filter((name) => /^\d+$/.test(name))
    .flatMap((name) => {
      try {
        const line = readFileSync(`/proc/${name}/cmdline`, 'utf8');
        if (what !== 'server')
          return line.startsWith('mariadbd') && line.includes(join(dataDir, 'db', what, 'data'))
            ? [Number(name)]
            : [];
        if (!line.includes('server/src/main.ts')) return [];
        return readFileSync(`/proc/${name}/environ`, 'utf8').includes(dataDir) ? [Number(name)] : [];
      } catch {
        return [];
      }
    });
}

const password = () => readFileSync(join(dataDir, 'db', 'secret'), 'utf8').trim();
const portOf = (node: number) =>
  Number(/--port=(\d+)/.exec(readFileSync(`/proc/${pidsOf(`node-${node}`)[0] ?? 0}/cmdline`, 'utf8'))?.[1]);
/** The cluster as a copy of the server knows it, that names its nodes in this order. */
const inOrder = (...nodes: number[]) =>
  `mysql://jutbank:${password()}@${nodes.map((node) => `127.0.0.1:${portOf(node)}`).join(',')}/jutbank`;

/** How many nodes one of them sees, itself among them. */
async function seenBy(node: number): Promise<number> {
  const connection = await mysql.createConnection({
    host: '127.0.0.1',
    port: portOf(node),
    user: 'jutbank',
    password: password(),
  });
  try {
    const [rows] = await connection.query("SHOW STATUS LIKE 'wsrep_cluster_size'");
    return Number((rows as { Value: string }[])[0]?.Value);
  } finally {
    connection.destroy();
  }
}

test('copies that use different nodes: forty writes of one row, reads of what the other wrote, one lock', async () => {
  const [one, other] = [openDatabase(inOrder(1, 2, 3)), openDatabase(inOrder(2, 3, 1))];
  const at = (n: number) => (n % 2 === 0 ? one : other);
  try {
    await one.run('CREATE TABLE tried (id INT PRIMARY KEY, n INT NOT NULL)');
    await one.run('INSERT INTO tried VALUES (1, 0)');
    await Promise.all(
      Array.from({ length: 40 }, (_, n) =>
        at(n).transaction(async (tx) => {
          const before = await tx.row<{ n: number }>('SELECT n FROM tried WHERE id = 1 FOR UPDATE');
          await tx.run('UPDATE tried SET n = ? WHERE id = 1', [Number(before?.n) + 1]);
        }),
      ),
    );
    expect(await other.row('SELECT n FROM tried WHERE id = 1')).toEqual({ n: 40 });

    let stale = 0;
    for (let n = 41; n <= 240; n++) {
      await at(n).run('UPDATE tried SET n = ? WHERE id = 1', [n]);
      const read = await at(n + 1).row<{ n: number }>('SELECT n FROM tried WHERE id = 1');
      if (Number(read?.n) !== n) stale++;
    }
    expect(stale).toBe(0);

    let inside = 0;
    let most = 0;
    await Promise.all(
      [0, 1, 2, 3].map((n) =>
        at(n).withLock('tried', 60, async () => {
          most = Math.max(most, ++inside);
          await wait(300);
          inside--;
        }),
      ),
    );
    expect(most).toBe(1);
    await one.run('DROP TABLE tried');
  } finally {
    await Promise.all([one.close(), other.close()]);
  }
}, 120_000);

test('a node and a copy killed under load: nothing answered is lost or doubled, users wait seconds, both come back', async () => {
  const shop = new ShopAtWork(address, 60_000);
  await shop.setUp();
  shop.work(WRITERS);
  await wait(AT_WORK_MS);
  // the node that all copies use
  const [node = 0] = pidsOf('node-1');
  process.kill(node, 'SIGKILL');
  await shop.goesOn();
  await wait(AT_WORK_MS);
  const [server = 0] = pidsOf('server');
  process.kill(server, 'SIGKILL');
  await shop.goesOn();
  await wait(AT_WORK_MS);
  await shop.rest();
  const done = await shop.check();
  expect(shop.problems).toEqual([]);
  expect(shop.longest).toBeLessThan(LONGEST_MS);
  process.stderr.write(`  ${done}\n`);
  for (let tries = 0; (await seenBy(2)) !== 3 || (await seenBy(1).catch(() => 0)) !== 3; tries++) {
    if (tries > 120) throw new Error('the node did not come back');
    await wait(500);
  }
  expect(pidsOf('server')).toHaveLength(2);
}, 300_000);
