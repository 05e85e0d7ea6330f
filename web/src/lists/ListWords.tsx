/** What the words of somebody's list mean, where they are none of ours. */
import type { WordSaid } from '@jutbank/core/lists';
import { MeaningTable } from './MeaningTable.tsx';

type Meant<C extends string> = Partial<Record<C, Record<string, string>>>;

export function ListWords<C extends string>({
  title,
  label,
  words,
  meant,
  columns,
  columnInWords,
  none,
  choicesOf,
  onChange,
}: {
  title: string;
  label: string;
  words: readonly WordSaid<C>[];
  meant: Meant<C>;
  /** columns of words, in the order in which a person checks them */
  columns: readonly C[];
  columnInWords: (column: C) => string;
  /** what becomes of a word that means none of ours */
  none: (column: C) => string;
  choicesOf: (column: C) => readonly { readonly id: string; readonly name: string }[];
  onChange: (meant: Meant<C>) => void;
}) {
  // what nobody could guess first; then column by column
  const inOrder = words.toSorted(
    (a, b) =>
      Number(a.guess !== null) - Number(b.guess !== null) ||
      columns.indexOf(a.column) - columns.indexOf(b.column),
  );
  return (
    <MeaningTable
      title={title}
      label={label}
      sayings={inOrder.map(({ column, said, key, rows }) => {
        const meaning = meant[column]?.[key];
        return {
          id: `${column} ${key}`,
          said,
          of: columnInWords(column),
          rows,
          meaning: meaning ?? '',
          // that a word means nothing can be said, too
          open: meaning === undefined,
          unsaid: meaning === undefined,
          none: none(column),
          choices: choicesOf(column),
          onMean: (chosen) => onChange({ ...meant, [column]: { ...meant[column], [key]: chosen } }),
        };
      })}
    />
  );
}
