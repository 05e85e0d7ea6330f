/** `npm start`: sets up what is missing, starts database and server, fills in the demo at the first run. */
import { spawn } from 'node:child_process';
import { accessSync, constants, existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { clearTimeout } from 'node:timers';
import { ensureBuilt } from './setup/build.mjs';
import { isAlive, startMariaDb } from './setup/mariadb.mjs';
import { ensureDebianPackages, ensureDependencies, root } from './setup/packages.mjs';
import { giveUp, say } from './setup/say.mjs';
import { CannotRun, keepRunning } from './setup/supervise.mjs';

const wantsDemo = !process.argv.includes('--empty') && process.env.JUTBANK_DEMO !== '0';
const host = process.env.JUTBANK_HOST ?? '127.0.0.1';
const port = Number(process.env.JUTBANK_PORT ?? 4180);
// a shop's own records never share a folder with the demonstration
const dataDir = resolve(process.env.JUTBANK_DATA_DIR ?? join(root, 'var', wantsDemo ? 'demo' : 'shop'));

const LONGEST_LAST_WORDS = 2000;
const LONGEST_STOP_MS = 7000;

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

if (!Number.isInteger(port) || port < 1 || port > 65535)
  giveUp(`JUTBANK_PORT: “${process.env.JUTBANK_PORT}” is not a port; use a number from 1 to 65535.`);
try {
  mkdirSync(dataDir, { recursive: true });
  accessSync(dataDir, constants.W_OK);
} catch (error) {
  const code = /** @type {NodeJS.ErrnoException} */ (error).code;
  giveUp(
    code === 'ENOSPC'
      ? `The disk is full: ${dataDir} cannot be made. Make room and start again.`
      : `The data folder ${dataDir} cannot be written to (${code}). Choose another with JUTBANK_DATA_DIR, or change who owns it.`,
  );
}
const lock = join(dataDir, 'start.pid');
if (
  existsSync(lock) &&
  isAlive(Number(readFileSync(lock, 'utf8'))) &&
  Number(readFileSync(lock, 'utf8')) !== process.pid
)
  giveUp(
    `Jutbank is already running on ${dataDir}. Stop it first, or set JUTBANK_DATA_DIR and JUTBANK_PORT for a second one.`,
  );
try {
  writeFileSync(lock, String(process.pid));
} catch {
  rmSync(lock, { force: true });
  giveUp(`The disk is full: nothing can be written to ${dataDir}. Make room and start again.`);
}
undo.push(async () => rmSync(lock, { force: true }));

if (process.env.JUTBANK_DATABASE_URL === undefined) ensureDebianPackages(['mariadb-server']);
ensureDependencies();
ensureBuilt();

/** @param {string} reason */
const over = (reason) => {
  process.stderr.write(`\n${reason}\n`);
  void stop(1);
};
/** @param {unknown} error @returns {never} */
const notEvenOnce = (error) => {
  if (error instanceof CannotRun) {
    rmSync(lock, { force: true });
    giveUp(error.message);
  }
  throw error;
};

let url = process.env.JUTBANK_DATABASE_URL;
if (url === undefined) {
  /** @type {number | undefined} */
  let sameAsBefore;
  const database = await keepRunning(
    'The database',
    async () => {
      const started = await startMariaDb(join(dataDir, 'db'), {
        durable: true,
        ...(sameAsBefore === undefined ? {} : { port: sameAsBefore }),
      });
      sameAsBefore = started.port;
      return started;
    },
    over,
  ).catch(notEvenOnce);
  undo.push(() => database.stop());
  url = database.current().url('jutbank');
}

const address = `http://${host}:${port}`;
if (wantsDemo) await fillDemoOnce().catch(notEvenOnce);
const server = await keepRunning('The server', () => startServer(url ?? ''), over).catch(notEvenOnce);
undo.push(() => server.stop());
process.stdout.write(`\n  Jutbank is ready at ${address}\n`);
process.stdout.write(
  wantsDemo
    ? '  Sign in as ines@hollinquay.example with the password “harbour light 12”\n'
    : '  Open it to name your shop and its owner.\n',
);
process.stdout.write('  Ctrl-C stops it.\n\n');

/**
 * The demo shop and the year it has behind it, lived through its routes by a server whose clock is set. It is fitted out
 * once for a data folder.
 */
async function fillDemoOnce() {
  const done = join(dataDir, 'demo.filled');
  if (existsSync(done)) return;
  const clock = join(dataDir, 'clock');
  writeFileSync(clock, '0');
  const past = await startServer(url ?? '', clock);
  undo.push(() => past.stop());
  const health = /** @type {{ empty: boolean }} */ (await (await fetch(`${address}/api/v1/health`)).json());
  if (health.empty) {
    say('filling in the demo shop');
    const demo = spawn(process.execPath, ['--import', 'tsx', join(root, 'demo', 'src', 'main.ts'), address], {
      cwd: root,
      stdio: 'inherit',
      env: { ...process.env, JUTBANK_CLOCK: clock },
    });
    const code = await new Promise((resolve) => demo.once('exit', resolve));
    if (code !== 0) {
      process.stderr.write('Filling in the demo shop failed; the message stands above.\n');
      await stop(1);
    }
  }
  await past.stop();
  undo.pop();
  rmSync(clock, { force: true });
  writeFileSync(done, '');
}

/**
 * One copy of the server, once it listens.
 * @param {string} databaseUrl
 * @param {string} [clock] the file that says how far its clock is moved
 * @returns {Promise<{ gone: Promise<string>, stop(): Promise<void> }>}
 */
async function startServer(databaseUrl, clock) {
  const under = clock === undefined ? [] : ['--import', new URL('setup/clock.mjs', import.meta.url).href];
  const main = join(root, 'server', 'src', 'main.ts');
  const child = spawn(process.execPath, [...under, '--import', 'tsx', main], {
    cwd: root,
    detached: true,
    stdio: ['ignore', 'pipe', 'pipe'],
    env: {
      ...process.env,
      JUTBANK_DATABASE_URL: databaseUrl,
      JUTBANK_DATA_DIR: dataDir,
      JUTBANK_PORT: String(port),
      JUTBANK_HOST: host,
      JUTBANK_DEMO: wantsDemo ? '1' : '0',
      ...(clock === undefined ? {} : { JUTBANK_CLOCK: clock }),
    },
  });
  let said = '';
  let up = false;
  child.stderr.on('data', (part) => {
    said = (said + String(part)).slice(-LONGEST_LAST_WORDS);
    if (up) process.stderr.write(part);
  });
  /** @type {Promise<string>} */
  const gone = new Promise((resolve) =>
    child.once('exit', (code, signal) => resolve(signal ?? `code ${code}`)),
  );
  const listening = new Promise((resolve) => child.stdout.once('data', () => resolve(true)));
  up = /** @type {boolean} */ (await Promise.race([listening, gone.then(() => false)]));
  child.stdout.resume();
  if (!up) throw new CannotRun(said.trim() || 'the server ended before it listened');
  return {
    gone,
    stop: async () => {
      child.kill('SIGTERM');
      const late = setTimeout(() => child.kill('SIGKILL'), LONGEST_STOP_MS);
      await gone;
      clearTimeout(late);
    },
  };
}
