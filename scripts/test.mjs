/**
 * `npm test`: sets up what is missing, then format, lint, types, dependency rules, unit, screen,
 * database and browser tests.
 * `node scripts/test.mjs unit|screens|db|browser|checks` runs one part; `cluster` is run only when it is named. The last line counts everything.
 */
import { spawnSync } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { ensureBuilt } from './setup/build.mjs';
import { ensureDebianPackages, ensureDependencies, root } from './setup/packages.mjs';
import { say } from './setup/say.mjs';

const part = process.argv[2];
/** @param {string} name */
const wanted = (name) => part === undefined || part === name;
const only = process.argv.slice(3);

if (wanted('db') || wanted('browser'))
  ensureDebianPackages(
    wanted('browser') ? ['mariadb-server', 'chromium', 'chromium-driver'] : ['mariadb-server'],
  );
if (part === 'cluster') ensureDebianPackages(['mariadb-server', 'galera-4', 'rsync']);
ensureDependencies();

let passed = 0;
let failed = 0;

/**
 * @param {string} title
 * @param {string[]} command
 */
function check(title, command) {
  say(title);
  const [program = '', ...args] = command;
  const done = spawnSync(program, args, { cwd: root, encoding: 'utf8' });
  if (done.status === 0) passed++;
  else {
    failed++;
    process.stdout.write(`${done.stdout}\n${done.stderr}\n`);
  }
}

/** @param {string} project */
function jest(project) {
  say(`${project} tests`);
  const folder = mkdtempSync(join(tmpdir(), 'jutbank-jest-'));
  const report = join(folder, 'report.json');
  const done = spawnSync(
    process.execPath,
    [
      'node_modules/jest/bin/jest.js',
      '--selectProjects',
      project,
      '--json',
      `--outputFile=${report}`,
      ...(project === 'browser' ? ['--runInBand'] : []),
      ...only,
    ],
    {
      cwd: root,
      stdio: ['ignore', 'ignore', 'inherit'],
      env: {
        ...process.env,
        NODE_OPTIONS:
          '--experimental-vm-modules --disable-warning=ExperimentalWarning --disable-warning=DEP0040',
      },
    },
  );
  const result = existsSync(report) ? JSON.parse(readFileSync(report, 'utf8')) : undefined;
  rmSync(folder, { recursive: true, force: true });
  passed += result?.numPassedTests ?? 0;
  failed += result?.numFailedTests ?? 0;
  // a suite that broke before its first test, or a run that found none, has failed all the same
  failed += result?.numRuntimeErrorTestSuites ?? 0;
  if (!result || (done.status !== 0 && result.numFailedTests === 0 && result.numRuntimeErrorTestSuites === 0))
    failed++;
}

if (wanted('checks')) {
  check('format', ['npx', '--no-install', 'prettier', '--check', '.', '--log-level', 'warn']);
  check('lint', ['npx', '--no-install', 'eslint', '.']);
  for (const config of ['tsconfig.json', 'web/tsconfig.json', 'scripts/tsconfig.json'])
    check(`types: ${config}`, ['npx', '--no-install', 'tsc', '-p', config]);
  check('dependency rules', [
    'npx',
    '--no-install',
    'depcruise',
    'core',
    'contract',
    'standins',
    'server',
    'web',
    'demo',
    'e2e',
    '--config',
    '.dependency-cruiser.mjs',
    '--output-type',
    'err',
  ]);
}
if (wanted('unit')) jest('unit');
if (wanted('screens')) jest('screens');
if (wanted('db')) jest('db');
if (wanted('browser')) {
  ensureBuilt();
  jest('browser');
}
if (part === 'cluster') {
  ensureBuilt();
  jest('cluster');
}
process.stdout.write(`${passed} passed, ${failed} failed\n`);
process.exit(failed === 0 && passed > 0 ? 0 : 1);
