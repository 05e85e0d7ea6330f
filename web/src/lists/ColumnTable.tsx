/** What the columns of somebody's list say, beside what stands in their first rows; and how it writes dates and decimals. */
import { DATE_ORDERS, type DateOrder } from '@jutbank/core/lists';
import type { ReactNode } from 'react';
import { CellSelect, optionsOf, Select } from '../parts/fields/choices.tsx';

const ORDER_WORDS: Record<DateOrder, string> = {
  ymd: 'year, month, day',
  dmy: 'day, month, year',
  mdy: 'month, day, year',
};
const SAMPLE_SHOWN = 3;

interface Mapping<C extends string> {
  readonly columns: Readonly<Record<string, C>>;
  readonly dateOrder: DateOrder;
  readonly decimalComma: boolean;
}

export function ColumnTable<C extends string, M extends Mapping<C>>({
  look,
  mapping,
  columns,
  inWords,
  onChange,
  children,
}: {
  look: { readonly header: readonly string[]; readonly sample: readonly (readonly string[])[] };
  mapping: M;
  /** ours, in the order in which they are offered */
  columns: readonly C[];
  inWords: (column: C) => string;
  onChange: (mapping: M) => void;
  /** what else holds for the whole list */
  children?: ReactNode;
}) {
  const give = (name: string, column: C | null) => {
    // each of ours is said by one column only
    const others = Object.fromEntries(
      Object.entries(mapping.columns).filter(([other, c]) => other !== name && c !== column),
    );
    onChange({ ...mapping, columns: column === null ? others : { ...others, [name]: column } });
  };
  return (
    <>
      <div
        className="scroll"
        tabIndex={0}
        role="region"
        aria-label="Columns of the file"
        style={{ maxHeight: 260, overflowY: 'auto' }}
      >
        <table className="grid">
          <thead>
            <tr>
              <th>Column of the list</th>
              <th>Says</th>
              <th>First rows</th>
            </tr>
          </thead>
          <tbody>
            {look.header.map((name, i) => (
              <tr key={name}>
                <td>{name}</td>
                <td>
                  <CellSelect
                    label={`What “${name}” says`}
                    value={mapping.columns[name] ?? null}
                    none="kept as a note"
                    options={optionsOf(columns, inWords)}
                    onChange={(column) => give(name, column)}
                  />
                </td>
                <td className="soft">
                  {look.sample
                    .slice(0, SAMPLE_SHOWN)
                    .map((row) => row[i] ?? '')
                    .filter(Boolean)
                    .join(' · ')}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <div className="fields across" style={{ marginTop: 10 }}>
        <Select
          label="Dates are written"
          value={mapping.dateOrder}
          options={optionsOf(DATE_ORDERS, (o) => ORDER_WORDS[o])}
          onChange={(dateOrder) => dateOrder !== null && onChange({ ...mapping, dateOrder })}
        />
        <Select
          label="Decimals with"
          value={mapping.decimalComma ? 'comma' : 'point'}
          options={optionsOf(['point', 'comma'], (sign) => `a ${sign}`)}
          onChange={(sign) => onChange({ ...mapping, decimalComma: sign === 'comma' })}
        />
        {children}
      </div>
    </>
  );
}
