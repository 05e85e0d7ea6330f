/** Copies of the server, and the demo shop that is filled in through one of them. */
import { spawn } from 'node:child_process';
import { existsSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { clearTimeout } from 'node:timers';
import { root } from './packages.mjs';
import { say } from './say.mjs';
import { CannotRun } from './supervise.mjs';

const LONGEST_LAST_WORDS = 2000;
const LONGEST_STOP_MS = 7000;

/**
 * @typedef {object} ServerOptions
 * @property {string} databaseUrl
 * @property {string} dataDir
 * @property {string} host
 * @property {number} port
 * @property {boolean} demo
 * @property {string} [clock] the file that says how far its clock is moved
 * @property {Record<string, string>} [env] what else it is to know
 */

/**
 * One copy of the server, once it listens.
 * @param {ServerOptions} options
 * @returns {Promise<{ gone: Promise<string>, stop(): Promise<void> }>}
 * @throws CannotRun
 */
export async function startServer({ databaseUrl, dataDir, host, port, demo, clock, env }) {
  const under = clock === undefined ? [] : ['--import', new URL('clock.mjs', import.meta.url).href];
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
      JUTBANK_DEMO: demo ? '1' : '0',
      ...(clock === undefined ? {} : { JUTBANK_CLOCK: clock }),
      ...env,
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

/**
 * The demo shop and the year it has behind it, lived through its routes by a server whose clock is set. It is fitted out
 * once for a data folder.
 * @param {Omit<ServerOptions, 'clock'>} options
 * @param {(() => Promise<void>)[]} undo what is to be done when all is stopped meanwhile
 * @throws CannotRun
 */
export async function fillDemoOnce(options, undo) {
  const done = join(options.dataDir, 'demo.filled');
  if (existsSync(done)) return;
  const clock = join(options.dataDir, 'clock');
  writeFileSync(clock, '0');
  const past = await startServer({ ...options, clock });
  undo.push(() => past.stop());
  const address = `http://${options.host}:${options.port}`;
  const health = /** @type {{ empty: boolean }} */ (await (await fetch(`${address}/api/v1/health`)).json());
  if (health.empty) {
    say('filling in the demo shop and the year it has behind it (a minute)');
    const demo = spawn(process.execPath, ['--import', 'tsx', join(root, 'demo', 'src', 'main.ts'), address], {
      cwd: root,
      stdio: 'inherit',
      env: { ...process.env, JUTBANK_CLOCK: clock },
    });
    const code = await new Promise((resolve) => demo.once('exit', resolve));
    if (code !== 0) throw new CannotRun('Filling in the demo shop failed; the message stands above.');
  }
  await past.stop();
  undo.pop();
  rmSync(clock, { force: true });
  writeFileSync(done, '');
}
