/** Three databases as one cluster on this machine: for trying it and for tests, not for running a shop. */
import { execFile, spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { userInfo } from 'node:os';
import { promisify } from 'node:util';
import { freePort, secret, startMariaDb } from './mariadb.mjs';
import { CannotRun } from './supervise.mjs';

const NODES = [1, 2, 3];
/** A database that runs as root could not be copied to by rsync, which gives its rights away. */
const user = userInfo().username === 'root' ? 'mysql' : userInfo().username;
const LONGEST_RECOVERY_MS = 20_000;
const REPLICATED = [
  '--binlog-format=ROW',
  '--innodb-autoinc-lock-mode=2',
  '--wsrep-on=ON',
  '--wsrep-provider=/usr/lib/galera/libgalera_smm.so',
];
/** Nodes notice within seconds that one is gone, and do not take one for gone that only waits for its turn. */
const NOTICE =
  'evs.keepalive_period=PT0.5S;evs.suspect_timeout=PT3S;evs.inactive_timeout=PT8S;evs.inactive_check_period=PT0.5S';

/** @typedef {import('./mariadb.mjs').RunningDatabase} RunningDatabase */

/**
 * @param {string} folder
 * @returns {Promise<{ numbers: number[], url: string, start(number: number): Promise<RunningDatabase> }>} each node is
 *   started by its number, the first one first; started again it comes back into the cluster
 */
export async function galera(folder) {
  mkdirSync(folder, { recursive: true });
  const password = secret(join(folder, 'secret'));
  /** @type {{ number: number, port: number, talk: number, ist: number, sst: number, folder: string }[]} */
  const places = [];
  for (const number of NODES)
    places.push({
      number,
      port: await freePort(),
      talk: await freePort(),
      ist: await freePort(),
      sst: await freePort(),
      folder: join(folder, `node-${number}`),
    });
  const order = await inOrder(places);
  const readable = spawnSync('runuser', ['-u', user, '--', 'test', '-x', folder]);
  if (user === 'mysql' && readable.status !== 0)
    throw new CannotRun(
      `The cluster's databases run as the user mysql, who may not enter ${folder}. Choose a folder with JUTBANK_DATA_DIR that others may enter.`,
    );
  let begun = false;
  /** @param {number} number */
  const start = async (number) => {
    const place = places.find((p) => p.number === number);
    if (!place) throw new Error(`there is no node ${number}`);
    const joins = begun;
    // a node that was killed asks only for what it missed; whoever gives it all stands still meanwhile
    const position =
      joins && existsSync(join(place.folder, 'data', 'grastate.dat'))
        ? (await stateOf(place.folder)).position
        : '';
    const node = await startMariaDb(place.folder, {
      durable: true,
      port: place.port,
      node: {
        user,
        password,
        joins,
        args: [
          ...REPLICATED,
          '--wsrep-sst-method=rsync',
          '--wsrep-cluster-name=jutbank',
          `--wsrep-cluster-address=gcomm://${places.map((p) => `127.0.0.1:${p.talk}`).join(',')}`,
          `--wsrep-node-name=node-${number}`,
          // asked of the one that is used last
          `--wsrep-sst-donor=node-${number === NODES.length ? NODES.length - 1 : NODES.length},`,
          `--wsrep-node-address=127.0.0.1:${place.talk}`,
          `--wsrep-sst-receive-address=127.0.0.1:${place.sst}`,
          `--wsrep-provider-options=base_host=127.0.0.1;base_port=${place.talk};gmcast.listen_addr=tcp://127.0.0.1:${place.talk};ist.recv_addr=127.0.0.1:${place.ist};gcache.size=64M;${NOTICE}`,
          ...(joins ? [] : ['--wsrep-new-cluster']),
          ...(position === '' ? [] : [`--wsrep-start-position=${position}`]),
        ],
      },
    });
    begun = true;
    return node;
  };
  return {
    numbers: order,
    url: `mysql://jutbank:${password}@${places.map((p) => `127.0.0.1:${p.port}`).join(',')}/jutbank`,
    start,
  };
}

/**
 * The node that knows most begins the cluster anew after all of them were down.
 * @param {readonly { number: number, folder: string }[]} places
 */
async function inOrder(places) {
  const there = places.filter((p) => existsSync(join(p.folder, 'data', 'grastate.dat')));
  const known = (await Promise.all(there.map(async (p) => ({ ...p, state: await stateOf(p.folder) })))).sort(
    (a, b) => Number(b.state.safe) - Number(a.state.safe) || b.state.seqno - a.state.seqno,
  );
  const first = known[0];
  if (!first) return places.map((p) => p.number);
  const file = join(first.folder, 'data', 'grastate.dat');
  writeFileSync(file, readFileSync(file, 'utf8').replace(/safe_to_bootstrap: \d/, 'safe_to_bootstrap: 1'));
  rmSync(join(first.folder, 'data', 'gvwstate.dat'), { force: true });
  return [first.number, ...places.map((p) => p.number).filter((number) => number !== first.number)];
}

/**
 * How far a node came, and whether it was the last to stop.
 * @param {string} folder
 */
async function stateOf(folder) {
  const data = join(folder, 'data');
  const text = readFileSync(join(data, 'grastate.dat'), 'utf8');
  const seqno = Number(/seqno:\s*(-?\d+)/.exec(text)?.[1] ?? -1);
  const uuid = /uuid:\s*([\w-]+)/.exec(text)?.[1] ?? '';
  if (seqno >= 0) return { safe: /safe_to_bootstrap: 1/.test(text), seqno, position: `${uuid}:${seqno}` };
  // it was killed: how far it came is in its tables
  const said = await promisify(execFile)(
    'mariadbd',
    [
      '--no-defaults',
      `--user=${user}`,
      `--datadir=${data}`,
      '--innodb-log-file-size=32M',
      ...REPLICATED,
      '--wsrep-cluster-address=gcomm://',
      '--skip-networking',
      `--socket=${join(folder, 'run', 'recover.sock')}`,
      '--wsrep-recover',
    ],
    { timeout: LONGEST_RECOVERY_MS, killSignal: 'SIGKILL' },
  ).catch((error) => /** @type {{ stdout: string, stderr: string }} */ (error));
  const found = /Recovered position: ([\w-]+:(\d+))/.exec(`${said.stdout}${said.stderr}`);
  return { safe: false, seqno: Number(found?.[2] ?? -1), position: found?.[1] ?? '' };
}
