/** `npm start`: sets up what is missing, starts database and server, fills in the demo at the first run. */
import { spawn } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { ensureBuilt } from './setup/build.mjs';
import { isAlive, startMariaDb } from './setup/mariadb.mjs';
import { ensureDebianPackages, ensureDependencies, root } from './setup/packages.mjs';
import { giveUp, say } from './setup/say.mjs';

const wantsDemo = !process.argv.includes('--empty') && process.env.JUTBANK_DEMO !== '0';
const host = process.env.JUTBANK_HOST ?? '127.0.0.1';
const port = Number(process.env.JUTBANK_PORT ?? 4180);
// a shop's own records never share a folder with the demonstration
const dataDir = resolve(process.env.JUTBANK_DATA_DIR ?? join(root, 'var', wantsDemo ? 'demo' : 'shop'));

/** @type {(() => Promise<void>)[]} */
const undo = [];
let stopping = false;
/** @param {number} code */
async function stop(code) {
  if (stopping) return;
  stopping = true;
  for (const step of undo.reverse()) await step().catch(() => undefined);
  process.exit(code);
}
process.on('SIGINT', () => void stop(0));
process.on('SIGTERM', () => void stop(0));

mkdirSync(dataDir, { recursive: true });
const lock = join(dataDir, 'start.pid');
if (
  existsSync(lock) &&
  isAlive(Number(readFileSync(lock, 'utf8'))) &&
  Number(readFileSync(lock, 'utf8')) !== process.pid
)
  giveUp(
    `Jutbank is already running on ${dataDir}. Stop it first, or set JUTBANK_DATA_DIR and JUTBANK_PORT for a second one.`,
  );
writeFileSync(lock, String(process.pid));
undo.push(async () => rmSync(lock, { force: true }));

if (process.env.JUTBANK_DATABASE_URL === undefined) ensureDebianPackages(['mariadb-server']);
ensureDependencies();
ensureBuilt();

let url = process.env.JUTBANK_DATABASE_URL;
if (url === undefined) {
  const database = await startMariaDb(join(dataDir, 'db'), { durable: true });
  undo.push(() => database.stop());
  url = database.url('jutbank');
}

const server = spawn(process.execPath, ['--import', 'tsx', join(root, 'server', 'src', 'main.ts')], {
  cwd: root,
  detached: true,
  stdio: ['ignore', 'pipe', 'inherit'],
  env: {
    ...process.env,
    JUTBANK_DATABASE_URL: url,
    JUTBANK_DATA_DIR: dataDir,
    JUTBANK_PORT: String(port),
    JUTBANK_HOST: host,
    JUTBANK_DEMO: wantsDemo ? '1' : '0',
  },
});
const serverGone = new Promise((resolve) => server.once('exit', resolve));
undo.push(async () => {
  server.kill('SIGTERM');
  await serverGone;
});
void serverGone.then(() => stop(1));
await new Promise((resolve) => server.stdout.once('data', resolve));
const address = `http://${host}:${port}`;

if (wantsDemo) {
  const health = /** @type {{ empty: boolean }} */ (await (await fetch(`${address}/api/v1/health`)).json());
  if (health.empty) {
    say('filling in the demo shop');
    const demo = spawn(process.execPath, ['--import', 'tsx', join(root, 'demo', 'src', 'main.ts'), address], {
      cwd: root,
      stdio: 'inherit',
    });
    const code = await new Promise((resolve) => demo.once('exit', resolve));
    if (code !== 0) {
      process.stderr.write('Filling in the demo shop failed; the message stands above.\n');
      await stop(1);
    }
  }
}
process.stdout.write(`\n  Jutbank is ready at ${address}\n`);
process.stdout.write(
  wantsDemo
    ? '  Sign in as ines@hollinquay.example with the password “harbour light 12”\n'
    : '  Open it to name your shop and its owner.\n',
);
process.stdout.write('  Ctrl-C stops it.\n\n');
