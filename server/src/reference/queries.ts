/** Reference packs in tables: each thing once, packs as lists of things. */
import { setImmediate as turn } from 'node:timers/promises';
import {
  emptyContents,
  PACK_SECTIONS,
  type PackContents,
  type PackSection,
  type ReferencePack,
} from '@jutbank/core/reference';
import type { Counts, PackSummary } from '@jutbank/contract/reference';
import { instant, placeholders, type Queries, type Transaction } from '../db/index.ts';

export const TABLES: Record<PackSection, string> = {
  sources: 'reference_source',
  makers: 'reference_maker',
  features: 'reference_feature',
  patterns: 'reference_pattern',
  codes: 'reference_code',
  marks: 'reference_mark',
  windows: 'reference_window',
  variants: 'reference_variant',
  stories: 'reference_story',
};

export const noCounts = (): Counts => Object.fromEntries(PACK_SECTIONS.map((s) => [s, 0])) as Counts;

const READ_AT_ONCE = 400;

/** Everything of every pack, in the order in which it was written. */
export async function loadContents(db: Queries): Promise<PackContents> {
  const contents = emptyContents();
  for (const section of PACK_SECTIONS) {
    const rows = await db.rows<{ body: string }>(`SELECT body FROM ${TABLES[section]} ORDER BY id`);
    const items: unknown[] = [];
    for (const [n, row] of rows.entries()) {
      // some milliseconds of reading, then whoever waits
      if (n % READ_AT_ONCE === READ_AT_ONCE - 1) await turn();
      items.push(JSON.parse(row.body));
    }
    (contents[section] as unknown[]) = items;
  }
  return contents;
}

export interface Stored {
  readonly id: string;
  readonly name?: string | null | undefined;
  readonly title?: string | null | undefined;
  readonly label?: string | null | undefined;
  readonly told?: string | null | undefined;
  readonly lines?: readonly string[] | null | undefined;
  readonly maker?: string | null | undefined;
  readonly pattern?: string | null | undefined;
}
export const nameOf = (item: Stored): string =>
  (item.name ?? item.title ?? item.label ?? item.told ?? item.lines?.join(' ') ?? item.id).slice(0, 2000);

export async function storeItems(
  tx: Transaction,
  section: PackSection,
  items: readonly { item: Stored; body: string }[],
): Promise<void> {
  if (items.length === 0) return;
  const parent = section === 'patterns' ? 'maker_id' : section === 'variants' ? 'pattern_id' : undefined;
  const columns = ['id', 'name', 'body', ...(parent ? [parent] : [])];
  const updates = [...columns.slice(1).map((c) => `${c} = VALUES(${c})`), 'version = version + 1'];
  await tx.insertMany(
    `INSERT INTO ${TABLES[section]} (${columns.join(', ')}) VALUES ? ON DUPLICATE KEY UPDATE ${updates.join(', ')}`,
    items.map(({ item, body }) => [
      item.id,
      nameOf(item),
      body,
      ...(parent ? [(section === 'patterns' ? item.maker : item.pattern) ?? ''] : []),
    ]),
  );
}

export async function storePack(tx: Transaction, pack: ReferencePack, head: string): Promise<void> {
  await tx.run(
    'INSERT INTO reference_pack (id, title, revision, head) VALUES (?, ?, ?, ?) ON DUPLICATE KEY UPDATE title = VALUES(title), revision = VALUES(revision), head = VALUES(head), imported_at = UTC_TIMESTAMP(3)',
    [pack.id, pack.title, pack.revision, head],
  );
  const known = await tx.rows<{ section: PackSection; item_id: string }>(
    'SELECT section, item_id FROM reference_pack_item WHERE pack_id = ?',
    [pack.id],
  );
  const listed = new Set(known.map((k) => `${k.section} ${k.item_id}`));
  const added = PACK_SECTIONS.flatMap((section) =>
    (pack[section] ?? []).flatMap((item, position) =>
      listed.has(`${section} ${item.id}`) ? [] : [[pack.id, section, item.id, position]],
    ),
  );
  if (added.length > 0)
    await tx.insertMany(
      'INSERT INTO reference_pack_item (pack_id, section, item_id, position) VALUES ?',
      added,
    );
}

export async function packHead(db: Queries, id: string): Promise<{ head: string } | undefined> {
  return db.row<{ head: string }>('SELECT head FROM reference_pack WHERE id = ?', [id]);
}

export async function packItems(db: Queries, id: string, section: PackSection): Promise<unknown[]> {
  const rows = await db.rows<{ body: string }>(
    `SELECT t.body FROM reference_pack_item i JOIN ${TABLES[section]} t ON t.id = i.item_id WHERE i.pack_id = ? AND i.section = ? ORDER BY i.position, i.item_id`,
    [id, section],
  );
  return rows.map((row) => JSON.parse(row.body) as unknown);
}

export async function listPacks(db: Queries): Promise<PackSummary[]> {
  const packs = await db.rows<{ id: string; title: string; revision: string; imported_at: string }>(
    'SELECT id, title, revision, imported_at FROM reference_pack ORDER BY id',
  );
  const counts = await db.rows<{ pack_id: string; section: PackSection; n: number }>(
    'SELECT pack_id, section, COUNT(*) AS n FROM reference_pack_item GROUP BY pack_id, section',
  );
  return packs.map((pack) => {
    const own = noCounts();
    for (const c of counts) if (c.pack_id === pack.id) own[c.section] = Number(c.n);
    return {
      id: pack.id,
      title: pack.title,
      revision: pack.revision,
      importedAt: instant(pack.imported_at),
      counts: own,
    };
  });
}

export async function itemWith(
  db: Queries,
  section: PackSection,
  id: string,
): Promise<{ body: string; version: number } | undefined> {
  return db.row<{ body: string; version: number }>(
    `SELECT body, version FROM ${TABLES[section]} WHERE id = ?`,
    [id],
  );
}

export async function packsOfItem(
  db: Queries,
  section: PackSection,
  id: string,
): Promise<{ id: string; title: string }[]> {
  return db.rows<{ id: string; title: string }>(
    'SELECT p.id, p.title FROM reference_pack_item i JOIN reference_pack p ON p.id = i.pack_id WHERE i.section = ? AND i.item_id = ? ORDER BY p.id',
    [section, id],
  );
}

export async function removeItem(tx: Transaction, section: PackSection, id: string): Promise<void> {
  await tx.run('DELETE FROM reference_pack_item WHERE section = ? AND item_id = ?', [section, id]);
  await tx.run(`DELETE FROM ${TABLES[section]} WHERE id = ?`, [id]);
}

export interface SaleSeen {
  readonly pattern_id: string;
  readonly variant_id: string | null;
  readonly condition_index: string | null;
  readonly year: number;
}
/** Sales of patterns: how often each variant came up, and in what condition. */
export const salesOfPatterns = async (db: Queries, patterns: readonly string[]): Promise<SaleSeen[]> =>
  patterns.length === 0
    ? []
    : db.rows<SaleSeen>(
        `SELECT pattern_id, variant_id, condition_index, YEAR(sale_day) AS year FROM comparable
         WHERE pattern_id IN (${placeholders(patterns)}) AND price_kind = 'sold'`,
        patterns,
      );

export async function comparablesNaming(db: Queries, id: string): Promise<number> {
  const row = await db.row<{ n: number }>(
    'SELECT COUNT(*) AS n FROM comparable WHERE variant_id = ? OR pattern_id = ?',
    [id, id],
  );
  return Number(row?.n ?? 0);
}

/** Pieces whose observations or attribution name this id. */
export async function piecesNaming(db: Queries, id: string): Promise<number> {
  const row = await db.row<{ n: number }>(
    'SELECT COUNT(*) AS n FROM piece p WHERE p.attribution LIKE ? OR EXISTS (SELECT 1 FROM observation o WHERE o.piece_id = p.id AND o.body LIKE ?)',
    [`%"${id}"%`, `%"${id}"%`],
  );
  return Number(row?.n ?? 0);
}
