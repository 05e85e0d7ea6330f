/** One sale told twice, with one cell written differently the second time: a slipped digit, a turned date, a new note. */

/** The cells of a row, none of them empty (formats.md, "Comparables"). */
export type RowCells = Readonly<Record<string, string>>;

/** What makes a sale this one: where one of these differs, everything else has to say the more. */
const SALE_BY: ReadonlySet<string> = new Set(['sale_date', 'price', 'currency', 'pattern']);
/** So many cells must agree beside a changed day, price or pattern: shops do sell two alike pieces on one day. */
const AGREE_FROM = 8;
const asListed = (column: string): boolean => column.endsWith(' as listed');

/** @returns the one column in which two rows differ; undefined where it is none, more, or too little agrees */
export function changedCell(one: RowCells, other: RowCells): string | undefined {
  let changed: string | undefined;
  let agree = 0;
  for (const column in one) {
    if (asListed(column)) continue;
    if (Object.hasOwn(other, column) && one[column] === other[column]) agree++;
    else if (changed === undefined) changed = column;
    else return undefined;
  }
  for (const column in other) {
    if (Object.hasOwn(one, column) || asListed(column)) continue;
    if (changed !== undefined) return undefined;
    changed = column;
  }
  return changed !== undefined && SALE_BY.has(changed) && agree < AGREE_FROM ? undefined : changed;
}
