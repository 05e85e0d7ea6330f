/** An amount in a currency. */
import { TextField } from '@mui/material';
import { useState } from 'react';
import type { IntakeBody } from '@jutbank/contract/pieces';
import { parseAmount } from '@jutbank/core/money';

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
