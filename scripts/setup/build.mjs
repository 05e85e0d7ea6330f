/** The interface is built when its sources have changed. */
import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { root } from './packages.mjs';
import { giveUp, say } from './say.mjs';

const SOURCES = ['core/src', 'contract/src', 'web/src', 'web/public'];
const FILES = ['web/index.html', 'web/vite.config.ts', 'package-lock.json'];

/** @returns {string} */
function fingerprint() {
  const hash = createHash('sha256');
  const files = SOURCES.flatMap((folder) =>
    existsSync(join(root, folder))
      ? readdirSync(join(root, folder), { recursive: true, withFileTypes: true })
          .filter((entry) => entry.isFile() && !entry.name.includes('.test.'))
          .map((entry) => join(entry.parentPath, entry.name))
      : [],
  );
  for (const file of [...files, ...FILES.map((f) => join(root, f))].sort())
    hash.update(file.slice(root.length)).update(readFileSync(file));
  return hash.digest('hex');
}

export function ensureBuilt() {
  const stamp = join(root, 'web', 'dist', '.stamp');
  const now = fingerprint();
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === now) return;
  say('building the interface');
  const done = spawnSync('npx', ['--no-install', 'vite', 'build', '--logLevel', 'error'], {
    cwd: join(root, 'web'),
    stdio: ['ignore', 'inherit', 'inherit'],
  });
  if (done.status !== 0) giveUp('Building the interface failed; the message stands above.');
  writeFileSync(stamp, now);
}
