/**
 * A shop at work whose server and database are killed again and again: nothing answered is lost, nothing sent again is
 * doubled, nothing is half there, and it comes back by itself each time.
 * `node --import tsx scripts/measure/kills.ts [kills of each]`
 */
import { spawn } from 'node:child_process';
import { mkdtempSync, readFileSync, readdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { ShopAtWork } from './atWork.ts';

const KILLS = Number(process.argv[2] ?? 50);
const PORT = 4391;
const ADDRESS = `http://127.0.0.1:${PORT}/api/v1`;
const WRITERS = 4;
const PATIENCE_MS = 45_000;
const root = join(import.meta.dirname, '../..');
const dataDir = mkdtempSync(join(tmpdir(), 'jutbank-kills-'));
const wait = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

const shop = spawn(process.execPath, ['scripts/start.mjs', '--empty'], {
  cwd: root,
  env: { ...process.env, JUTBANK_DATA_DIR: dataDir, JUTBANK_PORT: String(PORT), JUTBANK_DEMO: '0' },
  stdio: ['ignore', 'pipe', 'inherit'],
});
let said = '';
shop.stdout.on('data', (part: Buffer) => (said += part.toString()));
while (!said.includes('Ctrl-C')) {
  if (shop.exitCode !== null) throw new Error(`it did not start: ${said}`);
  await wait(200);
}

/** Processes of this shop by what they are. */
function pidsOf(what: 'server' | 'database'): number[] {
  return readdirSync('/proc')
    .filter((name) => /^\d+$/.test(name))
    .flatMap((name) => {
      try {
        const line = readFileSync(`/proc/${name}/cmdline`, 'utf8');
        if (what === 'database')
          return line.startsWith('mariadbd') && line.includes(dataDir) ? [Number(name)] : [];
        if (!line.includes('server/src/main.ts')) return [];
        return readFileSync(`/proc/${name}/environ`, 'utf8').includes(dataDir) ? [Number(name)] : [];
      } catch {
        return [];
      }
    });
}

const work = new ShopAtWork(ADDRESS, PATIENCE_MS);
await work.setUp();
work.work(WRITERS);

const began = Date.now();
for (let n = 0; n < 2 * KILLS; n++) {
  await wait(1200 + Math.random() * 1500);
  const what = n % 2 === 0 ? 'server' : 'database';
  for (let tries = 0; ; tries++) {
    const pids = pidsOf(what);
    if (pids.length > 0) {
      for (const pid of pids) process.kill(pid, 'SIGKILL');
      break;
    }
    if (tries > 300) throw new Error(`the ${what} did not come back`);
    await wait(100);
  }
  await work.goesOn();
}
await work.rest();
const done = await work.check();
console.log(
  `${KILLS} kills of the server and ${KILLS} of the database in ${((Date.now() - began) / 1000).toFixed(0)} s: ${done}`,
);
console.log(
  work.problems.length === 0
    ? 'nothing lost, nothing doubled, nothing half'
    : work.problems.slice(0, 20).join('\n'),
);
shop.kill('SIGINT');
await new Promise((resolve) => shop.once('exit', resolve));
rmSync(dataDir, { recursive: true, force: true });
process.exit(work.problems.length === 0 ? 0 : 1);
