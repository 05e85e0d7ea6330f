/** A field in a cell of a table: kept when it is left or Enter is pressed, named for those who do not see its row. */
import { InputBase } from '@mui/material';
import { useState } from 'react';

export function CellInput({
  label,
  value,
  onKeep,
  onType,
  hint,
  disabled = false,
  readOnly = false,
  problem,
  text = false,
  maxLength,
  size,
}: {
  label: string;
  value: string;
  /** what stands there when it is left, if that is something else than before */
  onKeep?: (text: string) => void;
  /** at every stroke, where the rest of the screen follows */
  onType?: (text: string) => void;
  hint?: string | undefined;
  disabled?: boolean;
  readOnly?: boolean;
  problem?: string | undefined;
  /** words, not figures */
  text?: boolean;
  maxLength?: number;
  size?: number;
}) {
  // what is being typed leads; what is stored shows again when the field is left
  const [typed, setTyped] = useState<string>();
  return (
    <InputBase
      className={text || size !== undefined ? 'cell' : 'cell figure'}
      fullWidth={text}
      value={typed ?? value}
      error={problem !== undefined}
      disabled={disabled}
      readOnly={readOnly}
      placeholder={hint ?? ''}
      inputProps={{
        'aria-label': label,
        'aria-invalid': problem !== undefined,
        title: problem,
        className: text ? undefined : 'num',
        inputMode: text ? undefined : 'decimal',
        maxLength,
        size,
      }}
      onChange={(e) => {
        setTyped(e.target.value);
        onType?.(e.target.value);
      }}
      onBlur={() => {
        if (typed !== undefined && typed.trim() !== value) onKeep?.(typed.trim());
        if (problem === undefined) setTyped(undefined);
      }}
      onKeyDown={(e) => {
        if (e.key === 'Enter' && e.target instanceof HTMLElement) e.target.blur();
      }}
    />
  );
}
