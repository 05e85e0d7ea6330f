/** Wrong conditions at the start: one sentence that says what to do, no trace, and nothing is tried again in vain. */
import { spawn } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { createServer, type AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { databaseForTest } from './testing/index.ts';
import type { Database } from './db/index.ts';

const root = join(import.meta.dirname, '../..');
let url: string;
let database: Database;
let drop: () => Promise<void>;
let dataDir: string;
beforeAll(async () => {
  ({ database, url, drop } = await databaseForTest());
  dataDir = mkdtempSync(join(tmpdir(), 'jutbank-start-'));
});
afterAll(async () => {
  await drop();
  rmSync(dataDir, { recursive: true, force: true });
});

/** Starts it and waits for its end; what it said. */
async function start(env: Record<string, string>): Promise<{ code: number | null; said: string }> {
  const child = spawn(process.execPath, ['--import', 'tsx', join(root, 'server/src/main.ts')], {
    cwd: root,
    env: {
      ...process.env,
      NODE_OPTIONS: '',
      JUTBANK_DATABASE_URL: url,
      JUTBANK_DATA_DIR: dataDir,
      JUTBANK_PORT: '41811',
      ...env,
    },
    stdio: ['ignore', 'pipe', 'pipe'],
  });
  let said = '';
  child.stderr.on('data', (part: Buffer) => (said += part.toString()));
  child.stdout.on('data', (part: Buffer) => {
    said += part.toString();
    // it started after all
    child.kill('SIGTERM');
  });
  const code = await new Promise<number | null>((resolve) => child.once('exit', (c) => resolve(c)));
  return { code, said };
}
const refused = async (env: Record<string, string>, says: RegExp) => {
  const { code, said } = await start(env);
  expect(said).toMatch(says);
  expect(said).not.toMatch(/\n\s+at |node:internal|Error:/);
  expect(said.trim().split('\n')).toHaveLength(1);
  expect(code).toBe(78);
};

test.each([
  ['a word for a port', { JUTBANK_PORT: 'eighty' }, /“eighty” is not a port/],
  ['a port that is none', { JUTBANK_PORT: '70000' }, /is not a port/],
  ['an address of another machine', { JUTBANK_HOST: '203.0.113.9' }, /no address of this machine/],
  [
    'a data folder inside a file',
    { JUTBANK_DATA_DIR: '/dev/null/data' },
    /cannot be written to.*JUTBANK_DATA_DIR/,
  ],
  ['no form of an address', { JUTBANK_DATABASE_URL: 'postgres://x' }, /not of the form mysql:/],
])('%s', async (_, env, says) => refused(env as unknown as Record<string, string>, says), 30_000);

test('a port that is taken', async () => {
  const other = createServer();
  await new Promise<void>((resolve) => other.listen(0, '127.0.0.1', resolve));
  const { port } = other.address() as AddressInfo;
  await refused({ JUTBANK_PORT: String(port) }, /is taken/);
  other.close();
}, 30_000);

test('a database that does not answer, and one that knows another password', async () => {
  await refused(
    { JUTBANK_DATABASE_URL: 'mysql://a:b@127.0.0.1:9/jutbank' },
    /does not answer \(ECONNREFUSED\)/,
  );
  await refused({ JUTBANK_DATABASE_URL: url.replace(/:[^:@/]+@/, ':wrong@') }, /refuses us/);
}, 60_000);

test('a database of another program is left as it is', async () => {
  const foreign = await databaseForTest();
  await foreign.database.run('CREATE TABLE orders (id INT)');
  await refused({ JUTBANK_DATABASE_URL: foreign.url }, /not Jutbank's \(orders\)/);
  await foreign.drop();
}, 30_000);

test('a data folder that is a file', async () => {
  const path = join(dataDir, 'file');
  writeFileSync(path, '');
  await refused({ JUTBANK_DATA_DIR: path }, /cannot be written to/);
}, 30_000);

test('asked to stop it stops within seconds, and whole', async () => {
  const began = Date.now();
  const { code } = await start({});
  expect(code).toBe(0);
  expect(Date.now() - began).toBeLessThan(15_000);
  expect(await database.row('SELECT COUNT(*) AS n FROM schema_migration')).toBeDefined();
}, 30_000);
