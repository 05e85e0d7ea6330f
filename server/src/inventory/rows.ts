/** Rows of the whole stock straight from the tables: a page of them costs the same in a shop of fifty thousand. */
import { edtfInWords } from '@jutbank/core/dates';
import { moneyOrNull } from '@jutbank/core/money';
import type { ReferenceIndex } from '@jutbank/core/bench';
import type { InventoryRow } from '@jutbank/contract/inventory';
import { inventoryFilter } from '@jutbank/contract/inventory';
import type { Readings } from '@jutbank/contract/pieces';
import type { z } from 'zod';
import { todayIso } from '../clock/index.ts';
import type { Queries, Value } from '../db/index.ts';
import type { untilNextEntry } from '../ledger/index.ts';
import {
  ATTENTION_COLUMNS,
  attentionFacts,
  attentionOf,
  FIRST_PICTURE,
  LONG_UNSOLD_DAYS,
  PUBLISHED_LISTING,
  searchWords,
  type AttentionRow,
} from '../pieces/index.ts';

export type Asked = z.output<typeof inventoryFilter>;

interface Row extends AttentionRow {
  id: string;
  stock_number: string;
  title: string;
  construction: InventoryRow['construction'];
  picture: string | null;
  attribution: { pattern?: string; variant?: string; tier: InventoryRow['tier'] } | null;
  reading: Readings | null;
  price: string | null;
  price_currency: string | null;
  ask: string | null;
  ask_currency: string | null;
  source_name: string;
  lot_id: string | null;
  lot: string | null;
  place: string;
  days: number;
  sort_key: string | number;
  /** How many there are from here on, where the page has counted them. */
  counted: number | null;
}

/** What a row is sorted by, whether upwards, and the order of its index. */
interface Order {
  readonly key: string;
  readonly up: boolean;
}
const ORDERS: Readonly<Record<Asked['sort'], (ask: string) => Order>> = {
  newest: () => ({ key: 'p.id', up: false }),
  oldest: () => ({ key: 'p.id', up: true }),
  changed: () => ({ key: 'p.changed_at', up: false }),
  title: () => ({ key: 'p.title', up: true }),
  // what has no price comes last; in one currency an index has them in that order already
  dearest: (ask) => ({ key: ask === 'p.ask' ? 'p.ask_low' : `COALESCE(${ask}, -1)`, up: false }),
  cheapest: (ask) => ({ key: ask === 'p.ask' ? 'p.ask_high' : `COALESCE(${ask}, 1e12)`, up: true }),
};

/** Pieces that want a look, gathered from where each kind of it stands. */
const WARNED = `(
  SELECT piece_id, 0 AS of_left FROM market_message WHERE state = 'open'
  UNION SELECT piece_id, 0 FROM listing WHERE state = 'published'
    AND (published_at < UTC_TIMESTAMP() - INTERVAL ${LONG_UNSOLD_DAYS} DAY OR expires_on < UTC_DATE())
  UNION SELECT piece_id, 0 FROM quarantine WHERE ended_on IS NULL
  UNION SELECT piece_id, 0 FROM piece_reading WHERE warned = 1
  UNION SELECT piece_id, 1 FROM offered_at
) warned`;
const HERE = "p.stage NOT IN ('sold', 'given-back')";

/** Rates of the currencies in which asks are written: one of each in the shop's own. */
export type AskRates = ReadonlyMap<string, number>;

/** An ask in the shop's currency; of one whose rate nobody knows, nothing. */
function askIn(rates: AskRates): { sql: string; values: Value[] } {
  const foreign = [...rates].filter(([, rate]) => rate !== 1);
  if (foreign.length === 0) return { sql: 'p.ask', values: [] };
  return {
    sql: `p.ask * CASE p.ask_currency ${[...rates].map(() => 'WHEN ? THEN ?').join(' ')} ELSE NULL END`,
    values: [...rates].flat(),
  };
}

const PIECES = 'piece p';

export class InventoryQuery {
  #from = PIECES;
  readonly #where: string[] = [];
  readonly #values: Value[] = [];
  readonly #ask: { sql: string; values: Value[] };
  readonly #order: Order;

  /** @param patternsOf the patterns of a maker, who stands in the reference and not with the pieces */
  constructor(
    asked: Asked & { readonly pieces?: string | undefined },
    rates: AskRates,
    patternsOf: (maker: string) => readonly string[],
  ) {
    this.#ask = askIn(rates);
    this.#order = ORDERS[asked.sort](this.#ask.sql);
    const and = (sql: string, ...values: Value[]) => {
      this.#where.push(sql);
      this.#values.push(...values);
    };
    if (asked.pieces !== undefined) {
      const ids = asked.pieces.split(',');
      and(`p.id IN (${ids.map(() => '?').join(', ')})`, ...ids);
    }
    if (asked.q !== undefined && searchWords(asked.q) !== '')
      and(
        'MATCH (p.title, p.stock_number, p.source_name, p.seller_statement) AGAINST (? IN BOOLEAN MODE)',
        searchWords(asked.q),
      );
    if (asked.stage === 'here') and(HERE);
    else if (asked.stage !== undefined) and('p.stage = ?', asked.stage);
    if (asked.construction !== undefined) and('p.construction = ?', asked.construction);
    if (asked.pattern !== undefined) and('p.decided_pattern = ?', asked.pattern);
    if (asked.maker !== undefined) {
      const patterns = patternsOf(asked.maker);
      if (patterns.length === 0) and('FALSE');
      else and(`p.decided_pattern IN (${patterns.map(() => '?').join(', ')})`, ...patterns);
    }
    if (asked.source !== undefined) and('p.source_name = ?', asked.source);
    if (asked.lot !== undefined) and('p.lot_id = ?', asked.lot);
    if (asked.place !== undefined) and('p.place = ?', asked.place);
    if (asked.askFrom !== undefined) and(`${this.#ask.sql} >= ?`, ...this.#ask.values, asked.askFrom);
    if (asked.askTo !== undefined) and(`${this.#ask.sql} <= ?`, ...this.#ask.values, asked.askTo);
    if (asked.days !== undefined)
      and('COALESCE(p.acquired_from, DATE(p.created_at)) <= UTC_DATE() - INTERVAL ? DAY', asked.days);
    if (asked.warned !== undefined) {
      this.#from = `${WARNED} STRAIGHT_JOIN piece p ON p.id = warned.piece_id`;
      // of what has left only that it is still offered somewhere, of what is here everything but that
      and(`warned.of_left = IF(${HERE}, 0, 1)`);
    }
  }

  /**
   * Whether a page counts in passing. What wants a look hangs on more than the pieces, so its number cannot be kept until
   * the ledger's next entry; and it is gathered from so many tables that once is enough.
   */
  get #countsPages(): boolean {
    return this.#from !== PIECES;
  }

  /** The first page, and how many rows there are in all. @param kept answers that hold until the ledger's next entry */
  async first(
    db: Queries,
    kept: ReturnType<typeof untilNextEntry<number>>,
    limit: number,
  ): Promise<{ rows: Row[]; total: number }> {
    const sql = `SELECT COUNT(*) AS n FROM ${this.#from} ${this.#all()}`;
    const [rows, counted] = await Promise.all([
      this.rows(db, undefined, limit),
      this.#countsPages
        ? undefined
        : kept(JSON.stringify([sql, this.#values, todayIso()]), async () =>
            Number((await db.row<{ n: number }>(sql, this.#values))?.n ?? 0),
          ),
    ]);
    return { rows, total: counted ?? Number(rows[0]?.counted ?? 0) };
  }

  /** @param after key and id of the last row that was seen */
  async rows(db: Queries, after: readonly (string | number)[] | undefined, limit: number): Promise<Row[]> {
    const { key, up } = this.#order;
    const by = key === 'p.id' ? [] : this.#ask.values.filter(() => key.includes(this.#ask.sql));
    const [last, id] = after ?? [];
    const further =
      last === undefined || id === undefined
        ? { sql: '', values: [] }
        : key === 'p.id'
          ? { sql: `p.id ${up ? '>' : '<'} ?`, values: [id] }
          : {
              sql: `(${key} ${up ? '>' : '<'} ? OR (${key} = ? AND p.id ${up ? '>' : '<'} ?))`,
              values: [...by, last, ...by, last, id],
            };
    const direction = up ? 'ASC' : 'DESC';
    const order = key === 'p.id' ? `p.id ${direction}` : `sort_key ${direction}, p.id ${direction}`;
    // the page is found in narrow rows first: what is wide is joined to those that are shown
    const page = `SELECT p.id, ${key} AS sort_key, ${this.#countsPages ? 'COUNT(*) OVER ()' : 'NULL'} AS counted FROM ${this.#from} ${this.#all(further.sql)} ORDER BY ${order} LIMIT ?`;
    return db.rows<Row>(
      `SELECT p.id, p.stock_number, p.title, p.construction, p.stage, p.attribution, p.price, p.price_currency, p.ask, p.ask_currency,
         p.source_name, p.lot_id, lot.name AS lot, p.place, page.sort_key, page.counted,
         DATEDIFF(UTC_DATE(), COALESCE(p.acquired_from, DATE(p.created_at))) AS days,
         r.body AS reading, ${FIRST_PICTURE} AS picture, ${ATTENTION_COLUMNS}
       FROM (${page}) page JOIN piece p ON p.id = page.id
       LEFT JOIN lot ON lot.id = p.lot_id LEFT JOIN piece_reading r ON r.piece_id = p.id
       ${PUBLISHED_LISTING}
       ORDER BY ${order.replace('p.id', 'page.id')}`,
      [...by, ...this.#values, ...further.values, limit],
    );
  }

  #all(further = ''): string {
    const every = further === '' ? this.#where : [...this.#where, further];
    return every.length > 0 ? `WHERE ${every.join(' AND ')}` : '';
  }
}

export const keyOf = (row: Row): (string | number)[] => [row.sort_key, row.id];

export function rowShown(row: Row, index: ReferenceIndex): InventoryRow {
  const { attribution, reading } = row;
  const variant = index.variants.get(attribution?.variant ?? '')?.variant.name;
  const pattern = index.patterns.get(attribution?.pattern ?? '')?.name;
  return {
    id: row.id,
    stockNumber: row.stock_number,
    title: row.title,
    construction: row.construction,
    stage: row.stage,
    picture: row.picture,
    variant: attribution?.variant ?? null,
    pattern: attribution?.pattern ?? null,
    attributed: attribution === null ? null : [pattern, variant].filter(Boolean).join(', ') || null,
    tier: attribution?.tier ?? null,
    made: reading?.when ? edtfInWords(reading.when.core) : null,
    grade: reading?.condition?.grade ?? null,
    worth: reading?.worth?.estimate ?? null,
    cost: moneyOrNull(row.price, row.price_currency),
    ask: moneyOrNull(row.ask, row.ask_currency),
    source: row.source_name,
    lot: row.lot_id === null ? null : { id: row.lot_id, name: row.lot ?? '' },
    place: row.place,
    days: Math.max(0, Number(row.days)),
    warnings: attentionOf(attentionFacts(row), reading, todayIso()),
  };
}
