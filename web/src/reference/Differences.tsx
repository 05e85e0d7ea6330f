/** Two to four variants side by side, only what differs. */
import { dimensionOfUnit, formatQuantity } from '@jutbank/core/units';
import { edtfInWords } from '@jutbank/core/dates';
import {
  differencesOf,
  type Difference,
  type Mark,
  type Pattern,
  type Variant,
} from '@jutbank/core/reference';
import type { Vocabulary } from '@jutbank/contract/reference';
import { MarkDrawing } from '../parts/Drawn.tsx';
import { DrawnApart } from './DrawnApart.tsx';
import { stampCaption } from '../parts/stampCaption.ts';

export function Differences({
  variants,
  pattern,
  words,
}: {
  variants: readonly Variant[];
  pattern: Pattern | undefined;
  words: Vocabulary;
}) {
  const rows = differencesOf(variants, pattern);
  return (
    <>
      {pattern && <DrawnApart variants={variants} pattern={pattern} words={words} />}
      <div className="scroll" tabIndex={0} role="region" aria-label="Differences">
        <table className="grid differ">
          <thead>
            <tr>
              <th>
                <span className="visually-hidden">Feature</span>
              </th>
              {variants.map((v) => (
                <th key={v.id}>
                  {v.name}
                  <div className="soft" style={{ fontWeight: 400 }}>
                    {v.window == null ? 'not dated' : edtfInWords(v.window)}
                  </div>
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {rows.map((row) => (
              <tr key={row.kind === 'marks' ? 'marks' : row.id}>
                <td className="soft">{titleOf(row, words)}</td>
                {variants.map((v, i) => (
                  <td key={v.id}>{cellOf(row, i, words)}</td>
                ))}
              </tr>
            ))}
            {rows.length === 0 && (
              <tr>
                <td colSpan={variants.length + 1}>
                  Nothing recorded tells these apart: only a document, a number or the date can.
                </td>
              </tr>
            )}
          </tbody>
        </table>
      </div>
    </>
  );
}

const titleOf = (row: Difference, words: Vocabulary): string =>
  row.kind === 'marks' ? 'Stamp' : (words.features.find((f) => f.id === row.id)?.label ?? row.id);

function cellOf(row: Difference, i: number, words: Vocabulary) {
  if (row.kind === 'marks') {
    const marks = (row.cells[i] ?? []).flatMap((id): Mark[] => words.marks.filter((m) => m.id === id));
    return marks.length === 0 ? (
      <span className="soft">not recorded</span>
    ) : (
      marks.map((m) => (
        <figure key={m.id}>
          <MarkDrawing mark={m} codes={words.codes} width={110} />
          <figcaption className="stamp-caption">{stampCaption(m)}</figcaption>
        </figure>
      ))
    );
  }
  const feature = words.features.find((f) => f.id === row.id);
  if (row.kind === 'measure') {
    const m = row.cells[i];
    return m ? (
      <span className="num">
        {formatQuantity(m.value, dimensionOfUnit(feature?.unit))}
        {m.tolerance != null && ` ± ${m.tolerance}`}
      </span>
    ) : (
      <span className="soft">not recorded</span>
    );
  }
  const values = row.cells[i] ?? [];
  return values.length === 0 ? (
    <span className="soft">not recorded</span>
  ) : (
    values.map((v) => feature?.values?.find((x) => x.id === v)?.label ?? String(v)).join(' or ')
  );
}
