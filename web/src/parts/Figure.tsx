/** A number with its unit. What is typed stays as typed; what is no number is sent as it stands, and told beside it. */
import { useState } from 'react';
import { Field } from './Field.tsx';

export function Figure({
  label,
  unit,
  value,
  as,
  problem,
  disabled = false,
  onChange,
}: {
  label: string;
  unit: string;
  value: unknown;
  /** a number, or an amount of money, which is text and never a float */
  as: 'number' | 'amount';
  problem?: string | undefined;
  disabled?: boolean;
  onChange: (value: number | string | null) => void;
}) {
  const [typed, setTyped] = useState(
    typeof value === 'number' || typeof value === 'string' ? String(value) : '',
  );
  return (
    <Field label={label} problem={problem}>
      {(id) => (
        <span className="figure">
          <input
            id={id}
            className="line num"
            inputMode="decimal"
            value={typed}
            disabled={disabled}
            aria-invalid={problem !== undefined}
            onChange={(e) => {
              setTyped(e.target.value);
              onChange(readFigure(e.target.value, as));
            }}
          />
          <span className="soft">{unit}</span>
        </span>
      )}
    </Field>
  );
}

/** `2,5` is 2.5; nothing is null; what cannot be read stays text. */
export function readFigure(typed: string, as: 'number' | 'amount'): number | string | null {
  const text = typed.trim().replace(',', '.');
  if (text === '') return null;
  return as === 'number' && Number.isFinite(Number(text)) ? Number(text) : text;
}
