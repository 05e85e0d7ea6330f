/** Debian packages and npm dependencies: installed only where they are missing. */
import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { giveUp, say } from './say.mjs';

export const root = new URL('../../', import.meta.url).pathname;

const NEEDED = {
  'mariadb-server': '/usr/sbin/mariadbd',
  'galera-4': '/usr/lib/galera/libgalera_smm.so',
  rsync: '/usr/bin/rsync',
  chromium: '/usr/bin/chromium',
  'chromium-driver': '/usr/bin/chromedriver',
};

/** @param {(keyof typeof NEEDED)[]} names */
export function ensureDebianPackages(names) {
  const missing = names.filter((name) => !existsSync(NEEDED[name]));
  if (missing.length === 0) return;
  const command = `apt-get install -y --no-install-recommends ${missing.join(' ')}`;
  if (!existsSync('/usr/bin/apt-get'))
    giveUp(
      `These programs are missing and this is not Debian: ${missing.map((m) => NEEDED[m]).join(', ')}. Install them and try again.`,
    );
  if (process.getuid?.() !== 0)
    giveUp(
      `These Debian packages are missing, and installing them needs root. Run once:\n\n  sudo ${command}\n`,
    );
  say(`installing Debian packages: ${missing.join(', ')}`);
  // the packages' own services must not start: Jutbank runs its own
  const policy = '/usr/sbin/policy-rc.d';
  const ours = !existsSync(policy);
  if (ours) writeFileSync(policy, '#!/bin/sh\nexit 101\n', { mode: 0o755 });
  try {
    const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
    /** @type {import('node:child_process').StdioOptions} */
    const quiet = ['ignore', 'ignore', 'inherit'];
    spawnSync('apt-get', ['update', '-qq'], { stdio: quiet, env });
    const done = spawnSync('apt-get', ['install', '-y', '-qq', '--no-install-recommends', ...missing], {
      stdio: quiet,
      env,
    });
    if (done.status !== 0) giveUp(`Installing failed. Try it by hand:\n\n  ${command}\n`);
  } finally {
    if (ours) rmSync(policy, { force: true });
  }
}

/** `npm ci` when the lock file has changed since the last one. */
export function ensureDependencies() {
  const lock = createHash('sha256')
    .update(readFileSync(join(root, 'package-lock.json')))
    .digest('hex');
  const stamp = join(root, 'node_modules', '.jutbank-lock');
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === lock) return;
  say('installing npm packages (a minute or two)');
  const done = spawnSync('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error'], {
    cwd: root,
    stdio: ['ignore', 'ignore', 'inherit'],
  });
  if (done.status !== 0) giveUp('“npm ci” failed; its message stands above.');
  writeFileSync(stamp, lock);
}
