/**
 * `npm run cluster`: three databases as one Galera cluster and two copies of the server behind one address, all on this
 * machine, with the demo shop (`--empty` without). For trying what a shop outgrows one machine for; each part may be
 * killed and comes back.
 */
import { mkdirSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { ensureBuilt } from './setup/build.mjs';
import { balance } from './setup/balance.mjs';
import { galera } from './setup/galera.mjs';
import { freePort } from './setup/mariadb.mjs';
import { ensureDebianPackages, ensureDependencies, root } from './setup/packages.mjs';
import { say } from './setup/say.mjs';
import { fillDemoOnce, startServer } from './setup/server.mjs';
import { notEvenOnce, over, undo } from './setup/stopping.mjs';
import { keepRunning } from './setup/supervise.mjs';

const COPIES = 2;
const demo = !process.argv.includes('--empty');
const host = process.env.JUTBANK_HOST ?? '127.0.0.1';
const port = Number(process.env.JUTBANK_PORT ?? 4180);
const dataDir = resolve(process.env.JUTBANK_DATA_DIR ?? join(root, 'var', demo ? 'cluster-demo' : 'cluster'));

ensureDebianPackages(['mariadb-server', 'galera-4', 'rsync']);
ensureDependencies();
ensureBuilt();
mkdirSync(dataDir, { recursive: true });

try {
  const cluster = await galera(join(dataDir, 'db'));
  for (const number of cluster.numbers) {
    const node = await keepRunning(`Database ${number}`, () => cluster.start(number), over);
    undo.push(() => node.stop());
    say(`database ${number} is up`);
  }
  // the services outside are the same for all copies
  const { startOutside } = await import('./setup/outside.mjs');
  const outside = await startOutside(join(dataDir, 'standins'));
  undo.push(() => outside.close());
  const common = { databaseUrl: cluster.url, dataDir, host: '127.0.0.1', demo, env: outside.env };
  if (demo) await fillDemoOnce({ ...common, port: await freePort() }, undo);
  const ports = [];
  for (let copy = 1; copy <= COPIES; copy++) {
    const at = await freePort();
    const server = await keepRunning(`Server ${copy}`, () => startServer({ ...common, port: at }), over);
    undo.push(() => server.stop());
    ports.push(at);
  }
  const front = await balance(host, port, ports);
  undo.push(() => front.close());
} catch (error) {
  await notEvenOnce(error);
}
process.stdout.write(`\n  Jutbank is ready at http://${host}:${port}, on three databases and two servers\n`);
process.stdout.write(
  demo
    ? '  Sign in as ines@hollinquay.example with the password “harbour light 12”\n'
    : '  Open it to name your shop and its owner.\n',
);
process.stdout.write('  Ctrl-C stops it.\n\n');
