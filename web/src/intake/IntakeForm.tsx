/** The fields of intake, used for a new piece and on the sheet. */
import { MenuItem, TextField } from '@mui/material';
import { useState } from 'react';
import { AS_FOUND, SOURCE_OF_PIECE, type IntakeBody } from '@jutbank/contract/intake';
import { parseSpokenDate, periodInWords, periodOf } from '@jutbank/core/dates';
import { parseAmount } from '@jutbank/core/money';
import { CONSTRUCTIONS } from '@jutbank/core/reference';
import { CONSTRUCTION_WORDS, sentence } from '../parts/words.ts';

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

/** A date as people say it, echoed as understood. What cannot be understood stays in the field and is not saved. */
export function DateField({
  label,
  value,
  disabled,
  problem,
  onChange,
}: {
  label: string;
  value: string | null;
  disabled?: boolean;
  problem?: string | undefined;
  onChange: (edtf: string | null) => void;
}) {
  const [typed, setTyped] = useState(value ?? '');
  const parsed = typed.trim() === '' ? undefined : parseSpokenDate(typed);
  const wrong = parsed && !parsed.ok ? parsed.error.message : problem;
  const echo = parsed?.ok
    ? `Understood as ${periodInWords(periodOf(parsed.value.edtf))}`
    : 'As you would say it: about 1935, April 2026';
  return (
    <TextField
      label={label}
      value={typed}
      disabled={disabled ?? false}
      error={wrong !== undefined}
      helperText={wrong ?? echo}
      onChange={(e) => {
        setTyped(e.target.value);
        const next = e.target.value.trim() === '' ? undefined : parseSpokenDate(e.target.value);
        if (next === undefined) onChange(null);
        else if (next.ok) onChange(next.value.edtf);
      }}
    />
  );
}

/** An amount and its currency: `58`, `58.00 GBP`. What cannot be read stays in the field and is not saved. */
export function MoneyField({
  label,
  value,
  currency,
  disabled,
  problem,
  onChange,
}: {
  label: string;
  value: IntakeBody['price'];
  currency: string;
  disabled?: boolean;
  problem?: string | undefined;
  onChange: (money: IntakeBody['price']) => void;
}) {
  const [typed, setTyped] = useState(
    value ? `${value.amount}${value.currency === currency ? '' : ` ${value.currency}`}` : '',
  );
  const read = (text: string) => {
    const match = /^\s*([\d.,]+)\s*([A-Za-z]{3})?\s*$/.exec(text);
    if (!match?.[1]) return undefined;
    try {
      const parsed = parseAmount(match[1].replace(',', '.'), (match[2] ?? currency).toUpperCase(), '');
      return parsed.ok ? { money: parsed.value } : { wrong: parsed.error.message };
    } catch {
      return { wrong: `“${match[2] ?? ''}” is not a currency` };
    }
  };
  const result =
    typed.trim() === '' ? undefined : (read(typed) ?? { wrong: 'Write an amount like 58.00 or 58 GBP' });
  const wrong = result && 'wrong' in result ? result.wrong : problem;
  return (
    <TextField
      label={label}
      value={typed}
      disabled={disabled ?? false}
      error={wrong !== undefined}
      helperText={wrong ?? `In ${currency} unless you add another, such as 58 GBP`}
      slotProps={{ htmlInput: { inputMode: 'decimal', className: 'num' } }}
      onChange={(e) => {
        setTyped(e.target.value);
        const next = e.target.value.trim() === '' ? undefined : read(e.target.value);
        if (e.target.value.trim() === '') onChange(null);
        else if (next && 'money' in next && next.money) onChange(next.money);
      }}
    />
  );
}
