/**
 * Fields of quantities: a number with its unit, an amount of money, a size in any notation, a date as people say it.
 * What is typed stays as typed; only what could be read goes on.
 */
import { use, useState, type Ref } from 'react';
import { isoOf, parseSpokenDate, periodInWords, periodOf } from '@jutbank/core/dates';
import type { Money } from '@jutbank/core/money';
import { parseQuantity, roundSize, type Dimension } from '@jutbank/core/units';
import { dayText, today } from '../words.ts';
import { SessionContext } from '../../base/session.ts';
import type { FieldProps } from './Field.tsx';
import { TextInput } from './TextInput.tsx';
import { decimal, readMoney, readNumber } from './typed.ts';

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
    <TextInput
      {...more}
      inputMode="decimal"
      problem={wrong ?? more.problem}
      value={typed}
      onChange={(text) => {
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
    <TextInput
      {...more}
      inputMode="decimal"
      unit={currency}
      value={typed}
      onChange={(text) => {
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
  autoFocus?: boolean;
  inputRef?: Ref<HTMLInputElement>;
  onChange: (money: Money | null, understood: boolean) => void;
}) {
  const [typed, setTyped] = useState(
    value ? `${value.amount}${value.currency === currency ? '' : ` ${value.currency}`}` : '',
  );
  const read = readMoney(typed, currency);
  return (
    <TextInput
      {...more}
      inputMode="decimal"
      problem={read && 'wrong' in read ? read.wrong : more.problem}
      why={more.why ?? `In ${currency} unless you add another, such as 58 GBP`}
      value={typed}
      onChange={(text) => {
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
    <TextInput
      {...more}
      inputMode="decimal"
      problem={parsed && !parsed.ok ? parsed.error.message : more.problem}
      value={typed}
      onChange={(text) => {
        setTyped(text);
        const next = text.trim() === '' ? undefined : parseQuantity(text, dimension);
        onChange(next?.ok ? roundSize(next.value.value) : undefined);
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
  onChange: (edtf: string | null, understood: boolean) => void;
}) {
  // a day stands as every day does; what says more keeps its own notation, which tells it whole
  const [typed, setTyped] = useState(value != null && ISO_DAY.test(value) ? dayText(value) : (value ?? ''));
  const understood = useSpoken();
  const parsed = understood(typed);
  return (
    <TextInput
      {...more}
      problem={parsed && !parsed.ok ? parsed.error.message : more.problem}
      why={parsed?.ok ? `Understood as ${periodInWords(periodOf(parsed.value.edtf))}` : more.why}
      value={typed}
      onChange={(text) => {
        setTyped(text);
        const next = understood(text);
        if (next === undefined) onChange(null, true);
        else if (next.ok) onChange(next.value.edtf, true);
        else onChange(text, false);
      }}
    />
  );
}

const ISO_DAY = /^\d{4}-\d{2}-\d{2}$/;

/** Reads dates as this shop writes them; of nothing typed, nothing. */
function useSpoken(): (text: string) => ReturnType<typeof parseSpokenDate> | undefined {
  const dayFirst = use(SessionContext)?.shop.dayFirst ?? true;
  return (text) => (text.trim() === '' ? undefined : parseSpokenDate(text, { today: today(), dayFirst }));
}

/**
 * One day, as people say it: “yesterday”, “12 Sep”, “12/09/2026” by the shop's order.
 * @param edge which day is meant where a longer time is said; without it only a day is understood
 * @param onChange hears it as an ISO day, nothing typed as '', and what was typed where no day could be read
 */
export function DayInput({
  value,
  edge,
  onChange,
  ...more
}: FieldProps & {
  value: string | undefined;
  edge?: 'first' | 'last';
  onChange: (day: string, understood: boolean) => void;
}) {
  const [typed, setTyped] = useState(value === undefined || value === '' ? '' : dayText(value));
  const understood = useSpoken();
  const read = (text: string): { readonly day: string } | { readonly problem: string } => {
    const period = understood(text);
    if (period === undefined) return { day: '' };
    if (!period.ok) return { problem: period.error.message };
    const { start, end } = period.value;
    const [first, last] = [start.earliest, end.latest];
    if (first === last || (edge === 'first' && Number.isFinite(first))) return { day: isoOf(first) };
    if (edge === 'last' && Number.isFinite(last)) return { day: isoOf(last) };
    return { problem: `Which day? ${periodInWords(period.value)} is longer than one.` };
  };
  const told = read(typed);
  const day = 'day' in told ? told.day : '';
  return (
    <TextInput
      {...more}
      problem={'problem' in told ? told.problem : more.problem}
      why={day !== '' && dayText(day) !== typed.trim() ? `Understood as ${dayText(day)}` : more.why}
      value={typed}
      onChange={(text) => {
        setTyped(text);
        const next = read(text);
        if ('day' in next) onChange(next.day, true);
        else onChange(text, false);
      }}
    />
  );
}
