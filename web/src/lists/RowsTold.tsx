/** What is wrong or odd in the rows of a list, at its line and column. */
import type { RowError } from '@jutbank/contract/lists';
import { counted } from '../parts/words.ts';

const ROWS_SHOWN = 12;

export function RowsTold({
  rows,
  inWords,
  className,
}: {
  rows: readonly RowError[];
  inWords: (column: string) => string;
  className: string;
}) {
  return (
    <>
      {rows.slice(0, ROWS_SHOWN).map((row, i) => (
        <p key={i} className={className}>
          Line {row.line}
          {row.column === null ? '' : `, ${inWords(row.column)}`}
          {row.value === '' ? '' : ` “${row.value.slice(0, 40)}”`}: {row.message}
        </p>
      ))}
      {rows.length > ROWS_SHOWN && <p className={className}>and {counted(rows.length - ROWS_SHOWN)} more</p>}
    </>
  );
}
