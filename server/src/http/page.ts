/** Keyset paging: a cursor is the sort key of the last item, opaque to the caller. */
import { HttpProblem } from './problem.ts';

export const encodeCursor = (key: readonly (string | number)[]): string =>
  Buffer.from(JSON.stringify(key)).toString('base64url');

export function decodeCursor(cursor: string | undefined, length: number): (string | number)[] | undefined {
  if (cursor === undefined) return undefined;
  try {
    const key: unknown = JSON.parse(Buffer.from(cursor, 'base64url').toString('utf8'));
    if (
      Array.isArray(key) &&
      key.length === length &&
      key.every((k) => typeof k === 'string' || typeof k === 'number')
    )
      return key as (string | number)[];
  } catch {
    // told below
  }
  throw new HttpProblem(422, 'This cursor is not one of ours.', [
    { pointer: '/query/cursor', message: 'not a cursor' },
  ]);
}

/** One row more than asked for tells whether there is a next page. */
export function pageOf<R, T>(
  rows: readonly R[],
  limit: number,
  total: number,
  item: (row: R) => T,
  key: (row: R) => (string | number)[],
): { items: T[]; nextCursor: string | null; total: number } {
  const shown = rows.slice(0, limit);
  const last = shown.at(-1);
  return {
    items: shown.map(item),
    nextCursor: rows.length > limit && last !== undefined ? encodeCursor(key(last)) : null,
    total,
  };
}

/** Cells that a spreadsheet would take for a formula are made safe on the way out. */
export const safeCell = (text: string): string => (/^[=+\-@\t\r]/.test(text) ? `'${text}` : text);
