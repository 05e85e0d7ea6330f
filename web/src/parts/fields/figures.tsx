/** Fields of quantities: a number with its unit, an amount of money, a size in any notation, a date as people say it. */
import { InputAdornment, OutlinedInput } from '@mui/material';
import { useState, type ReactNode } from 'react';
import { parseSpokenDate, periodInWords, periodOf } from '@jutbank/core/dates';
import type { Money } from '@jutbank/core/money';
import { parseQuantity, type Dimension } from '@jutbank/core/units';
import { Field, framing, type FieldProps } from './Field.tsx';
import { decimal, readMoney, readNumber } from './typed.ts';

/** What is typed stays as typed; only what could be read goes on. */
function Typed({
  typed,
  onType,
  unit,
  mono = true,
  placeholder,
  autoFocus = false,
  ...more
}: FieldProps & {
  typed: string;
  onType: (text: string) => void;
  unit?: ReactNode;
  mono?: boolean;
  placeholder?: string | undefined;
  autoFocus?: boolean;
}) {
  return (
    <Field {...framing(more)}>
      {({ id, describedBy, invalid }) => (
        <OutlinedInput
          id={id}
          fullWidth
          value={typed}
          error={invalid}
          disabled={more.disabled ?? false}
          autoFocus={autoFocus}
          placeholder={placeholder ?? ''}
          endAdornment={
            unit === undefined ? undefined : <InputAdornment position="end">{unit}</InputAdornment>
          }
          inputProps={{
            'aria-describedby': describedBy,
            autoComplete: 'off',
            inputMode: mono ? 'decimal' : undefined,
            className: mono ? 'num' : undefined,
          }}
          onChange={(e) => onType(e.target.value)}
        />
      )}
    </Field>
  );
}

/**
 * A number with its unit.
 * @param onChange hears null for nothing, and that what was typed is no number: whoever saves must not take it for nothing
 */
export function NumberInput({
  value,
  onChange,
  ...more
}: FieldProps & {
  value: number | null | undefined;
  unit?: string;
  onChange: (value: number | null, understood: boolean) => void;
}) {
  const [typed, setTyped] = useState(value == null ? '' : String(value));
  const wrong = readNumber(typed) === undefined ? `“${typed}” is not a number` : undefined;
  return (
    <Typed
      {...more}
      problem={wrong ?? more.problem}
      typed={typed}
      onType={(text) => {
        setTyped(text);
        const read = readNumber(text);
        onChange(read ?? null, read !== undefined);
      }}
    />
  );
}

/** An amount in a currency that is given: text from here to the database, never a float; the server reads it. */
export function AmountInput({
  value,
  currency,
  onChange,
  ...more
}: FieldProps & {
  value: string | null | undefined;
  currency: string;
  onChange: (amount: string | null) => void;
}) {
  const [typed, setTyped] = useState(value ?? '');
  return (
    <Typed
      {...more}
      unit={currency}
      typed={typed}
      onType={(text) => {
        setTyped(text);
        onChange(text.trim() === '' ? null : decimal(text));
      }}
    />
  );
}

/**
 * An amount in the shop's currency or another one.
 * @param onChange hears that what was typed could not be read: whoever saves must not take it for nothing, or for before
 */
export function MoneyInput({
  value,
  currency,
  onChange,
  ...more
}: FieldProps & {
  value: Money | null;
  currency: string;
  onChange: (money: Money | null, understood: boolean) => void;
}) {
  const [typed, setTyped] = useState(
    value ? `${value.amount}${value.currency === currency ? '' : ` ${value.currency}`}` : '',
  );
  const read = readMoney(typed, currency);
  return (
    <Typed
      {...more}
      problem={read && 'wrong' in read ? read.wrong : more.problem}
      why={more.why ?? `In ${currency} unless you add another, such as 58 GBP`}
      typed={typed}
      onType={(text) => {
        setTyped(text);
        const next = readMoney(text, currency);
        onChange(next && 'money' in next ? next.money : null, next === undefined || 'money' in next);
      }}
    />
  );
}

/** A size in any notation, kept in mm, g or degrees. */
export function SizeInput({
  value,
  dimension,
  onChange,
  ...more
}: FieldProps & {
  value: number | null | undefined;
  dimension: Dimension;
  onChange: (n: number | undefined) => void;
}) {
  const [typed, setTyped] = useState(value == null ? '' : String(value));
  const parsed = typed.trim() === '' ? undefined : parseQuantity(typed, dimension);
  return (
    <Typed
      {...more}
      problem={parsed && !parsed.ok ? parsed.error.message : more.problem}
      typed={typed}
      onType={(text) => {
        setTyped(text);
        const next = text.trim() === '' ? undefined : parseQuantity(text, dimension);
        onChange(next?.ok ? next.value.value : undefined);
      }}
    />
  );
}

/**
 * A date or period as people say it, echoed as understood.
 * @param onChange hears its EDTF, null for nothing, and what was typed where that could not be understood
 */
export function DateInput({
  value,
  onChange,
  ...more
}: FieldProps & {
  value: string | null | undefined;
  placeholder?: string;
  autoFocus?: boolean;
  onChange: (edtf: string | null, understood: boolean) => void;
}) {
  const [typed, setTyped] = useState(value ?? '');
  const parsed = typed.trim() === '' ? undefined : parseSpokenDate(typed);
  return (
    <Typed
      {...more}
      mono={false}
      problem={parsed && !parsed.ok ? parsed.error.message : more.problem}
      why={parsed?.ok ? `Understood as ${periodInWords(periodOf(parsed.value.edtf))}` : more.why}
      typed={typed}
      onType={(text) => {
        setTyped(text);
        const next = text.trim() === '' ? undefined : parseSpokenDate(text);
        if (next === undefined) onChange(null, true);
        else if (next.ok) onChange(next.value.edtf, true);
        else onChange(text, false);
      }}
    />
  );
}
