/** What the columns of somebody's list say, how it writes dates and decimals, and what holds for every row. */
import { MenuItem, TextField } from '@mui/material';
import { DATE_ORDERS, type DateOrder } from '@jutbank/core/value';
import {
  COMPARABLE_COLUMNS,
  REQUIRED_COLUMNS,
  type ComparableColumn,
  type FileLook,
} from '@jutbank/contract/value';
import { inWords } from '../parts/words.ts';

export type Mapping = FileLook['mapping'];
const ORDER_WORDS: Record<DateOrder, string> = {
  ymd: 'year, month, day',
  dmy: 'day, month, year',
  mdy: 'month, day, year',
};
const SAMPLE_SHOWN = 3;

export function ImportColumns({
  look,
  mapping,
  onChange,
}: {
  look: FileLook;
  mapping: Mapping;
  onChange: (mapping: Mapping) => void;
}) {
  const missing = REQUIRED_COLUMNS.filter((c) => !Object.values(mapping.columns).includes(c));
  const give = (name: string, column: string) => {
    const columns = Object.fromEntries(
      Object.entries(mapping.columns).filter(([other, c]) => other !== name && c !== column),
    );
    onChange({
      ...mapping,
      columns: column === '' ? columns : { ...columns, [name]: column as ComparableColumn },
    });
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
              <th>Their column</th>
              <th>Says</th>
              <th>First rows</th>
            </tr>
          </thead>
          <tbody>
            {look.header.map((name, i) => (
              <tr key={name}>
                <td>{name}</td>
                <td>
                  <select
                    className="plainselect"
                    aria-label={`What “${name}” says`}
                    value={mapping.columns[name] ?? ''}
                    onChange={(e) => give(name, e.target.value)}
                  >
                    <option value="">kept as a note</option>
                    {COMPARABLE_COLUMNS.map((c) => (
                      <option key={c} value={c}>
                        {inWords(c.replaceAll('_', '-'))}
                      </option>
                    ))}
                  </select>
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
      <div
        style={{
          display: 'grid',
          gap: 10,
          gridTemplateColumns: 'repeat(auto-fit, minmax(140px, 1fr))',
          marginTop: 10,
        }}
      >
        <TextField
          select
          label="Dates are written"
          value={mapping.dateOrder}
          onChange={(e) => onChange({ ...mapping, dateOrder: e.target.value as DateOrder })}
        >
          {DATE_ORDERS.map((o) => (
            <MenuItem key={o} value={o}>
              {ORDER_WORDS[o]}
            </MenuItem>
          ))}
        </TextField>
        <TextField
          select
          label="Decimals with"
          value={mapping.decimalComma ? 'comma' : 'point'}
          onChange={(e) => onChange({ ...mapping, decimalComma: e.target.value === 'comma' })}
        >
          <MenuItem value="point">a point</MenuItem>
          <MenuItem value="comma">a comma</MenuItem>
        </TextField>
        {missing.map((column) => (
          <TextField
            key={column}
            label={`${inWords(column.replaceAll('_', '-'))} of every row`}
            value={mapping.fixed[column] ?? ''}
            placeholder={column === 'price_kind' ? 'sold' : column === 'venue_kind' ? 'auction' : ''}
            onChange={(e) => {
              const { [column]: _, ...fixed } = mapping.fixed;
              onChange({
                ...mapping,
                fixed: e.target.value === '' ? fixed : { ...fixed, [column]: e.target.value },
              });
            }}
          />
        ))}
      </div>
    </>
  );
}
