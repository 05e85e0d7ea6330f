/**
 * Everything of a shop in one open file: a ZIP that is a bag (RFC 8493), with every table as JSON lines, lists that a
 * spreadsheet opens, reference packs, and all pictures and papers under their fingerprints (docs/formats.md).
 */
import { createHash } from 'node:crypto';
import { createReadStream, createWriteStream } from 'node:fs';
import { mkdir, mkdtemp, readdir, readFile, rename, rm, stat, writeFile } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import { createInterface } from 'node:readline';
import { pipeline } from 'node:stream/promises';
import { ZipArchive, type ZipEntryData } from 'archiver';
import { stringify } from 'csv-stringify/sync';
import yauzl from 'yauzl';
import { z } from 'zod';
import { PACK_SECTIONS } from '@jutbank/core/reference';
import type { Database, Queries } from '../db/index.ts';
import { safeCell } from '../http/index.ts';
import { verifyLedger } from '../ledger/index.ts';
import { printOfFile } from './cipher.ts';
import { NOT_ARCHIVED, TABLES } from './tables.ts';

const FORMAT = 'jutbank.archive/1';
const ROWS_AT_ONCE = 2000;

const head = z.object({
  format: z.literal(FORMAT),
  /** the last migration of the database it was made from */
  schema: z.string(),
  at: z.string(),
  shop: z.string(),
  ledger: z.object({ entries: z.number(), head: z.string() }),
  tables: z.record(
    z.string(),
    z.object({ means: z.string(), rows: z.number(), columns: z.array(z.string()) }),
  ),
});
type Head = z.infer<typeof head>;

interface Column {
  readonly name: string;
  readonly binary: boolean;
}

/** Stored columns in order; what the database makes of others itself is left to it. */
async function columnsOf(db: Queries, table: string): Promise<Column[]> {
  const rows = await db.rows<{ name: string; type: string; extra: string }>(
    'SELECT column_name AS name, data_type AS type, extra FROM information_schema.columns WHERE table_schema = DATABASE() AND table_name = ? ORDER BY ordinal_position',
    [table],
  );
  return rows
    .filter(({ extra }) => !/GENERATED/i.test(extra))
    .map(({ name, type }) => ({ name, binary: /blob|binary/i.test(type) }));
}

export async function tablesOf(db: Queries): Promise<string[]> {
  const rows = await db.rows<{ name: string }>(
    "SELECT table_name AS name FROM information_schema.tables WHERE table_schema = DATABASE() AND table_type = 'BASE TABLE' ORDER BY table_name",
  );
  return rows.map((row) => row.name).filter((name) => !NOT_ARCHIVED.has(name));
}

const quoted = (name: string): string => `\`${name.replaceAll('`', '``')}\``;
/** As the database writes it: numbers, dates and JSON letter for letter, bytes as hexadecimal. */
const asText = ({ name, binary }: Column): string =>
  `${binary ? `HEX(${quoted(name)})` : `CAST(${quoted(name)} AS CHAR)`} AS ${quoted(name)}`;

async function schemaOf(db: Queries): Promise<string> {
  const row = await db.row<{ name: string }>('SELECT MAX(name) AS name FROM schema_migration');
  return row?.name ?? '';
}

/** Lists for a spreadsheet: what a shop would look for first. */
const LISTS: Readonly<Record<string, string>> = {
  pieces: `SELECT p.stock_number, p.title, p.construction, p.stage, p.decided_pattern, p.decided_variant, p.decided_tier, p.source_name,
      p.acquired, p.price, p.price_currency, p.ask, p.ask_currency, p.place FROM piece p ORDER BY p.id`,
  sales: `SELECT s.invoice_number, s.sold_at, p.stock_number, p.title, s.buyer_name, s.price, s.currency, s.returned_on FROM sale s JOIN piece p ON p.id = s.piece_id ORDER BY s.id`,
  contacts:
    'SELECT name, address, email, phone, tax_number, note FROM contact WHERE erased_at IS NULL ORDER BY name, id',
  ledger: 'SELECT seq, at, person, kind, piece_id, hash FROM ledger_entry ORDER BY seq',
};

/** @returns the name and size of the file in `folder` @throws whatever stands in its way: then no file is left */
export async function writeArchive(
  database: Database,
  dataDir: string,
  folder: string,
  at: string,
  progress: (share: number) => Promise<void> = () => Promise.resolve(),
): Promise<{ name: string; size: number }> {
  await mkdir(folder, { recursive: true });
  const work = await mkdtemp(join(folder, 'making-'));
  const name = `jutbank-${at.replace(/[:.]/g, '-')}.zip`;
  try {
    const payload: { path: string; from: string }[] = [];
    const said = async (path: string, text: string) => {
      const from = join(work, path);
      await mkdir(dirname(from), { recursive: true });
      await writeFile(from, text);
      payload.push({ path, from });
    };
    // one moment for all tables
    await database.transaction(async (tx) => {
      const tables: Head['tables'] = {};
      for (const table of await tablesOf(tx)) {
        const columns = await columnsOf(tx, table);
        const path = `data/tables/${table}.jsonl`;
        const from = join(work, path);
        const rows = await writeRows(tx, table, columns, from);
        payload.push({ path, from });
        tables[table] = { means: TABLES[table] ?? '', rows, columns: columns.map((c) => c.name) };
      }
      await progress(0.3);
      for (const [list, sql] of Object.entries(LISTS)) {
        const rows = await tx.rows(sql);
        const names = Object.keys(rows[0] ?? {});
        await said(
          `data/lists/${list}.csv`,
          stringify([
            names,
            ...rows.map((row) => names.map((n) => safeCell(row[n] == null ? '' : String(row[n])))),
          ]),
        );
      }
      for (const pack of await packsOf(tx)) await said(`data/packs/${pack.id}.json`, pack.text);
      const ledger = await verifyLedger(tx);
      const shop = await tx.row<{ name: string }>('SELECT name FROM shop WHERE id = 1');
      const told: Head = {
        format: FORMAT,
        schema: await schemaOf(tx),
        at,
        shop: shop?.name ?? '',
        ledger: { entries: ledger.entries, head: ledger.head },
        tables,
      };
      await said('data/jutbank.json', JSON.stringify(told, null, 1));
    });
    const files = join(dataDir, 'files');
    for (const path of await filesOf(files))
      payload.push({ path: `data/files/${path}`, from: join(files, path) });
    await progress(0.5);
    const size = await zipBag(payload, at, join(folder, name), (share) => progress(0.5 + share / 2));
    return { name, size };
  } catch (error) {
    await rm(join(folder, name), { force: true });
    throw error;
  } finally {
    await rm(work, { recursive: true, force: true });
  }
}

async function writeRows(
  tx: Queries,
  table: string,
  columns: readonly Column[],
  to: string,
): Promise<number> {
  await mkdir(dirname(to), { recursive: true });
  const key = await tx.rows<{ name: string }>(
    "SELECT column_name AS name FROM information_schema.key_column_usage WHERE table_schema = DATABASE() AND table_name = ? AND constraint_name = 'PRIMARY' ORDER BY ordinal_position",
    [table],
  );
  const order = (key.length > 0 ? key.map((k) => k.name) : columns.map((c) => c.name)).map(quoted).join(', ');
  const out = createWriteStream(to);
  let count = 0;
  async function* lines() {
    for (;;) {
      const rows = await tx.rows(
        `SELECT ${columns.map(asText).join(', ')} FROM ${quoted(table)} ORDER BY ${order} LIMIT ? OFFSET ?`,
        [ROWS_AT_ONCE, count],
      );
      for (const row of rows) yield `${JSON.stringify(row)}\n`;
      count += rows.length;
      if (rows.length < ROWS_AT_ONCE) return;
    }
  }
  await pipeline(lines, out);
  return count;
}

async function packsOf(tx: Queries): Promise<{ id: string; text: string }[]> {
  const packs = await tx.rows<{ id: string; head: string }>(
    'SELECT id, head FROM reference_pack ORDER BY id',
  );
  const told: { id: string; text: string }[] = [];
  for (const { id, head: first } of packs) {
    const pack = JSON.parse(first) as Record<string, unknown>;
    for (const section of PACK_SECTIONS) {
      const items = await tx.rows<{ body: string }>(
        `SELECT r.body FROM reference_pack_item i JOIN reference_${section === 'stories' ? 'story' : section.slice(0, -1)} r ON r.id = i.item_id WHERE i.pack_id = ? AND i.section = ? ORDER BY r.id`,
        [id, section],
      );
      if (items.length > 0)
        pack[section] = items.map(({ body }) =>
          typeof body === 'string' ? (JSON.parse(body) as unknown) : body,
        );
    }
    told.push({ id, text: JSON.stringify(pack, null, 1) });
  }
  return told;
}

async function filesOf(folder: string): Promise<string[]> {
  const entries = await readdir(folder, { recursive: true, withFileTypes: true }).catch(() => []);
  return entries
    .filter((entry) => entry.isFile() && !/\.(part|tmp)$/.test(entry.name))
    .map((entry) => join(entry.parentPath, entry.name).slice(folder.length + 1))
    .sort();
}

async function zipBag(
  payload: readonly { path: string; from: string }[],
  at: string,
  to: string,
  progress: (share: number) => Promise<void>,
): Promise<number> {
  const prints: string[] = [];
  let bytes = 0;
  for (const [i, { path, from }] of payload.entries()) {
    prints.push(`${await printOfFile(from)}  ${path}\n`);
    bytes += (await stat(from)).size;
    if (i % 200 === 0) await progress((0.5 * i) / payload.length);
  }
  const tags: Record<string, string> = {
    'bagit.txt': 'BagIt-Version: 1.0\nTag-File-Character-Encoding: UTF-8\n',
    'bag-info.txt': `Bagging-Date: ${at.slice(0, 10)}\nPayload-Oxum: ${bytes}.${payload.length}\nExternal-Description: ${FORMAT}\n`,
    'manifest-sha256.txt': prints.join(''),
  };
  tags['tagmanifest-sha256.txt'] = Object.entries(tags)
    .map(([name, text]) => `${createHash('sha256').update(text).digest('hex')}  ${name}\n`)
    .join('');
  const zip = new ZipArchive({ zlib: { level: 6 } });
  const out = createWriteStream(`${to}.part`, { mode: 0o600 });
  const written = pipeline(zip, out);
  for (const [name, text] of Object.entries(tags)) zip.append(text, { name });
  // what is compressed already is only stored
  for (const { path, from } of payload) {
    const entry: ZipEntryData = { name: path, store: path.startsWith('data/files/') };
    zip.file(from, entry);
  }
  await zip.finalize();
  await written;
  await rename(`${to}.part`, to);
  await progress(1);
  return (await stat(to)).size;
}

/** What an archive may hold at most, uncompressed: a ZIP of nothing but zeros is none. */
const MOST_BYTES = 200 * 2 ** 30;
const MOST_ENTRIES = 2_000_000;
/** So many times its size in the ZIP may a file of text be. */
const MOST_GROWTH = 400;

/** Unpacks into a folder; refuses what would leave it, and what is no bag of ours. */
async function unpack(path: string, into: string): Promise<void> {
  const zip = await yauzl.openPromise(path, { strictFileNames: true, lazyEntries: true });
  let bytes = 0;
  let entries = 0;
  for await (const entry of zip.eachEntry()) {
    if (entry.fileName.endsWith('/')) continue;
    bytes += entry.uncompressedSize;
    entries += 1;
    if (
      bytes > MOST_BYTES ||
      entries > MOST_ENTRIES ||
      entry.uncompressedSize > 4096 + MOST_GROWTH * entry.compressedSize
    )
      throw new Error('this is no archive of a shop: it would unpack to more than a shop can hold');
    // the library refuses names that climb out of the folder or begin at the root
    const target = join(into, entry.fileName);
    await mkdir(dirname(target), { recursive: true });
    await pipeline(await zip.openReadStreamPromise(entry), createWriteStream(target));
  }
}

/** @throws where a file is missing, was changed, or is not listed */
async function checkBag(folder: string): Promise<Head> {
  const lines = (await readFile(join(folder, 'manifest-sha256.txt'), 'utf8').catch(() => ''))
    .split('\n')
    .filter(Boolean);
  const listed = new Map(lines.map((line) => [line.slice(66), line.slice(0, 64)]));
  if (listed.size === 0) throw new Error('this is no archive of a shop: it has no list of fingerprints');
  const there = await filesOf(join(folder, 'data'));
  const strange = there.find((path) => !listed.has(`data/${path}`));
  if (strange !== undefined) throw new Error(`${strange} is in the archive and not in its list`);
  for (const [path, print] of listed)
    if ((await printOfFile(join(folder, path)).catch(() => '')) !== print)
      throw new Error(`${path} is missing from the archive, or is not what its list says`);
  return head.parse(JSON.parse(await readFile(join(folder, 'data', 'jutbank.json'), 'utf8')));
}

/**
 * An archive into an empty installation of the same schema.
 * @throws where the installation is in use, the archive is of another schema, or anything of it is wrong: nothing is kept then
 */
export async function readArchive(
  database: Database,
  dataDir: string,
  path: string,
): Promise<Pick<Head, 'shop' | 'ledger'>> {
  await mkdir(dataDir, { recursive: true });
  const folder = await mkdtemp(join(dataDir, 'unpacking-'));
  try {
    await unpack(path, folder);
    const told = await checkBag(folder);
    const schema = await schemaOf(database);
    if (told.schema !== schema)
      throw new Error(
        `the archive is of ${told.schema || 'another version'}, this program of ${schema}: read it with the program it was made with, and back that up`,
      );
    await database.transaction(async (tx) => {
      const used = await tx.row('SELECT id FROM shop WHERE id = 1');
      if (used) throw new Error('a shop is here already; an archive is read into an empty installation');
      const known = new Set(await tablesOf(tx));
      // rows come table by table, not in the order in which they refer to each other
      await tx.run('SET foreign_key_checks = 0');
      try {
        for (const [table, { columns }] of Object.entries(told.tables)) {
          if (!known.has(table))
            throw new Error(`the archive tells of ${table}, which this program does not know`);
          await tx.run(`DELETE FROM ${quoted(table)}`);
          await readRows(tx, table, columns, join(folder, 'data', 'tables', `${table}.jsonl`));
        }
      } finally {
        await tx.run('SET foreign_key_checks = 1');
      }
      const ledger = await verifyLedger(tx);
      if (!ledger.intact || ledger.entries !== told.ledger.entries || ledger.head !== told.ledger.head)
        throw new Error('the ledger in the archive does not hold together');
    });
    for (const file of await filesOf(join(folder, 'data', 'files'))) {
      const target = join(dataDir, 'files', file);
      await mkdir(dirname(target), { recursive: true });
      await rename(join(folder, 'data', 'files', file), target);
    }
    return told;
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

async function readRows(tx: Queries, table: string, columns: readonly string[], path: string): Promise<void> {
  const known = await columnsOf(tx, table);
  const used = known.filter((column) => columns.includes(column.name));
  const insert = `INSERT INTO ${quoted(table)} (${used.map((c) => quoted(c.name)).join(', ')}) VALUES ?`;
  const row = z.record(z.string(), z.string().nullable());
  let some: (string | Buffer | null)[][] = [];
  const keep = async () => {
    if (some.length > 0) await tx.insertMany(insert, some);
    some = [];
  };
  for await (const line of createInterface({ input: createReadStream(path), crlfDelay: Infinity })) {
    const told = row.parse(JSON.parse(line));
    some.push(
      used.map(({ name, binary }) => {
        const value = told[name] ?? null;
        return binary && value !== null ? Buffer.from(value, 'hex') : value;
      }),
    );
    if (some.length >= ROWS_AT_ONCE) await keep();
  }
  await keep();
}
