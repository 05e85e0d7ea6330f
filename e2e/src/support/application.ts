/** The whole application as a user would start it: the real server process on a database of its own. */
import { spawn } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { mkdtempSync, rmSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import mysql from 'mysql2/promise';

export interface Application {
  readonly address: string;
  close(): Promise<void>;
}
const root = join(import.meta.dirname, '../../..');
/** The demo shop lives through a year while it is filled in: a busy machine takes minutes for that. */
export const FILLING_MS = 480_000;
export const DEMO = { email: 'ines@hollinquay.example', password: 'harbour light 12' };

const freePort = () =>
  new Promise<number>((resolve) => {
    const probe = createServer().listen(0, '127.0.0.1', () => {
      const address = probe.address();
      probe.close(() => resolve(typeof address === 'object' && address ? address.port : 0));
    });
  });

/** @param demo fill in the demo shop, through the public routes */
export async function startApplication(demo: boolean): Promise<Application> {
  const base = process.env.JUTBANK_TEST_DATABASE;
  if (base === undefined)
    throw new Error('run these tests with npm run test:browser, which starts the database');
  const name = `jutbank_${randomUUID().replaceAll('-', '')}`;
  const admin = await mysql.createConnection({ uri: `${base}jutbank` });
  await admin.query(`CREATE DATABASE ${name}`);
  const dataDir = mkdtempSync(join(tmpdir(), 'jutbank-e2e-'));
  const port = await freePort();
  const env = {
    ...process.env,
    NODE_OPTIONS: '',
    JUTBANK_DATABASE_URL: base + name,
    JUTBANK_DATA_DIR: dataDir,
    JUTBANK_PORT: String(port),
    JUTBANK_DEMO: demo ? '1' : '0',
  };
  const server = spawn(process.execPath, ['--import', 'tsx', join(root, 'server/src/main.ts')], {
    cwd: root,
    env,
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  const gone = new Promise((resolve) => server.once('exit', resolve));
  await new Promise((resolve) => server.stdout.once('data', resolve));
  const address = `http://127.0.0.1:${port}`;
  if (demo) {
    const fill = spawn(process.execPath, ['--import', 'tsx', join(root, 'demo/src/main.ts'), address], {
      cwd: root,
      env,
      stdio: ['ignore', 'ignore', 'inherit'],
    });
    const code = await new Promise((resolve) => fill.once('exit', resolve));
    if (code !== 0) throw new Error('the demo shop could not be filled in');
  }
  return {
    address,
    close: async () => {
      server.kill('SIGTERM');
      await gone;
      await admin.query(`DROP DATABASE ${name}`);
      await admin.end();
      rmSync(dataDir, { recursive: true, force: true });
    },
  };
}
