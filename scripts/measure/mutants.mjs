/**
 * Would the tests notice? `npm run test:mutants [how many] [seed] [folder]` puts small faults into `core`, one at a
 * time, runs the unit tests that read the file, and tells which nobody noticed. The same seed tries the same faults.
 */
import { spawnSync } from 'node:child_process';
import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { root } from '../setup/packages.mjs';
import { say } from '../setup/say.mjs';
import { faultsIn } from './mutants/faults.mjs';

const [count = '40', seed = '1', folder = 'core/src'] = process.argv.slice(2);
/** A test that runs on for ever has noticed. */
const LONGEST_MS = 240_000;

/** mulberry32 @param {number} state */
function* shares(state) {
  for (;;) {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = Math.imul(state ^ (state >>> 15), state | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    yield ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  }
}

const files = readdirSync(join(root, folder), { recursive: true })
  .map((name) => `${folder}/${String(name)}`)
  .filter((name) => name.endsWith('.ts') && !/\.(test|d)\.ts$|\/(settings|rules)\.ts$/.test(name));
const all = files.flatMap((file) =>
  faultsIn(file, readFileSync(join(root, file), 'utf8')).map((fault) => ({ file, ...fault })),
);
const next = shares(Number(seed));
const tried = Array.from({ length: Math.min(Number(count), all.length) }, () => {
  const at = Math.floor(Number(next.next().value) * all.length);
  return all.splice(at, 1)[0];
}).filter((fault) => fault !== undefined);

const config = join(tmpdir(), `jutbank-mutants-${process.pid}.json`);
const { default: usual } = await import('../../jest.config.mjs');
const unit = /** @type {{ transform: Record<string, [string, unknown]> }} */ (usual.projects?.[0]);
const [[pattern, [, swc]] = ['', ['', {}]]] = Object.entries(unit.transform);
writeFileSync(
  config,
  JSON.stringify({
    ...unit,
    rootDir: root,
    transform: { [pattern]: [join(root, 'scripts/measure/mutants/transform.mjs'), swc] },
  }),
);

/**
 * The tests that read a file, but for the long ones of other rooms.
 * @param {string} file @param {object} [fault]
 */
function passes(file, fault) {
  const others = ['core/src/bench', 'core/src/market', 'demo', 'scripts'].filter((r) => !file.startsWith(r));
  const done = spawnSync(
    process.execPath,
    [
      'node_modules/jest/bin/jest.js',
      '--config',
      config,
      '--bail=1',
      '--findRelatedTests',
      file,
      '--testPathIgnorePatterns',
      ...others.map((r) => `/${r}/`),
    ],
    {
      cwd: root,
      encoding: 'utf8',
      timeout: LONGEST_MS,
      env: {
        ...process.env,
        NODE_OPTIONS: '--experimental-vm-modules --no-warnings',
        ...(fault && { JUTBANK_FAULT: JSON.stringify(fault) }),
      },
    },
  );
  return done.status === 0;
}
for (const file of new Set(tried.map((fault) => fault.file)))
  if (!passes(file)) throw new Error(`the tests of ${file} fail without any fault`);
let unnoticed = 0;
for (const [n, { file, line, ...fault }] of tried.entries()) {
  const before = readFileSync(join(root, file), 'utf8').slice(fault.start, fault.end);
  if (!passes(file, { file, ...fault })) continue;
  unnoticed++;
  say(`${n + 1}: nobody noticed ${file}:${line}: ${before} → ${fault.text}`);
}
say(`${tried.length - unnoticed} of ${tried.length} faults were noticed`);
