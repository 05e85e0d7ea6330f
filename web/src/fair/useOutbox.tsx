/** The outbox in hand: what waits is sent when there is a connection, and what became of it is told. */
import { Button } from '@mui/material';
import { useMutation } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { fairRoutes, type FairNote } from '@jutbank/contract/fair';
import { useKeptAnswers } from '../base/answers.ts';
import { keep, photographs, sendWaiting, waiting } from './outbox.ts';

export interface OutboxState {
  readonly count: number;
  readonly told: string | undefined;
  /** @param picture of what lies on the table */
  add(note: FairNote, picture: Blob | undefined): void;
  send(): void;
}
export function useOutbox(): OutboxState {
  const [count, setCount] = useState(() => waiting(localStorage).length);
  const [told, setTold] = useState<string>();
  const answers = useKeptAnswers();
  const send = useMutation({
    mutationFn: () => sendWaiting(localStorage),
    // one run after another: two at once would send the same note twice, and the second would be told it is known
    scope: { id: 'fair-outbox' },
    networkMode: 'always',
    onSuccess: ({ sent, refused }) => {
      setCount(waiting(localStorage).length);
      if (sent > 0) void answers.invalidate(fairRoutes.fairNotes);
      if (refused[0]) setTold(`“${refused[0].note.title}” was not taken: ${refused[0].why}`);
      else if (sent > 0) setTold(sent === 1 ? 'Kept.' : `${sent} notes sent.`);
    },
  });
  const { mutate } = send;
  useEffect(() => {
    const go = () => mutate();
    if (waiting(localStorage).length > 0) go();
    addEventListener('online', go);
    return () => removeEventListener('online', go);
  }, [mutate]);
  return {
    count,
    told,
    add: (note, picture) => {
      const first = picture ? photographs().set(note.key, picture) : Promise.resolve();
      void first.then(() => {
        keep(localStorage, note);
        setCount(waiting(localStorage).length);
        setTold(undefined);
        mutate();
      });
    },
    send: () => mutate(),
  };
}

export function Outbox({ state }: { state: OutboxState }) {
  if (state.count > 0)
    return (
      <p className="note" role="status">
        {state.count === 1 ? 'One note waits' : `${state.count} notes wait`} for a connection.{' '}
        <Button variant="text" className="quiet" onClick={() => state.send()}>
          Send now
        </Button>
      </p>
    );
  return state.told === undefined ? null : (
    <p className="note good" role="status">
      {state.told}
    </p>
  );
}
