/** A shop backed up and back, and carried away whole in one open file. */
import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { migrate, openDatabase, type Database } from '../db/index.ts';
import { verifyLedger } from '../ledger/index.ts';
import { databaseForTest, readyToSell, serverForTest, testPack, type TestServer } from '../testing/index.ts';
import {
  checkBackup,
  listBackups,
  makeBackup,
  pruneBackups,
  restoreBackup,
  type BackupPlace,
} from './backup.ts';
import { readArchive, tablesOf, writeArchive } from './bag.ts';
import { startMariaDb } from '../../../scripts/setup/mariadb.mjs';
import { queueIfDue, runBackup } from './rounds.ts';
import { NOT_ARCHIVED, TABLES } from './tables.ts';

const root = join(import.meta.dirname, '../../..');
let server: TestServer;
const folders: string[] = [];
const newFolder = () => {
  const folder = mkdtempSync(join(tmpdir(), 'jutbank-archive-'));
  folders.push(folder);
  return folder;
};
const place = (more: Partial<BackupPlace> = {}): BackupPlace => ({
  databaseUrl: server.url,
  dataDir: server.dataDir,
  folder: newFolder(),
  passphrase: undefined,
  ...more,
});
const call = (method: string, path: string, body?: unknown, headers?: Record<string, string>): Promise<any> =>
  server.owner.call(method as 'GET', path, body, headers);

/** A database with nothing in it, not even tables. */
async function nothing(): Promise<{ url: string; database: Database; drop: () => Promise<void> }> {
  return databaseForTest();
}
/** Every table field by field, as it is stored. */
async function contentsOf(database: Database): Promise<Record<string, unknown[]>> {
  const all: Record<string, unknown[]> = {};
  for (const table of await tablesOf(database))
    all[table] = await database.rows(`SELECT * FROM \`${table}\``);
  return all;
}
const filesIn = (folder: string): Map<string, string> =>
  new Map(
    readdirSync(folder, { recursive: true, withFileTypes: true })
      .filter((entry) => entry.isFile())
      .map((entry) => {
        const path = join(entry.parentPath, entry.name);
        return [path.slice(folder.length), createHash('sha256').update(readFileSync(path)).digest('hex')];
      }),
  );

beforeAll(async () => {
  server = await serverForTest();
  await call('POST', '/reference-packs', testPack);
  const piece = await readyToSell(server, {
    sellerStatement: 'Grandfather’s — “kept”, ½ price; 刃\\ and \t a tab',
  });
  await call('POST', '/contacts', { name: 'Anna Quill' });
  await call('POST', '/series', { name: 'Every jack', rule: { kind: 'patterns', patterns: ['jack'] } });
  const scan = new FormData();
  scan.set('file', new Blob(['A letter of 1938.']), 'letter.txt');
  await call('POST', '/documents/scan', scan);
  const sold = await call(
    'POST',
    `/pieces/${piece.id}/sale`,
    { buyerName: 'Anna Quill', price: { amount: '118.00', currency: 'EUR' }, ageChecked: true },
    { 'if-match': `"v${piece.version}"` },
  );
  expect(sold.status).toBe(201);
  await readyToSell(server, { title: 'A second one' });
});
afterAll(async () => {
  await server.close();
  for (const folder of folders) rmSync(folder, { recursive: true, force: true });
});

describe('a backup', () => {
  test('restores into an empty place field by field, its pictures byte by byte, its ledger entry by entry', async () => {
    const from = place();
    const { name } = await makeBackup(from, new Date().toISOString());
    const empty = await nothing();
    try {
      const dataDir = newFolder();
      const { entries } = await restoreBackup({ ...from, databaseUrl: empty.url, dataDir }, name);
      expect(entries).toBe((await verifyLedger(server.database)).entries);
      expect(await contentsOf(empty.database)).toEqual(await contentsOf(server.database));
      expect(filesIn(join(dataDir, 'files'))).toEqual(filesIn(join(server.dataDir, 'files')));
      // and not a second time over what is there now
      await expect(restoreBackup({ ...from, databaseUrl: empty.url, dataDir }, name)).rejects.toThrow(
        /holds something/,
      );
    } finally {
      await empty.drop();
    }
  });

  test('under a passphrase nothing of it can be read, and another passphrase does not open it', async () => {
    const from = place({ passphrase: 'oak, tide, lantern' });
    const { name } = await makeBackup(from, new Date().toISOString());
    const all = [...filesIn(from.folder).keys()].map((path) => readFileSync(join(from.folder, path)));
    expect(
      all.some((bytes) => bytes.includes('Grandfather') || bytes.subarray(0, 4).toString() === 'RIFF'),
    ).toBe(false);
    expect((await checkBackup(from, name)).entries).toBeGreaterThan(5);
    await expect(checkBackup({ ...from, passphrase: 'oak, tide' }, name)).rejects.toThrow(/passphrase/);
    await expect(checkBackup({ ...from, passphrase: undefined }, name)).rejects.toThrow(
      /passphrase is needed/,
    );
  });

  test('a picture that is gone or was changed, a dump that was cut off: it is no backup, and that is said', async () => {
    const from = place();
    const { name, manifest } = await makeBackup(from, new Date().toISOString());
    const [picture] = manifest.files.map((f) => join(from.folder, manifest.shelf, f.path));
    const dump = join(from.folder, name, manifest.database.path);
    for (const path of [picture ?? '', dump]) {
      const whole = readFileSync(path);
      writeFileSync(path, whole.subarray(0, -3));
      await expect(checkBackup(from, name)).rejects.toThrow(
        /missing from the backup, or is not what was written/,
      );
      writeFileSync(path, whole);
    }
    await expect(checkBackup(from, name)).resolves.toBeDefined();
  });

  test('pictures are kept once for all backups; what the rule drops goes, and what is still named stays', async () => {
    const from = place();
    const days = [40, 2, 1, 0].map((ago) => new Date(Date.now() - ago * 86_400_000).toISOString());
    for (const at of days) await makeBackup(from, at);
    const shelf = join(from.folder, 'files-open');
    expect(filesIn(shelf).size).toBe(filesIn(join(server.dataDir, 'files')).size);
    await pruneBackups(from.folder, { daily: 2, weekly: 0, monthly: 0 });
    const left = await listBackups(from.folder);
    expect(left).toHaveLength(2);
    for (const name of left) await expect(checkBackup(from, name)).resolves.toBeDefined();
    await pruneBackups(from.folder, { daily: 0, weekly: 0, monthly: 0 });
    expect(await listBackups(from.folder)).toHaveLength(1);
  });

  test('where it cannot be made nothing of it is left', async () => {
    const from = place({ databaseUrl: server.url.replace(/\/\w+$/, '/no_such_database') });
    await expect(makeBackup(from, new Date().toISOString())).rejects.toThrow();
    expect(readdirSync(from.folder).filter((name) => name.startsWith('20'))).toEqual([]);
  });
});

describe('by hand', () => {
  /** `npm run backup` or `npm run restore` on a data folder with a database of its own. */
  const run = (act: 'backup' | 'restore', dataDir: string, ...args: string[]) => {
    const { JUTBANK_DATABASE_URL: _, ...env } = process.env;
    const done = spawnSync(process.execPath, [join(root, 'scripts/backup.mjs'), act, ...args], {
      cwd: root,
      encoding: 'utf8',
      env: {
        ...env,
        NODE_OPTIONS: '',
        JUTBANK_DATA_DIR: dataDir,
        JUTBANK_BACKUP_PASSPHRASE: 'oak, tide, lantern',
      },
    });
    return { code: done.status, said: `${done.stdout}${done.stderr}` };
  };

  test('after the database’s folder was deleted the newest backup brings the shop back', async () => {
    const dataDir = newFolder();
    const { name } = await makeBackup(
      place({ folder: join(dataDir, 'backups'), passphrase: 'oak, tide, lantern' }),
      new Date().toISOString(),
    );
    expect(run('restore', dataDir)).toMatchObject({
      code: 0,
      said: expect.stringMatching(`${name} is back`),
    });
    // over what is there nothing is restored
    expect(run('restore', dataDir)).toMatchObject({
      code: 1,
      said: expect.stringMatching(/holds something already/),
    });
    expect(run('backup', dataDir)).toMatchObject({
      code: 0,
      said: expect.stringMatching(/found whole.*encrypted/),
    });

    rmSync(join(dataDir, 'db', 'data'), { recursive: true });
    rmSync(join(dataDir, 'files'), { recursive: true });
    expect(run('restore', dataDir).code).toBe(0);
    const own = await startMariaDb(join(dataDir, 'db'), { durable: false });
    const database = openDatabase(own.url('jutbank'), { connections: 1 });
    try {
      expect(await contentsOf(database)).toEqual(await contentsOf(server.database));
      expect(filesIn(join(dataDir, 'files'))).toEqual(filesIn(join(server.dataDir, 'files')));
    } finally {
      await database.close();
      await own.stop();
    }
  }, 120_000);

  test('what cannot be done is said in a line', () => {
    expect(run('restore', newFolder(), 'no-such-backup')).toMatchObject({
      code: 1,
      said: expect.not.stringMatching(/\n\s+at /),
    });
  }, 60_000);
});

describe('by itself', () => {
  const backups = async () => (await call('GET', '/backups')).body;
  test('is queued when it is due, by one of several that look at once; made, checked and told', async () => {
    const queued = await Promise.all([1, 2, 3].map(() => queueIfDue(server.database)));
    expect(queued.filter((job) => job !== undefined)).toHaveLength(1);
    await server.app.jobs.runOne();
    const told = await backups();
    expect(told).toMatchObject({
      tooOld: false,
      running: null,
      runs: [{ good: true, encrypted: false, problem: null }],
    });
    expect(told.runs[0].entries).toBeGreaterThan(5);
    expect(existsSync(join(server.dataDir, 'backups', told.runs[0].name))).toBe(true);
    expect(await queueIfDue(server.database)).toBeUndefined();
  });
  test('a last good one that is too old is told, and one that failed is no good one', async () => {
    await server.database.run('UPDATE backup_run SET begun_at = DATE_SUB(begun_at, INTERVAL 3 DAY)');
    expect((await backups()).tooOld).toBe(true);
    await expect(
      runBackup(server.database, place({ databaseUrl: server.url.replace(/\/\w+$/, '/none') }), () =>
        Promise.resolve(),
      ),
    ).rejects.toThrow();
    const told = await backups();
    expect(told).toMatchObject({ tooOld: true, runs: [{ good: false, name: null }, { good: true }] });
    expect(told.runs[0].problem).toMatch(/none/);
    // it is tried again, but not at once
    expect(await queueIfDue(server.database)).toBeUndefined();
  });
  test('how often and how many is the owner’s to say', async () => {
    const { version, settings } = await backups();
    const put = (body: object, v = version) =>
      call('PUT', '/backups/settings', body, { 'if-match': `"v${v}"` });
    expect((await put({ ...settings, every: 0 })).body.errors[0].pointer).toBe('/every');
    expect((await put({ every: null, daily: 3, weekly: 2, monthly: 1 })).body).toMatchObject({
      settings: { every: null, daily: 3 },
      tooOld: false,
    });
    expect((await put(settings)).status).toBe(412);
  });
});

describe('everything in one open file', () => {
  test('every table is told what it means, or why it is left out', async () => {
    const tables = await server.database.rows<{ name: string }>(
      'SELECT table_name AS name FROM information_schema.tables WHERE table_schema = DATABASE()',
    );
    const names = tables.map((t) => t.name).sort();
    expect([...Object.keys(TABLES), ...NOT_ARCHIVED].sort()).toEqual(
      [...new Set([...names, 'cluster_lock'])].sort(),
    );
  });

  test('as a task, fetched by the owner; into an empty installation it comes back whole', async () => {
    const { job } = (await call('POST', '/archives')).body;
    await server.app.jobs.runOne();
    expect((await call('GET', `/jobs/${job}`)).body.state).toBe('done');
    const [{ name }] = (await call('GET', '/backups')).body.archives;
    const fetched = await fetch(`${server.address}/api/v1/archives/${name}`, {
      headers: { cookie: server.owner.cookie },
    });
    const folder = newFolder();
    const path = join(folder, 'shop.zip');
    writeFileSync(path, new Uint8Array(await fetched.arrayBuffer()));

    const empty = await nothing();
    try {
      await migrate(empty.database);
      const dataDir = newFolder();
      expect(await readArchive(empty.database, dataDir, path)).toMatchObject({
        shop: 'Hollin Quay Edge Room',
      });
      expect(await contentsOf(empty.database)).toEqual(await contentsOf(server.database));
      expect(await verifyLedger(empty.database)).toEqual(await verifyLedger(server.database));
      expect(filesIn(join(dataDir, 'files'))).toEqual(filesIn(join(server.dataDir, 'files')));
      // nothing is left lying about, and nothing is read over a shop that is there
      expect(readdirSync(dataDir)).toEqual(['files']);
      await expect(readArchive(empty.database, dataDir, path)).rejects.toThrow(/a shop is here already/);
    } finally {
      await empty.drop();
    }
  });

  test('a reader and a clerk do not carry the shop away', async () => {
    await call('POST', '/people', {
      name: 'Rea',
      email: 'rea@hollinquay.example',
      role: 'clerk',
      password: 'quiet water 12',
    });
    const clerk = server.nobody();
    await clerk.call('POST', '/session', { email: 'rea@hollinquay.example', password: 'quiet water 12' });
    expect(((await clerk.call('POST', '/archives')) as any).status).toBe(403);
    const [{ name }] = (await call('GET', '/backups')).body.archives;
    expect(((await clerk.call('GET', `/archives/${name}`)) as any).status).toBe(403);
  });

  test('a file that was changed, that is missing or that nobody listed: nothing is kept', async () => {
    const folder = newFolder();
    const made = await writeArchive(server.database, server.dataDir, folder, new Date().toISOString());
    const whole = readFileSync(join(folder, made.name));
    const empty = await nothing();
    try {
      await migrate(empty.database);
      const before = await contentsOf(empty.database);
      const dataDir = newFolder();
      const read = async (bytes: Buffer) => {
        const path = join(folder, 'other.zip');
        writeFileSync(path, bytes);
        await readArchive(empty.database, dataDir, path);
      };
      // one picture is stored as it is: another byte in its midst
      const at = whole.indexOf('RIFF') + 20;
      const other = Buffer.from(whole);
      other[at] = (other[at] ?? 0) ^ 0xff;
      await expect(read(other)).rejects.toThrow();
      await expect(read(whole.subarray(0, whole.length / 2))).rejects.toThrow();
      await expect(read(Buffer.from('not a zip at all'))).rejects.toThrow();
      expect(await contentsOf(empty.database)).toEqual(before);
      expect(readdirSync(dataDir)).toEqual([]);
    } finally {
      await empty.drop();
    }
  });
});
