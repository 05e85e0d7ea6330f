/** A file of rows that somebody exported elsewhere: its text, its rows, and how such a file was read before. */
import { createHash } from 'node:crypto';
import iconv from 'iconv-lite';
import type { z } from 'zod';
import {
  namesSaid,
  type Cells,
  type ListMapping,
  type NamesKnown,
  type Notation,
  type WordSaid,
} from '@jutbank/core/lists';
import type { ReferenceIndex } from '@jutbank/core/bench';
import type { Queries, Transaction } from '../db/index.ts';
import { bytesOf, invalid, parsedBody, type UploadedFile } from '../http/index.ts';
import { csvInTurns, isCsvError } from './csv.ts';

const MARK_LE = Buffer.from([0xff, 0xfe]);
const MARK_BE = Buffer.from([0xfe, 0xff]);
/** How a workbook begins: a ZIP of sheets, or the older container. */
const WORKBOOKS = [Buffer.from([0x50, 0x4b, 0x03, 0x04]), Buffer.from([0xd0, 0xcf, 0x11, 0xe0])];

/**
 * Text of a file somebody exported: UTF-8, UTF-16 with its mark, or the usual one-byte encoding of older programs.
 * @throws 422 when it is a workbook rather than text
 */
export function textOf(bytes: Buffer): { text: string; encoding: string } {
  if (WORKBOOKS.some((mark) => bytes.subarray(0, mark.length).equals(mark)))
    throw invalid([
      {
        pointer: '/file',
        message: 'this is a workbook, not a list: save the sheet as CSV in your spreadsheet and choose that',
      },
    ]);
  for (const encoding of ['utf-16le', 'utf-16be'])
    if (bytes.subarray(0, 2).equals(encoding === 'utf-16le' ? MARK_LE : MARK_BE))
      return { text: iconv.decode(bytes, encoding), encoding };
  try {
    return { text: new TextDecoder('utf-8', { fatal: true }).decode(bytes), encoding: 'utf-8' };
  } catch {
    // the runtime's own decoder takes this encoding for Latin-1, which has no euro sign
    return { text: iconv.decode(bytes, 'windows-1252'), encoding: 'windows-1252' };
  }
}

/** What lists are of: each kind has its own columns, and remembers its own files. */
export type ListKind = 'prices' | 'stock';

const headerHash = (header: readonly string[]): string =>
  createHash('sha256').update(JSON.stringify(header)).digest('hex');

/** The mapping that came along with a file. @throws 400 or 422 where it is none */
export function mappingIn<M>(schema: z.ZodType<M>, fields: UploadedFile['fields']): M | undefined {
  if (fields.mapping === undefined) return undefined;
  let read: unknown;
  try {
    read = JSON.parse(fields.mapping);
  } catch {
    throw invalid([{ pointer: '/mapping', message: 'this is not JSON' }]);
  }
  return parsedBody(schema, read);
}

/** So that the next file with these columns is read the same way. */
export const rememberMapping = (
  tx: Transaction,
  kind: ListKind,
  header: readonly string[],
  mapping: ListMapping,
): Promise<number> =>
  tx.run(
    'INSERT INTO column_mapping (kind, header_hash, mapping) VALUES (?, ?, ?) ON DUPLICATE KEY UPDATE mapping = VALUES(mapping), used_at = UTC_TIMESTAMP(3)',
    [kind, headerHash(header), JSON.stringify(mapping)],
  );

/** How lists of one kind are read. */
export interface ListReading<M extends ListMapping, C extends string> {
  readonly kind: ListKind;
  readonly schema: z.ZodType<M>;
  readonly guess: (header: readonly string[], rows: Cells['rows']) => ListMapping;
  readonly notation: (file: Cells & Pick<ListMapping, 'columns'>) => Notation;
  readonly words: (mapping: ListMapping, rows: readonly Readonly<Record<string, string>>[]) => WordSaid<C>[];
}

const SAMPLE_ROWS = 12;
const GUESSED_FROM = 400;
const MOST_NAMES = 300;

/** The names that lists are read by. */
const namesOf = (index: ReferenceIndex): NamesKnown => ({
  makers: [...index.makers.values()].map(({ id, name }) => ({ id, name })),
  patterns: [...index.patterns.values()].map((p) => ({
    id: p.id,
    name: p.name,
    maker: index.makers.get(p.maker)?.name ?? '',
    number: p.number,
  })),
  variants: [...index.variants.values()].map(({ variant, pattern }) => ({
    id: variant.id,
    pattern: pattern.id,
    name: variant.name,
  })),
});

/**
 * What a file looks to say: by the mapping that came along, else as such a file went in before, else by a guess.
 * @throws 422 when the file is not text, or empty
 */
export async function lookAtList<M extends ListMapping, C extends string>(
  db: Queries,
  upload: UploadedFile,
  reading: ListReading<M, C>,
  index: ReferenceIndex,
) {
  const { text, encoding } = textOf(await bytesOf(upload));
  const file = await csvInTurns(text);
  if (file.header.every((name) => name === ''))
    throw invalid([{ pointer: '/file', message: 'this file is empty: its first line names the columns' }]);
  const rows = file.rows.flatMap((row) => (isCsvError(row) ? [] : [[...row.cells]]));
  const first = rows.slice(0, GUESSED_FROM);
  const known = await db.row<{ mapping: unknown }>(
    'SELECT mapping FROM column_mapping WHERE kind = ? AND header_hash = ?',
    [reading.kind, headerHash(file.header)],
  );
  const remembered = reading.schema.safeParse(known?.mapping);
  const mapping =
    mappingIn(reading.schema, upload.fields) ??
    (remembered.success ? remembered.data : reading.schema.parse(reading.guess(file.header, first)));
  const cells = rows.map((row) => Object.fromEntries(file.header.map((name, i) => [name, row[i] ?? ''])));
  return {
    encoding,
    separator: file.separator,
    header: [...file.header],
    sample: rows.slice(0, SAMPLE_ROWS),
    rows: file.rows.length,
    mapping,
    remembered: remembered.success,
    names: namesSaid(mapping, cells, namesOf(index)).slice(0, MOST_NAMES),
    words: reading.words(mapping, cells).slice(0, MOST_NAMES),
    notation: reading.notation({ header: file.header, rows: first, columns: mapping.columns }),
  };
}
