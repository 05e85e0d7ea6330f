/** Which column of somebody's file says what: known by its name, believed by what stands in it. */
import { foldedText } from './fold.ts';

/** A file by columns: its header, and rows of cells in the same order. */
export interface Cells {
  readonly header: readonly string[];
  readonly rows: readonly (readonly string[])[];
}

/** Words by which a column is known, folded; of those that fit, the first whose cells agree is taken. */
export type KnownBy<C extends string> = readonly (readonly [column: C, words: RegExp])[];

/** Cells that are not empty, by the name of their column. */
export function cellsByColumn({ header, rows }: Cells): Map<string, string[]> {
  return new Map(header.map((name, at) => [name, rows.map((row) => (row[at] ?? '').trim()).filter(Boolean)]));
}

/** Cells that are not empty, of all columns that are read as one of ours. */
export function cellsReadAs(
  { columns, ...file }: Cells & { readonly columns: Readonly<Record<string, string>> },
  ours: string,
): string[] {
  const cells = cellsByColumn(file);
  return Object.entries(columns).flatMap(([name, column]) =>
    column === ours ? (cells.get(name) ?? []) : [],
  );
}

/**
 * A guess from names and cells: a column that is called as ours is taken first, then by the words of `knownBy`, from
 * above. Each of ours is given once.
 * @param agrees whether cells look like what their column's name promises
 * @returns their column to ours
 */
export function guessColumns<C extends string>(
  file: Cells,
  knownBy: KnownBy<C>,
  agrees: (column: C, cells: readonly string[]) => boolean,
): Record<string, C> {
  const cells = cellsByColumn(file);
  const columns = new Map<string, C>();
  const give = (name: string | undefined, column: C | undefined) => {
    if (name !== undefined && column !== undefined && ![...columns.values()].includes(column))
      columns.set(name, column);
  };
  const plain = (name: string) => name.trim().toLowerCase();
  for (const name of file.header) give(name, knownBy.find(([column]) => column === plain(name))?.[0]);
  for (const [column, words] of knownBy)
    give(
      file.header.find(
        (name) => !columns.has(name) && words.test(foldedText(name)) && agrees(column, cells.get(name) ?? []),
      ),
      column,
    );
  return Object.fromEntries(columns);
}
