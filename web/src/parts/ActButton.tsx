/** The act that a screen is for: its button, and one key that does it wherever one is, fields included. */
import { Button, type ButtonProps } from '@mui/material';
import { useMemo, type ReactNode } from 'react';
import { useShortcuts } from '../base/shortcuts.ts';

export interface ActButtonProps extends Omit<ButtonProps, 'onClick' | 'children'> {
  /** what it does, as the list of keys tells it */
  readonly does: string;
  readonly children?: ReactNode;
  readonly onAct: () => void;
}
export function ActButton({ does, children = does, onAct, disabled = false, ...button }: ActButtonProps) {
  const keys = useMemo(
    () => (disabled ? [] : [{ key: 'mod+Enter', does, run: onAct }]),
    [disabled, does, onAct],
  );
  useShortcuts('What this screen is for', keys);
  return (
    <Button variant="contained" {...button} disabled={disabled} onClick={onAct}>
      {children}
      <kbd className="act-key" aria-hidden>
        Ctrl ⏎
      </kbd>
    </Button>
  );
}
