/** `npm start`: sets up what is missing, starts database and server, fills in the demo at the first run. */
import { accessSync, constants, existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { ensureBuilt } from './setup/build.mjs';
import { isAlive, startMariaDb } from './setup/mariadb.mjs';
import { ensureDebianPackages, ensureDependencies, root } from './setup/packages.mjs';
import { giveUp } from './setup/say.mjs';
import { fillDemoOnce, startServer } from './setup/server.mjs';
import { notEvenOnce, over, undo } from './setup/stopping.mjs';
import { keepRunning } from './setup/supervise.mjs';

const wantsDemo = !process.argv.includes('--empty') && process.env.JUTBANK_DEMO !== '0';
const host = process.env.JUTBANK_HOST ?? '127.0.0.1';
const port = Number(process.env.JUTBANK_PORT ?? 4180);
// a shop's own records never share a folder with the demonstration
const dataDir = resolve(process.env.JUTBANK_DATA_DIR ?? join(root, 'var', wantsDemo ? 'demo' : 'shop'));

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
const one = { databaseUrl: url, dataDir, host, port, demo: wantsDemo };
if (wantsDemo) await fillDemoOnce(one, undo).catch(notEvenOnce);
const server = await keepRunning('The server', () => startServer(one), over).catch(notEvenOnce);
undo.push(() => server.stop());
process.stdout.write(`\n  Jutbank is ready at ${address}\n`);
process.stdout.write(
  wantsDemo
    ? '  Sign in as ines@hollinquay.example with the password “harbour light 12”\n'
    : '  Open it to name your shop and its owner.\n',
);
process.stdout.write('  Ctrl-C stops it.\n\n');
