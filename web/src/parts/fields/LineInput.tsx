/** A field without a label of its own beside other things of a row: what it is for is told to who does not see the row. */
import { InputBase } from '@mui/material';
import type { CSSProperties, KeyboardEvent, Ref } from 'react';

export interface LineInputProps {
  readonly label: string;
  readonly value: string;
  readonly onChange: (text: string) => void;
  readonly onBlur?: () => void;
  readonly onKeyDown?: (event: KeyboardEvent) => void;
  /** an example, or what belongs there */
  readonly hint?: string | undefined;
  readonly invalid?: boolean;
  readonly autoFocus?: boolean;
  readonly inputMode?: 'decimal' | 'numeric' | 'text';
  readonly maxLength?: number;
  readonly style?: CSSProperties;
  readonly inputRef?: Ref<HTMLInputElement>;
}

export function LineInput({ label, value, onChange, hint, invalid = false, ...more }: LineInputProps) {
  const { onBlur, onKeyDown, inputRef, style } = more;
  return (
    <InputBase
      className="line"
      value={value}
      error={invalid}
      autoFocus={more.autoFocus ?? false}
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
