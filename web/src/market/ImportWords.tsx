/** What the words of somebody's list mean: sold or asked, where, yes and no, grades, what was done to a piece. */
import type { WordSaid } from '@jutbank/core/lists';
import { meaningsOf, WORD_COLUMNS, type WordColumn } from '@jutbank/core/market';
import { inWords } from '../parts/words.ts';
import { columnInWords, type Mapping } from './ImportColumns.tsx';
import { MeaningTable } from '../lists/MeaningTable.tsx';

const LEFT_OUT = new Set(['price_kind', 'venue_kind', 'currency']);

/** What nobody could guess first; then column by column, as a person checks them. */
const inOrder = (words: readonly WordSaid<WordColumn>[]): WordSaid<WordColumn>[] =>
  words.toSorted(
    (a, b) =>
      Number(a.guess !== null) - Number(b.guess !== null) ||
      WORD_COLUMNS.indexOf(a.column) - WORD_COLUMNS.indexOf(b.column),
  );

export function ImportWords({
  words,
  mapping,
  onChange,
}: {
  words: readonly WordSaid<WordColumn>[];
  mapping: Mapping;
  onChange: (mapping: Mapping) => void;
}) {
  return (
    <MeaningTable
      title="Their words"
      label="Words in the file"
      sayings={inOrder(words).map(({ column, said, key, rows }) => {
        const meant = mapping.words[column]?.[key];
        return {
          id: `${column} ${key}`,
          said,
          of: columnInWords(column),
          rows,
          meaning: meant ?? '',
          // that a word means nothing can be said, too
          open: meant === undefined,
          unsaid: meant === undefined,
          none: LEFT_OUT.has(column) ? 'leave the rows out' : 'not told',
          choices: meaningsOf(column).map((id) => ({
            id,
            name: column === 'currency' ? id : inWords(id).replace('/', ': '),
          })),
          onMean: (meaning) =>
            onChange({
              ...mapping,
              words: { ...mapping.words, [column]: { ...mapping.words[column], [key]: meaning } },
            }),
        };
      })}
    />
  );
}
