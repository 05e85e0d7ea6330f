/** A date as people write it, with what was understood beneath it. */
import { TextField } from '@mui/material';
import { useState } from 'react';
import { parseSpokenDate, periodInWords, periodOf } from '@jutbank/core/dates';

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
