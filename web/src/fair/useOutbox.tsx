/** The outbox in hand: what waits is sent when there is a connection, and what became of it is told. */
import { Button } from '@mui/material';
import { useMutation } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { fairRoutes, type FairNote } from '@jutbank/contract/fair';
import { useKeptAnswers } from '../base/answers.ts';
import { useSession } from '../base/session.ts';
import {
  keep,
  photographs,
  sendWaiting,
  throwAway,
  tryAgain,
  waiting,
  type Sent,
  type Waiting,
} from './outbox.ts';

export interface OutboxState {
  readonly waiting: readonly Waiting[];
  /** the person whose notes go out */
  readonly person: string;
  /** what became of the last ones sent */
  readonly last: Sent | undefined;
  /** @param picture of what lies on the table */
  add(note: FairNote, picture: Blob | undefined): void;
  send(): void;
  throwAway(key: string): void;
}
/** While something waits it is tried again so often: not every browser says when a connection is back. */
const AGAIN_MS = 30_000;

export function useOutbox(): OutboxState {
  const { person } = useSession();
  const [entries, setEntries] = useState(() => waiting(localStorage));
  const [last, setLast] = useState<Sent>();
  const answers = useKeptAnswers();
  const look = () => setEntries(waiting(localStorage));
  const send = useMutation({
    mutationFn: () => sendWaiting(localStorage, person.id),
    // one run after another: two at once would send the same note twice, and the second would be told it is known
    scope: { id: 'fair-outbox' },
    networkMode: 'always',
    onSettled: (result) => {
      look();
      if (!result || result.sent === 0) return;
      void answers.invalidate(fairRoutes.fairNotes);
      setLast(result);
    },
  });
  const { mutate } = send;
  const toSend = entries.filter((one) => one.person === person.id && one.refused === undefined).length;
  useEffect(() => {
    if (toSend === 0) return;
    const go = () => mutate();
    go();
    addEventListener('online', go);
    const again = setInterval(go, AGAIN_MS);
    return () => {
      removeEventListener('online', go);
      clearInterval(again);
    };
  }, [mutate, toSend]);
  return {
    waiting: entries,
    person: person.id,
    last,
    add: (note, picture) => {
      const first = picture ? photographs().set(note.key, picture) : Promise.resolve();
      void first.then(() => {
        keep(localStorage, note, person.id);
        setLast(undefined);
        look();
      });
    },
    send: () => {
      tryAgain(localStorage);
      look();
      mutate();
    },
    throwAway: (key) => void throwAway(localStorage, key).then(look),
  };
}

const notes = (n: number, is: string): string => (n === 1 ? `One note ${is}s` : `${n} notes ${is}`);

export function Outbox({ state }: { state: OutboxState }) {
  const refused = state.waiting.filter((one) => one.refused !== undefined);
  const open = state.waiting.filter((one) => one.refused === undefined);
  const mine = open.filter((one) => one.person === state.person).length;
  const others = open.length - mine;
  return (
    <>
      {mine > 0 && (
        <p className="note" role="status">
          {notes(mine, 'wait')} for a connection.{' '}
          <Button variant="text" className="quiet" onClick={state.send}>
            Send now
          </Button>
        </p>
      )}
      {others > 0 && (
        <p className="note" role="status">
          {notes(others, 'wait')} for another person to sign in on this device.
        </p>
      )}
      {refused.map(({ note, refused: why }) => (
        <div key={note.key} className="note bad" role="alert">
          <b>“{note.title}” was not taken: </b>
          {why} It is kept here.
          <span className="acts">
            <Button variant="text" className="quiet" onClick={state.send}>
              Send again
            </Button>
            <Button variant="text" className="quiet" onClick={() => state.throwAway(note.key)}>
              Throw it away
            </Button>
          </span>
        </div>
      ))}
      {mine === 0 && state.last && state.last.sent > 0 && (
        <p className="note good" role="status">
          {state.last.sent === 1 ? 'Kept.' : `${state.last.sent} notes sent.`}
        </p>
      )}
      {state.last?.told.map(({ title, what }) => (
        <p key={`${title} ${what}`} className="note bad" role="status">
          <b>{title}: </b>
          {what}
        </p>
      ))}
    </>
  );
}
