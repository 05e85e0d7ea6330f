/** What a screen shows when there is nothing to show yet: loading, empty, failed, forbidden. */
import { Button } from '@mui/material';
import type { ReactNode } from 'react';
import { ApiProblem } from './api.ts';

export function Loading() {
  return (
    <div role="status" aria-live="polite">
      <div className="busy" />
      <span className="visually-hidden">Loading</span>
    </div>
  );
}

export function Empty({ title, children }: { title: string; children?: ReactNode }) {
  return (
    <div className="state">
      <h2>{title}</h2>
      {children}
    </div>
  );
}

export function Failed({ error, retry }: { error: unknown; retry?: () => void }) {
  const problem = error instanceof ApiProblem ? error : undefined;
  return (
    <div className="state" role="alert">
      <h2>{problem?.title ?? 'This screen failed'}</h2>
      <p className="soft">{problem?.detail ?? 'Nothing you recorded is lost.'}</p>
      {retry && (
        <p>
          <Button onClick={retry} sx={{ mt: 1.5 }}>
            Try again
          </Button>
        </p>
      )}
    </div>
  );
}
