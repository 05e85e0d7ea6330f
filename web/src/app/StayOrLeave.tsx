import { Button, Dialog, DialogActions, DialogContent, DialogTitle } from '@mui/material';
import { useId } from 'react';

export default function StayOrLeave({ onStay, onLeave }: { onStay: () => void; onLeave: () => void }) {
  const heading = useId();
  return (
    <Dialog open onClose={onStay} aria-labelledby={heading}>
      <DialogTitle id={heading}>Something here is not kept yet</DialogTitle>
      <DialogContent>
        <p style={{ margin: 0 }}>What was typed on this page goes away with it.</p>
      </DialogContent>
      <DialogActions>
        <Button variant="text" className="quiet" onClick={onLeave}>
          Leave without it
        </Button>
        <Button variant="contained" autoFocus onClick={onStay}>
          Stay here
        </Button>
      </DialogActions>
    </Dialog>
  );
}
