/** An act that wants a few words: its button opens the form beneath, which closes again when it is done. */
import { Button } from '@mui/material';
import { useId, useState, type ReactNode } from 'react';
import './opening.css';

export function Opening({
  words,
  strong = false,
  children,
}: {
  words: ReactNode;
  strong?: boolean;
  /** @param close to be called when it is done */
  children: (close: () => void) => ReactNode;
}) {
  const [open, setOpen] = useState(false);
  const id = useId();
  return (
    <div className="opening">
      <Button
        variant={strong && !open ? 'contained' : 'outlined'}
        aria-expanded={open}
        aria-controls={id}
        onClick={() => setOpen(!open)}
      >
        {open ? 'Not now' : words}
      </Button>
      <div id={id}>{open && children(() => setOpen(false))}</div>
    </div>
  );
}
