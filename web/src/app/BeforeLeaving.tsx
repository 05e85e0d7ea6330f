/** Asks before a page is left on which something was typed that is not kept yet; the browser asks when its window is closed. */
import { Button, Dialog, DialogActions, DialogContent, DialogTitle } from '@mui/material';
import { useEffect, useId } from 'react';
import { useBlocker } from 'react-router';
import { somethingUnsaved } from '../base/unsaved.ts';

export function BeforeLeaving() {
  const blocker = useBlocker(
    ({ currentLocation, nextLocation }) =>
      currentLocation.pathname !== nextLocation.pathname && somethingUnsaved(),
  );
  useEffect(() => {
    const close = (event: BeforeUnloadEvent) => {
      if (somethingUnsaved()) event.preventDefault();
    };
    addEventListener('beforeunload', close);
    return () => removeEventListener('beforeunload', close);
  }, []);
  const heading = useId();
  if (blocker.state !== 'blocked') return null;
  return (
    <Dialog open onClose={() => blocker.reset()} aria-labelledby={heading}>
      <DialogTitle id={heading}>Something here is not kept yet</DialogTitle>
      <DialogContent>
        <p style={{ margin: 0 }}>What was typed on this page goes away with it.</p>
      </DialogContent>
      <DialogActions>
        <Button variant="text" className="quiet" onClick={() => blocker.proceed()}>
          Leave without it
        </Button>
        <Button variant="contained" autoFocus onClick={() => blocker.reset()}>
          Stay here
        </Button>
      </DialogActions>
    </Dialog>
  );
}
