/** Fair notes that wait for a connection: kept on the phone until the server has said that it has them. */
import { fairNote, type FairNote } from '@jutbank/contract/sale';
import { ApiProblem, call } from '../app/api.ts';

const PLACE = 'jutbank.fair.outbox';
/** What the outbox keeps things in; the browser's own store, or another in tests. */
export type Store = Pick<Storage, 'getItem' | 'setItem'>;

export function waiting(store: Store): FairNote[] {
  try {
    const kept = JSON.parse(store.getItem(PLACE) ?? '[]') as unknown[];
    return kept.flatMap((one) => {
      const note = fairNote.safeParse(one);
      return note.success ? [note.data] : [];
    });
  } catch {
    return [];
  }
}

export function keep(store: Store, note: FairNote): void {
  store.setItem(PLACE, JSON.stringify([...waiting(store), note]));
}

export interface Sent {
  readonly sent: number;
  /** refused by the server, with its words: these do not go by waiting */
  readonly refused: readonly { readonly note: FairNote; readonly why: string }[];
}

/** Sends what waits, oldest first. A note is forgotten only when the server has it, or will never take it. */
export async function sendWaiting(
  store: Store,
  send: (note: FairNote) => Promise<unknown> = (note) => call('POST', '/fair/notes', { body: note }),
): Promise<Sent> {
  let sent = 0;
  const refused: { note: FairNote; why: string }[] = [];
  for (const note of waiting(store)) {
    try {
      await send(note);
      sent++;
    } catch (error) {
      // 4xx but for being signed out: sending it again would change nothing
      if (!(error instanceof ApiProblem) || error.status < 400 || error.status >= 500 || error.status === 401)
        break;
      refused.push({ note, why: error.message });
    }
    store.setItem(PLACE, JSON.stringify(waiting(store).filter((other) => other.key !== note.key)));
  }
  return { sent, refused };
}
