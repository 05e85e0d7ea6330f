/** Many comparables at once: good rows go in, bad ones are told with their line and column. */
import type { RowError } from '@jutbank/contract/lists';
import { REQUIRED_COLUMNS, type ComparablesImportAnswer } from '@jutbank/contract/market';
import { setImmediate as turn } from 'node:timers/promises';
import { ulid } from 'ulid';
import type { ReferenceIndex } from '@jutbank/core/bench';
import type { ListMapping } from '@jutbank/core/lists';
import { rowReader } from '@jutbank/core/market';
import type { Transaction } from '../db/index.ts';
import { invalid } from '../http/index.ts';
import { csvInTurns, isCsvError, textOf } from '../lists/index.ts';
import { nearSameFinder } from './nearSame.ts';
import { normaliseRow, type CellProblem, type ReferenceIds, type NormalRow } from './normalise.ts';
import { todayIso } from '../clock/index.ts';
import { insertComparables, knownHashes, stampRevision } from './queries.ts';

export interface RawRow {
  readonly line: number;
  readonly cells: Readonly<Record<string, string>>;
}
export interface RawFile {
  readonly header: readonly string[];
  /** the header as it stands in the file */
  readonly written: readonly string[];
  readonly decimalComma: boolean;
  readonly rows: readonly RawRow[];
  readonly errors: readonly RowError[];
  /** the file's name, for the list of imports */
  readonly name?: string;
}

/**
 * @param mapping how somebody else's columns are read; without one the file is in Jutbank's own, in UTF-8
 * @throws 422 when the file is not text, or lacks a column that it must have
 */
export async function rawFromCsv(bytes: Buffer, mapping?: ListMapping): Promise<RawFile> {
  if (!mapping) {
    try {
      new TextDecoder('utf-8', { fatal: true }).decode(bytes);
    } catch {
      throw invalid([{ pointer: '/file', message: 'this file is not UTF-8 text; save it as CSV in UTF-8' }]);
    }
  }
  const file = await csvInTurns(textOf(bytes).text);
  if (!mapping) needColumns(file.header);
  else
    needColumns([
      ...Object.values(mapping.columns),
      ...Object.keys(mapping.fixed),
      ...(mapping.currencyInPrice ? ['currency'] : []),
    ]);
  const twice = file.header.find((name, i) => file.header.indexOf(name) !== i);
  if (twice !== undefined)
    throw invalid([{ pointer: '/file', message: `the column “${twice}” stands in the header twice` }]);
  const errors: RowError[] = [];
  const rows: RawRow[] = [];
  const read = mapping && rowReader(mapping);
  for (const [n, row] of file.rows.entries()) {
    if (n % TURN_EVERY === 0) await turn();
    if (isCsvError(row))
      errors.push({
        line: row.line,
        column: null,
        columnNumber: null,
        value: row.value,
        message: row.message,
      });
    else {
      const cells = Object.fromEntries(file.header.map((name, i) => [name, row.cells[i] ?? '']));
      rows.push({ line: row.line, cells: read ? read(cells) : cells });
    }
  }
  // an error in a mapped column is told at the column of the file it was read from
  const ours = new Map(Object.entries(mapping?.columns ?? {}));
  const header = file.header.map((name) => ours.get(name) ?? name);
  return { header, written: file.header, decimalComma: !mapping && file.separator !== ',', rows, errors };
}

export function rawFromRows(rows: readonly Readonly<Record<string, string | number | null>>[]): RawFile {
  const header = [...new Set(rows.flatMap((row) => Object.keys(row)))];
  if (rows.length > 0) needColumns(header);
  return {
    header,
    written: header,
    decimalComma: false,
    errors: [],
    rows: rows.map((row, i) => ({
      line: i + 2,
      cells: Object.fromEntries(
        Object.entries(row).map(([name, value]) => [name, value === null ? '' : String(value)]),
      ),
    })),
  };
}

function needColumns(header: readonly string[]): void {
  const missing = REQUIRED_COLUMNS.filter((column) => !header.includes(column));
  if (missing.length > 0)
    throw invalid(
      missing.map((column) => ({
        pointer: '/file',
        message: `the column “${column}” is missing; a file needs ${REQUIRED_COLUMNS.join(', ')}`,
      })),
    );
}

/** What rows of prices may speak of. */
export const referenceKnown = (index: ReferenceIndex): ReferenceIds => ({
  patterns: index.patterns,
  variants: new Map(index.rows.map((row) => [row.variant.id, row.pattern.id])),
  today: todayIso(),
});

const STEP = 2000;
const MOST_LOOKED_OVER = 20_000;
/** So many rows are read before somebody else has a turn: about ten milliseconds. */
const TURN_EVERY = 200;

/** @param progress is told the share done, and may throw to stop: then nothing has gone in */
export async function importComparables(
  tx: Transaction,
  file: RawFile,
  known: ReferenceIds,
  options: { check: boolean; person?: string; progress?: (share: number) => Promise<void> },
): Promise<ComparablesImportAnswer> {
  const errors: RowError[] = [...file.errors];
  const warnings: RowError[] = [];
  /** the line of every row that is not known from a line before, by its hash */
  const lines = new Map<string, number>();
  const told = (line: number, p: CellProblem): RowError => ({
    line,
    column: p.column,
    columnNumber: columnNumber(file.header, p.column),
    value: p.value,
    message: p.message,
  });
  const findNearSame = nearSameFinder(tx, lines);
  const importId = ulid();
  let added = 0;
  let alreadyKnown = 0;
  let rejected = file.errors.length;
  for (let at = 0; at < file.rows.length; at += STEP) {
    const good: NormalRow[] = [];
    for (const [n, { line, cells }] of file.rows.slice(at, at + STEP).entries()) {
      if (n % TURN_EVERY === 0) await turn();
      const { row, errors: wrong, warnings: odd } = normaliseRow(cells, known, file.decimalComma);
      errors.push(...wrong.map((problem) => told(line, problem)));
      if (!row) {
        rejected++;
        continue;
      }
      warnings.push(...odd.map((problem) => told(line, problem)));
      if (lines.has(row.hash)) alreadyKnown++;
      else {
        lines.set(row.hash, line);
        good.push(row);
      }
    }
    if (options.check) {
      const there = await knownHashes(
        tx,
        good.map((row) => row.hash),
      );
      added += good.length - there.size;
      alreadyKnown += there.size;
      // a person looks over what is told; nobody looks over a hundred thousand rows
      const near =
        at < MOST_LOOKED_OVER ? await findNearSame(good.filter((row) => !there.has(row.hash))) : [];
      warnings.push(...near.map(({ line, ...problem }) => told(line, problem)));
    } else {
      const result = await insertComparables(tx, good, { importId });
      added += result.added;
      alreadyKnown += good.length - result.added;
    }
    await options.progress?.(Math.min(1, (at + STEP) / file.rows.length));
  }
  if (added > 0 && !options.check) {
    await tx.run('INSERT INTO comparable_import (id, name, person, rows_in) VALUES (?, ?, ?, ?)', [
      importId,
      (file.name ?? 'rows').slice(0, 200),
      (options.person ?? '').slice(0, 160),
      added,
    ]);
    await stampRevision(tx, { importId });
  }
  errors.sort((a, b) => a.line - b.line);
  warnings.sort((a, b) => a.line - b.line);
  return { rows: file.rows.length + file.errors.length, added, alreadyKnown, rejected, errors, warnings };
}

function columnNumber(header: readonly string[], column: string): number | null {
  const at = header.indexOf(column);
  return at < 0 ? null : at + 1;
}
