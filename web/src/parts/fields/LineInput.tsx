/** A field without a label of its own beside other things of a row: what it is for is told to who does not see the row. */
import { InputBase } from '@mui/material';
import type { CSSProperties, KeyboardEvent, Ref } from 'react';

export interface LineInputProps {
  readonly label: string;
  readonly id?: string;
  readonly value: string;
  readonly onChange: (text: string) => void;
  readonly onBlur?: () => void;
  readonly onKeyDown?: (event: KeyboardEvent) => void;
  /** an example, or what belongs there */
  readonly hint?: string | undefined;
  readonly invalid?: boolean;
  readonly autoFocus?: boolean;
  readonly disabled?: boolean;
  readonly readOnly?: boolean;
  readonly inputMode?: 'decimal' | 'numeric' | 'text';
  readonly type?: 'text' | 'date' | 'time' | 'search';
  readonly maxLength?: number;
  readonly style?: CSSProperties;
  readonly inputRef?: Ref<HTMLInputElement>;
}

export function LineInput({ label, value, onChange, hint, invalid = false, ...more }: LineInputProps) {
  const { onBlur, onKeyDown, inputRef, style } = more;
  return (
    <InputBase
      className="line"
      {...(more.id === undefined ? {} : { id: more.id })}
      value={value}
      error={invalid}
      autoFocus={more.autoFocus ?? false}
      disabled={more.disabled ?? false}
      readOnly={more.readOnly ?? false}
      type={more.type ?? 'text'}
      placeholder={hint ?? ''}
      {...(style === undefined ? {} : { style })}
      {...(inputRef === undefined ? {} : { inputRef })}
      inputProps={{
        'aria-label': label,
        'aria-invalid': invalid,
        autoComplete: 'off',
        inputMode: more.inputMode,
        maxLength: more.maxLength,
      }}
      onChange={(e) => onChange(e.target.value)}
      {...(onBlur === undefined ? {} : { onBlur })}
      {...(onKeyDown === undefined ? {} : { onKeyDown })}
    />
  );
}
