/** `npm run backup` and `npm run restore [name or file]`: the shop's own database is started where it does not run. */
import { spawnSync } from 'node:child_process';
import { existsSync, readFileSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { isAlive, startMariaDb } from './setup/mariadb.mjs';
import { ensureDebianPackages, ensureDependencies, root } from './setup/packages.mjs';
import { giveUp } from './setup/say.mjs';

const [, , act, from] = process.argv;
const wantsDemo = process.env.JUTBANK_DEMO === '1';
const dataDir = resolve(process.env.JUTBANK_DATA_DIR ?? join(root, 'var', wantsDemo ? 'demo' : 'shop'));
const lock = join(dataDir, 'start.pid');
const running = existsSync(lock) && isAlive(Number(readFileSync(lock, 'utf8')));

if (act !== 'backup' && act !== 'restore') giveUp('Say “npm run backup” or “npm run restore -- NAME”.');
if (running)
  giveUp(
    act === 'backup'
      ? `Jutbank is running on ${dataDir}: make the backup there, under Shop, Backups. From here it is made while Jutbank stands still.`
      : `Jutbank is running on ${dataDir}. Stop it first: what is restored would change under it.`,
  );
if (act === 'backup' && !existsSync(dataDir) && process.env.JUTBANK_DATABASE_URL === undefined)
  giveUp(`There is no shop in ${dataDir}. Say which with JUTBANK_DATA_DIR.`);

let url = process.env.JUTBANK_DATABASE_URL;
let stop = async () => {};
if (url === undefined) {
  ensureDebianPackages(['mariadb-server']);
  ensureDependencies();
  const database = await startMariaDb(join(dataDir, 'db'), { durable: true });
  url = database.url('jutbank');
  stop = () => database.stop();
}
const done = spawnSync(
  process.execPath,
  [
    '--import',
    'tsx',
    join(root, 'server', 'src', 'archive', 'command.ts'),
    act,
    ...(from === undefined ? [] : [from]),
  ],
  {
    // what is named is named from where one stands
    stdio: 'inherit',
    env: {
      ...process.env,
      JUTBANK_DATABASE_URL: url,
      JUTBANK_DATA_DIR: dataDir,
      JUTBANK_BACKUP_DIR: process.env.JUTBANK_BACKUP_DIR ?? join(dataDir, 'backups'),
    },
  },
);
await stop();
process.exitCode = done.status ?? 1;
