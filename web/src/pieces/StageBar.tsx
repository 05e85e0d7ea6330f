/** The line above a stage: its title, whether it is saved, undo, and the notice when two people meet. */
import { Button } from '@mui/material';
import type { ReactNode } from 'react';
import type { StageState } from './usePiece.ts';

const WORDS = { saved: 'Saved', waiting: '…', saving: 'Saving', failed: 'Not saved' } as const;

export function StageBar<T>({
  title,
  aside,
  state,
}: {
  title: string;
  aside?: ReactNode;
  state: StageState<T>;
}) {
  return (
    <>
      <h2 className="sec">
        <span>{title}</span>
        <span style={{ display: 'flex', gap: 10, alignItems: 'baseline' }}>
          {aside}
          <Button variant="text" className="quiet soft" onClick={state.undo} disabled={!state.canUndo}>
            Undo
          </Button>
          <small className={state.saving === 'failed' ? 'saved warn' : 'saved'} role="status">
            {WORDS[state.saving]}
          </small>
        </span>
      </h2>
      <Conflict state={state} />
    </>
  );
}

export function Conflict<T>({ state }: { state: StageState<T> }) {
  if (state.conflict)
    return (
      <div className="note bad" role="alert" style={{ marginBottom: 10 }}>
        <b>Somebody changed this piece meanwhile.</b> What you entered is still here and nothing of theirs was
        overwritten.
        <div style={{ display: 'flex', gap: 8, marginTop: 8 }}>
          <Button onClick={state.conflict.keepMine}>Keep mine for this stage</Button>
          <Button onClick={state.conflict.takeTheirs}>Take theirs</Button>
        </div>
      </div>
    );
  if (state.problem && state.problem.errors.length === 0)
    return (
      <div className="note bad" role="alert" style={{ marginBottom: 10 }}>
        <b>{state.problem.title}</b>
        {state.problem.detail}
      </div>
    );
  return null;
}
