/** What the words of somebody's list mean: sold or asked, where, yes and no, grades, what was done to a piece. */
import type { WordSaid } from '@jutbank/core/lists';
import { meaningsOf, WORD_COLUMNS, type WordColumn } from '@jutbank/core/market';
import { ListWords } from '../lists/ListWords.tsx';
import { inWords } from '../parts/words.ts';
import { columnInWords, type Mapping } from './ImportColumns.tsx';

const LEFT_OUT = new Set<WordColumn>(['price_kind', 'venue_kind', 'currency']);

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
    <ListWords
      title="Their words"
      label="Words in the file"
      words={words}
      meant={mapping.words}
      columns={WORD_COLUMNS}
      columnInWords={columnInWords}
      none={(column) => (LEFT_OUT.has(column) ? 'leave the rows out' : 'not told')}
      choicesOf={(column) =>
        meaningsOf(column).map((id) => ({
          id,
          name: column === 'currency' ? id : inWords(id).replace('/', ': '),
        }))
      }
      onChange={(meant) => onChange({ ...mapping, words: meant })}
    />
  );
}
