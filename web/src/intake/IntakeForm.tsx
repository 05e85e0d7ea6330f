/** The fields of intake, used for a new piece and on the sheet. */
import { MenuItem, TextField } from '@mui/material';
import { SOURCE_OF_PIECE } from '@jutbank/core/pieces';
import { AS_FOUND, type IntakeBody } from '@jutbank/contract/pieces';
import { CONSTRUCTIONS } from '@jutbank/core/reference';
import { CONSTRUCTION_WORDS, sentence } from '../parts/words.ts';
import { DateField } from '../parts/DateField.tsx';
import { MoneyField } from '../parts/MoneyField.tsx';

interface Props {
  readonly value: IntakeBody;
  readonly currency: string;
  readonly disabled?: boolean;
  /** the server's word on a field */
  readonly problemAt: (pointer: string) => string | undefined;
  readonly onChange: (next: IntakeBody) => void;
}

export function IntakeForm({ value, currency, disabled = false, problemAt, onChange }: Props) {
  const set = <K extends keyof IntakeBody>(key: K, next: IntakeBody[K]) =>
    onChange({ ...value, [key]: next });
  const text = (
    key: 'title' | 'sourceName' | 'sourcePlace' | 'sellerStatement' | 'cameWith',
    label: string,
    more: object = {},
  ) => (
    <TextField
      label={label}
      value={value[key]}
      disabled={disabled}
      error={!!problemAt(`/${key}`)}
      helperText={problemAt(`/${key}`)}
      onChange={(e) => set(key, e.target.value)}
      {...more}
    />
  );
  return (
    <div style={{ display: 'grid', gap: 14 }}>
      {text('title', 'Working name', { required: true })}
      <div style={{ display: 'grid', gridTemplateColumns: 'repeat(auto-fit, minmax(170px, 1fr))', gap: 14 }}>
        <TextField
          select
          label="Construction"
          value={value.construction}
          disabled={disabled}
          onChange={(e) => set('construction', e.target.value as IntakeBody['construction'])}
        >
          {CONSTRUCTIONS.map((c) => (
            <MenuItem key={c} value={c}>
              {CONSTRUCTION_WORDS[c]}
            </MenuItem>
          ))}
        </TextField>
        <TextField
          select
          label="State it came in"
          value={value.asFound ?? ''}
          disabled={disabled}
          onChange={(e) => set('asFound', (e.target.value || null) as IntakeBody['asFound'])}
        >
          <MenuItem value="">Not recorded</MenuItem>
          {AS_FOUND.map((a) => (
            <MenuItem key={a} value={a}>
              {sentence(a)}
            </MenuItem>
          ))}
        </TextField>
      </div>
      <div style={{ display: 'grid', gridTemplateColumns: 'repeat(auto-fit, minmax(170px, 1fr))', gap: 14 }}>
        <TextField
          select
          label="Where from"
          value={value.sourceKind ?? ''}
          disabled={disabled}
          onChange={(e) => set('sourceKind', (e.target.value || null) as IntakeBody['sourceKind'])}
        >
          <MenuItem value="">Not recorded</MenuItem>
          {SOURCE_OF_PIECE.map((s) => (
            <MenuItem key={s} value={s}>
              {sentence(s)}
            </MenuItem>
          ))}
        </TextField>
        {text('sourceName', 'From whom')}
        {text('sourcePlace', 'Place')}
      </div>
      <div style={{ display: 'grid', gridTemplateColumns: 'repeat(auto-fit, minmax(170px, 1fr))', gap: 14 }}>
        <DateField
          label="When"
          value={value.acquired}
          disabled={disabled}
          problem={problemAt('/acquired')}
          onChange={(acquired) => set('acquired', acquired)}
        />
        <MoneyField
          label="Price paid"
          value={value.price}
          currency={currency}
          disabled={disabled}
          problem={problemAt('/price')}
          onChange={(price) => set('price', price)}
        />
      </div>
      {text('sellerStatement', 'What the seller said (kept as hearsay)', { multiline: true, minRows: 2 })}
      {text('cameWith', 'What came with it', { multiline: true, minRows: 1 })}
    </div>
  );
}
