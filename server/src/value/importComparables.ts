/** Many comparables at once: good rows go in, bad ones are told with their line and column. */
import { REQUIRED_COLUMNS, type ComparablesImportAnswer, type RowError } from '@jutbank/contract/value';
import { raiseRevision, type Queries } from '../db/index.ts';
import { invalid } from '../http/index.ts';
import type { Library } from '../reference/index.ts';
import { isCsvError, readCsv } from './csv.ts';
import { normaliseRow, todayIso, type Known, type NormalRow } from './normalise.ts';
import { insertComparables, knownHashes } from './queries.ts';

export interface RawRow {
  readonly line: number;
  readonly cells: Readonly<Record<string, string>>;
}
export interface RawFile {
  readonly header: readonly string[];
  readonly decimalComma: boolean;
  readonly rows: readonly RawRow[];
  readonly errors: readonly RowError[];
}

/** @throws 422 when the file is not text, or lacks a column that it must have */
export function rawFromCsv(bytes: Buffer): RawFile {
  let text: string;
  try {
    text = new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    throw invalid([{ pointer: '/file', message: 'this file is not UTF-8 text; save it as CSV in UTF-8' }]);
  }
  const file = readCsv(text);
  needColumns(file.header);
  const twice = file.header.find((name, i) => file.header.indexOf(name) !== i);
  if (twice !== undefined)
    throw invalid([{ pointer: '/file', message: `the column “${twice}” stands in the header twice` }]);
  const errors: RowError[] = [];
  const rows: RawRow[] = [];
  for (const row of file.rows) {
    if (isCsvError(row))
      errors.push({
        line: row.line,
        column: null,
        columnNumber: null,
        value: row.value,
        message: row.message,
      });
    else
      rows.push({
        line: row.line,
        cells: Object.fromEntries(file.header.map((name, i) => [name, row.cells[i] ?? ''])),
      });
  }
  return { header: file.header, decimalComma: file.separator !== ',', rows, errors };
}

export function rawFromRows(rows: readonly Readonly<Record<string, string | number | null>>[]): RawFile {
  const header = [...new Set(rows.flatMap((row) => Object.keys(row)))];
  if (rows.length > 0) needColumns(header);
  return {
    header,
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

export async function knownFor(library: Library): Promise<Known> {
  const index = await library.index();
  return {
    patterns: index.patterns,
    variants: new Map(index.rows.map((row) => [row.variant.id, row.pattern.id])),
    today: todayIso(),
  };
}

const STEP = 2000;

/** @param progress is told the share done, and may throw to stop: then nothing has gone in */
export async function importComparables(
  tx: Queries,
  file: RawFile,
  known: Known,
  options: { check: boolean; progress?: (share: number) => Promise<void> },
): Promise<ComparablesImportAnswer> {
  const errors: RowError[] = [...file.errors];
  const warnings: RowError[] = [];
  const seen = new Set<string>();
  let added = 0;
  let alreadyKnown = 0;
  let rejected = file.errors.length;
  for (let at = 0; at < file.rows.length; at += STEP) {
    const good: NormalRow[] = [];
    for (const { line, cells } of file.rows.slice(at, at + STEP)) {
      const { row, errors: wrong, warnings: odd } = normaliseRow(cells, known, file.decimalComma);
      const told = (p: { column: string; value: string; message: string }): RowError => ({
        line,
        column: p.column,
        columnNumber: columnNumber(file.header, p.column),
        value: p.value,
        message: p.message,
      });
      errors.push(...wrong.map(told));
      if (!row) {
        rejected++;
        continue;
      }
      warnings.push(...odd.map(told));
      if (seen.has(row.hash)) alreadyKnown++;
      else {
        seen.add(row.hash);
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
    } else {
      const result = await insertComparables(tx, good);
      added += result.added;
      alreadyKnown += good.length - result.added;
    }
    await options.progress?.(Math.min(1, (at + STEP) / file.rows.length));
  }
  if (added > 0 && !options.check) await raiseRevision(tx, 'comparables');
  errors.sort((a, b) => a.line - b.line);
  return { rows: file.rows.length + file.errors.length, added, alreadyKnown, rejected, errors, warnings };
}

function columnNumber(header: readonly string[], column: string): number | null {
  const at = header.indexOf(column);
  return at < 0 ? null : at + 1;
}
