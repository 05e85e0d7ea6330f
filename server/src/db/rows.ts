/** Lists of values in SQL, and the rows that come back by what they belong to. */

/** `?, ?, ?` for the values of an IN (…), which must not be empty. */
export const placeholders = (values: readonly unknown[]): string => values.map(() => '?').join(', ');

/** Rows by what they belong to, each group in the order of the rows. */
export function rowsBy<T, K>(rows: Iterable<T>, keyOf: (row: T) => K): Map<K, T[]> {
  const groups = new Map<K, T[]>();
  for (const row of rows) {
    const key = keyOf(row);
    const group = groups.get(key);
    if (group) group.push(row);
    else groups.set(key, [row]);
  }
  return groups;
}
