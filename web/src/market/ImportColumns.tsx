/** What the columns of somebody's list say, how it writes dates and decimals, and what holds for every row. */
import { ColumnTable } from '../lists/ColumnTable.tsx';
import { optionsOf, Select } from '../parts/fields/choices.tsx';
import { TextInput } from '../parts/fields/TextInput.tsx';
import { GRADE_WORDS, PRICE_KINDS, VENUE_KINDS } from '@jutbank/core/market';
import {
  COMPARABLE_COLUMNS,
  REQUIRED_COLUMNS,
  type ComparableColumn,
  type FileLook,
} from '@jutbank/contract/market';
import { inWords, sentence } from '../parts/words.ts';

export type Mapping = FileLook['mapping'];
/** `buyer_premium_pct` as a person says it. */
export const columnInWords = (column: string): string => column.replace(/_pct$/, ' %').replaceAll('_', ' ');

/** Asked for every row where no column says it; a scale only where grades are told without one. */
const untoldGrades = ({ columns }: Mapping) =>
  Object.values(columns).includes('grade') && !Object.values(columns).includes('grade_scale');

/** Columns a row must have, which no column of the file says. */
export const untoldIn = ({ columns, currencyInPrice }: Mapping) =>
  REQUIRED_COLUMNS.filter(
    (c) => !Object.values(columns).includes(c) && !(c === 'currency' && currencyInPrice),
  );

const CHOICES: Partial<Record<ComparableColumn, readonly string[]>> = {
  price_kind: PRICE_KINDS,
  venue_kind: VENUE_KINDS,
  grade_scale: Object.keys(GRADE_WORDS),
};

export function ImportColumns({
  look,
  mapping,
  onChange,
}: {
  look: FileLook;
  mapping: Mapping;
  onChange: (mapping: Mapping) => void;
}) {
  const fixable: ComparableColumn[] = [
    ...untoldIn(mapping),
    ...(untoldGrades(mapping) ? (['grade_scale'] as const) : []),
  ];
  return (
    <ColumnTable
      look={look}
      mapping={mapping}
      columns={COMPARABLE_COLUMNS}
      inWords={columnInWords}
      onChange={onChange}
    >
      {fixable.map((column) => (
        <EveryRow
          key={column}
          column={column}
          value={mapping.fixed[column] ?? ''}
          onChange={(value) => {
            const { [column]: _, ...fixed } = mapping.fixed;
            onChange({ ...mapping, fixed: value === '' ? fixed : { ...fixed, [column]: value } });
          }}
        />
      ))}
      {mapping.currencyInPrice && (
        <Select
          label="Currency"
          value="price"
          options={[
            { value: 'price', label: 'as beside the price' },
            { value: 'every', label: 'of every row' },
          ]}
          onChange={() => onChange({ ...mapping, currencyInPrice: false })}
        />
      )}
    </ColumnTable>
  );
}

/** What no column says is said once for all rows. */
function EveryRow({
  column,
  value,
  onChange,
}: {
  column: ComparableColumn;
  value: string;
  onChange: (value: string) => void;
}) {
  const choices = CHOICES[column];
  const label = `${sentence(columnInWords(column))} of every row`;
  if (choices === undefined) return <TextInput label={label} value={value} onChange={onChange} />;
  return (
    <Select
      label={label}
      value={value}
      none="not told"
      options={optionsOf(choices, inWords)}
      onChange={(choice) => onChange(choice ?? '')}
    />
  );
}
