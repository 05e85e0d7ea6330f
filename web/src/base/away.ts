/** Whether the server answers just now, for the line that says so at the top of every screen. */
import { useSyncExternalStore } from 'react';

let unanswered = 0;
const listeners = new Set<() => void>();
const tell = () => {
  for (const listener of listeners) listener();
};

/** Counts a request that waits for the server to come back. @returns what is called when it waits no more */
export function waitsForServer(): () => void {
  unanswered++;
  tell();
  let over = false;
  return () => {
    if (over) return;
    over = true;
    unanswered--;
    tell();
  };
}

export const useServerAway = (): boolean =>
  useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    () => unanswered > 0,
  );
