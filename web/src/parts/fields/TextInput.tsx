/** A line of text, several lines, or a list of which each line is one thing. */
import { InputAdornment, OutlinedInput } from '@mui/material';
import { useState, type ReactNode, type Ref } from 'react';
import { Field, framing, type FieldProps } from './Field.tsx';

export interface TextInputProps extends FieldProps {
  readonly value: string | null | undefined;
  readonly onChange: (text: string) => void;
  readonly onBlur?: () => void;
  /** what is pasted: true where it was taken for something else than text of this field */
  readonly onPaste?: (text: string) => boolean;
  /** marks, codes and measures are set in the monospaced type */
  readonly mono?: boolean;
  /** several lines, this many at first */
  readonly rows?: number;
  readonly maxRows?: number;
  /** stands at its end: a unit, a currency */
  readonly unit?: ReactNode;
  readonly placeholder?: string | undefined;
  readonly readOnly?: boolean;
  readonly required?: boolean;
  readonly type?: 'text' | 'email' | 'password' | 'search';
  readonly inputMode?: 'decimal' | 'numeric';
  readonly autoComplete?: string;
  readonly autoFocus?: boolean;
  readonly maxLength?: number;
  readonly inputRef?: Ref<HTMLInputElement>;
}

export function TextInput({ value, onChange, onBlur, onPaste, mono = false, rows, ...more }: TextInputProps) {
  const { maxRows, placeholder, readOnly, required, type, inputMode, autoComplete, autoFocus } = more;
  return (
    <Field {...framing(more)}>
      {({ id, describedBy, invalid }) => (
        <OutlinedInput
          id={id}
          fullWidth
          endAdornment={
            more.unit === undefined ? undefined : <InputAdornment position="end">{more.unit}</InputAdornment>
          }
          value={value ?? ''}
          error={invalid}
          multiline={rows !== undefined}
          {...(rows === undefined ? {} : { minRows: rows })}
          {...(maxRows === undefined ? {} : { maxRows })}
          {...(more.inputRef === undefined ? {} : { inputRef: more.inputRef })}
          {...(onBlur === undefined ? {} : { onBlur })}
          disabled={more.disabled ?? false}
          readOnly={readOnly ?? false}
          required={required ?? false}
          placeholder={placeholder ?? ''}
          type={type ?? 'text'}
          autoComplete={autoComplete ?? 'off'}
          autoFocus={autoFocus ?? false}
          inputProps={{
            'aria-describedby': describedBy,
            inputMode,
            maxLength: more.maxLength,
            className: inputMode ? 'num' : mono ? 'mono' : undefined,
          }}
          onChange={(e) => onChange(e.target.value)}
          onPaste={(e) => {
            if (onPaste?.(e.clipboardData.getData('text'))) e.preventDefault();
          }}
        />
      )}
    </Field>
  );
}

/** Lines of text, one thing to a line; nothing written is undefined. */
export function LinesInput({
  value,
  onChange,
  rows = 3,
  ...more
}: FieldProps & {
  value: readonly string[] | null | undefined;
  onChange: (lines: string[] | undefined) => void;
  mono?: boolean;
  rows?: number;
  /** beyond so many the field scrolls */
  maxRows?: number;
}) {
  const [typed, setTyped] = useState((value ?? []).join('\n'));
  return (
    <TextInput
      {...more}
      rows={rows}
      value={typed}
      onChange={(text) => {
        setTyped(text);
        const lines = text.split('\n').map((line) => line.trim());
        while (lines.at(-1) === '') lines.pop();
        onChange(lines.length === 0 ? undefined : lines);
      }}
    />
  );
}
