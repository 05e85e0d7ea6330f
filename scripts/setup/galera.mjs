/** Three databases as one cluster on this machine: for trying it and for tests, not for running a shop. */
import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { userInfo } from 'node:os';
import { freePort, secret, startMariaDb } from './mariadb.mjs';
import { CannotRun } from './supervise.mjs';

const NODES = [1, 2, 3];
/** A database that runs as root could not be copied to by rsync, which gives its rights away. */
const user = userInfo().username === 'root' ? 'mysql' : userInfo().username;
/** Nodes on one machine notice within seconds that one of them is gone. */
const NOTICE =
  'evs.keepalive_period=PT0.3S;evs.suspect_timeout=PT1S;evs.inactive_timeout=PT3S;evs.inactive_check_period=PT0.3S';

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
  const order = inOrder(places);
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
    const node = await startMariaDb(place.folder, {
      durable: true,
      port: place.port,
      node: {
        user,
        password,
        joins,
        args: [
          '--binlog-format=ROW',
          '--innodb-autoinc-lock-mode=2',
          '--wsrep-on=ON',
          '--wsrep-provider=/usr/lib/galera/libgalera_smm.so',
          '--wsrep-sst-method=rsync',
          '--wsrep-cluster-name=jutbank',
          `--wsrep-cluster-address=gcomm://${places.map((p) => `127.0.0.1:${p.talk}`).join(',')}`,
          `--wsrep-node-address=127.0.0.1:${place.talk}`,
          `--wsrep-sst-receive-address=127.0.0.1:${place.sst}`,
          `--wsrep-provider-options=base_host=127.0.0.1;base_port=${place.talk};gmcast.listen_addr=tcp://127.0.0.1:${place.talk};ist.recv_addr=127.0.0.1:${place.ist};gcache.size=64M;${NOTICE}`,
          ...(joins ? [] : ['--wsrep-new-cluster']),
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
function inOrder(places) {
  const known = places
    .filter((p) => existsSync(join(p.folder, 'data', 'grastate.dat')))
    .map((p) => ({ ...p, state: stateOf(p.folder) }))
    .sort((a, b) => Number(b.state.safe) - Number(a.state.safe) || b.state.seqno - a.state.seqno);
  const first = known[0];
  if (!first) return places.map((p) => p.number);
  const file = join(first.folder, 'data', 'grastate.dat');
  writeFileSync(file, readFileSync(file, 'utf8').replace(/safe_to_bootstrap: \d/, 'safe_to_bootstrap: 1'));
  rmSync(join(first.folder, 'data', 'gvwstate.dat'), { force: true });
  return [first.number, ...places.map((p) => p.number).filter((number) => number !== first.number)];
}

/** @param {string} folder */
function stateOf(folder) {
  const data = join(folder, 'data');
  const text = readFileSync(join(data, 'grastate.dat'), 'utf8');
  const seqno = Number(/seqno:\s*(-?\d+)/.exec(text)?.[1] ?? -1);
  if (seqno >= 0) return { safe: /safe_to_bootstrap: 1/.test(text), seqno };
  // it was killed: how far it came is in its tables
  const log = join(folder, 'run', 'recover.log');
  spawnSync('mariadbd', [
    '--no-defaults',
    `--user=${user}`,
    `--datadir=${data}`,
    '--innodb-log-file-size=32M',
    '--wsrep-on=ON',
    '--wsrep-provider=/usr/lib/galera/libgalera_smm.so',
    '--wsrep-recover',
    `--log-error=${log}`,
  ]);
  const found = existsSync(log) ? /Recovered position: [\w-]+:(\d+)/.exec(readFileSync(log, 'utf8')) : null;
  return { safe: false, seqno: Number(found?.[1] ?? -1) };
}
