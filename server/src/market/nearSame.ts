/** Before a list goes in: rows that look like a sale known already, or told by another line, but for one cell. */
import { setImmediate as turn } from 'node:timers/promises';
import { changedCell, type RowCells } from '@jutbank/core/market';
import type { Queries } from '../db/index.ts';
import type { CellProblem, NormalRow } from './normalise.ts';

interface Sale {
  readonly day: string;
  readonly price: string;
  readonly pattern: string;
  readonly cells: RowCells;
  /** of the list; null where it is known already */
  readonly line: number | null;
}

/** What two tellings of one sale that differ in one cell have in common: the day, or else pattern and price. */
const keysOf = ({ day, price, pattern }: Sale): string[] => [day, `${pattern} ${Number(price)}`];

/**
 * Looks through a list part by part; each part is held against what is known and against the parts before.
 * @param lines of the rows by their hash
 */
export function nearSameFinder(
  db: Queries,
  lines: ReadonlyMap<string, number>,
): (rows: readonly NormalRow[]) => Promise<(CellProblem & { line: number })[]> {
  const before = new Map<string, Sale[]>();
  const taken = new Set<string>();
  const remember = (sale: Sale) => {
    for (const key of keysOf(sale)) {
      const list = before.get(key);
      if (list) list.push(sale);
      else before.set(key, [sale]);
    }
  };
  return async (rows) => {
    const listed = rows.map((row): Sale & { line: number } => ({
      day: row.saleDay,
      price: row.price,
      pattern: row.pattern,
      cells: row.cells,
      line: lines.get(row.hash) ?? 0,
    }));
    for (const [id, sale] of await likelyKnown(db, listed))
      if (!taken.has(id)) {
        taken.add(id);
        remember(sale);
      }
    const found: (CellProblem & { line: number })[] = [];
    for (const [n, sale] of listed.entries()) {
      if (n % TURN_EVERY === 0) await turn();
      const like = twinOf(sale, before);
      if (like) found.push({ line: sale.line, ...like });
      remember(sale);
    }
    return found;
  };
}

/** So many rows are looked through before somebody else has a turn. */
const TURN_EVERY = 100;
/** Most sales a row is held against: a day on which thousands were sold tells nothing by itself. */
const MOST_HELD_AGAINST = 60;

function twinOf(sale: Sale, before: ReadonlyMap<string, readonly Sale[]>): CellProblem | undefined {
  for (const key of keysOf(sale))
    for (const other of (before.get(key) ?? []).slice(-MOST_HELD_AGAINST)) {
      const column = changedCell(sale.cells, other.cells);
      if (column === undefined) continue;
      const there = Object.hasOwn(other.cells, column) ? `“${other.cells[column]?.slice(0, 60)}”` : 'nothing';
      return {
        column,
        value: (Object.hasOwn(sale.cells, column) ? (sale.cells[column] ?? '') : '').slice(0, 200),
        message: `looks like ${other.line === null ? 'a sale known already' : `line ${other.line}`}, which says ${there} here and else the same`,
      };
    }
  return undefined;
}

const STEP = 500;

async function likelyKnown(db: Queries, listed: readonly Sale[]): Promise<Map<string, Sale>> {
  const found = new Map<string, Sale>();
  const take = async (where: string, values: readonly string[], more: readonly string[] = []) => {
    for (let at = 0; at < values.length; at += STEP) {
      const part = values.slice(at, at + STEP);
      const rows = await db.rows<{
        id: string;
        sale_day: string;
        price: string;
        pattern_id: string;
        cells: RowCells;
      }>(
        `SELECT id, sale_day, price, pattern_id, cells FROM comparable WHERE state = 'kept' AND ${where} IN (${part.map(() => '?').join(',')})${more.length === 0 ? '' : ` AND pattern_id IN (${more.map(() => '?').join(',')})`}`,
        [...part, ...more],
      );
      for (const row of rows)
        found.set(row.id, {
          day: row.sale_day,
          price: row.price,
          pattern: row.pattern_id,
          cells: row.cells,
          line: null,
        });
    }
  };
  const distinct = (of: (sale: Sale) => string) => [...new Set(listed.map(of))];
  if (listed.length > 0) {
    await take(
      'sale_day',
      distinct((sale) => sale.day),
    );
    await take(
      'price',
      distinct((sale) => sale.price),
      distinct((sale) => sale.pattern),
    );
  }
  return found;
}
