/**
 * Comparables as CSV (RFC 4180), read row by row so that one bad row does not take the others with it. The parsing
 * of quoted rows is csv-parse's; what is here finds where rows begin and end, and recovers after broken quoting.
 */
import { setImmediate as turn } from 'node:timers/promises';
import { parse } from 'csv-parse/sync';

export interface CsvRow {
  /** physical line on which the row begins; the header is 1 */
  readonly line: number;
  readonly cells: readonly string[];
}
export interface CsvError {
  readonly line: number;
  readonly value: string;
  readonly message: string;
}
export interface CsvFile {
  readonly separator: ',' | ';' | '\t';
  readonly header: readonly string[];
  readonly rows: readonly (CsvRow | CsvError)[];
}

const TURN_EVERY = 1000;
/** A row of text may run over so many lines; more is a quote that was never closed. */
const MOST_LINES_PER_ROW = 200;

export const isCsvError = (row: CsvRow | CsvError): row is CsvError => 'message' in row;

/** Reads step by step: a turn is given after every so many rows. */
function* reading(text: string): Generator<undefined, CsvFile> {
  const lines = text.replace(/^\uFEFF/, '').split(/\r\n|\n|\r/);
  const separator = separatorOf(lines[0] ?? '');
  const rows: (CsvRow | CsvError)[] = [];
  let header: readonly string[] = [];
  let at = 0;
  while (at < lines.length) {
    if (rows.length % TURN_EVERY === TURN_EVERY - 1) yield;
    const line = lines[at] ?? '';
    if (line === '') {
      at++;
      continue;
    }
    const found = rowAt(lines, at, separator);
    if (at === 0) {
      header = found ? found.cells.map((c) => c.trim()) : line.split(separator).map((c) => c.trim());
      at += found?.lines ?? 1;
      continue;
    }
    if (!found) {
      rows.push({ line: at + 1, value: line.slice(0, 200), message: 'the quoting of this row is broken' });
      at++;
    } else if (found.cells.length !== header.length) {
      rows.push({
        line: at + 1,
        value: line.slice(0, 200),
        message: `this row has ${found.cells.length} cells, the header has ${header.length}`,
      });
      // a row over several lines with the wrong number of cells is a stray quote: go on at the next line
      at++;
    } else {
      rows.push({ line: at + 1, cells: found.cells });
      at += found.lines;
    }
  }
  return { separator, header, rows };
}

export function readCsv(text: string): CsvFile {
  const steps = reading(text);
  for (;;) {
    const step = steps.next();
    if (step.done) return step.value;
  }
}

/** The same, with others having their turn in between: a list may have a hundred thousand rows. */
export async function csvInTurns(text: string): Promise<CsvFile> {
  const steps = reading(text);
  for (;;) {
    const step = steps.next();
    if (step.done) return step.value;
    await turn();
  }
}

function separatorOf(header: string): CsvFile['separator'] {
  const plain = header.replace(/"[^"]*"/g, '');
  const count = (sign: string) => plain.split(sign).length - 1;
  const best = ([',', ';', '\t'] as const).reduce((a, b) => (count(b) > count(a) ? b : a));
  return best;
}

function rowAt(
  lines: readonly string[],
  at: number,
  separator: string,
): { cells: string[]; lines: number } | undefined {
  const first = lines[at] ?? '';
  if (!first.includes('"')) return { cells: first.split(separator), lines: 1 };
  let text = first;
  for (let used = 1; ; used++) {
    if (quotes(text) % 2 === 0) {
      try {
        const records = parse(text, {
          delimiter: separator,
          relax_column_count: true,
          record_delimiter: ['\n'],
        });
        const cells = records[0];
        return records.length === 1 && cells ? { cells, lines: used } : undefined;
      } catch {
        return undefined;
      }
    }
    const next = lines[at + used];
    if (next === undefined || used >= MOST_LINES_PER_ROW) return undefined;
    text += `\n${next}`;
  }
}

const quotes = (text: string): number => text.split('"').length - 1;
