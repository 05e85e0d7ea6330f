/**
 * Fair notes that wait for a connection: kept on the phone until the server has said that it has them, their photographs
 * beside them in the browser's database, for they are too large for its store of texts.
 */
import { fairRoutes, fairNote, type FairNote, type FairNoteRecord } from '@jutbank/contract/fair';
import { createStore, del, get as read, set, type UseStore } from 'idb-keyval';
import { ApiProblem, send } from '../base/api.ts';

const PLACE = 'jutbank.fair.outbox';
/** What the outbox keeps things in; the browser's own store, or another in tests. */
export type Store = Pick<Storage, 'getItem' | 'setItem'>;
/** Photographs by the key of their note. */
export interface Photographs {
  get(key: string): Promise<Blob | undefined>;
  set(key: string, picture: Blob): Promise<void>;
  delete(key: string): Promise<void>;
}
export interface Sender {
  note(note: FairNote): Promise<Pick<FairNoteRecord, 'id'>>;
  picture(id: string, picture: Blob): Promise<unknown>;
}

/** Those of this browser. Where it keeps none (in a private window, say), a note goes without its photograph. */
export function photographs(): Photographs {
  const inStore = <T>(work: (store: UseStore) => Promise<T>): Promise<T | undefined> =>
    Promise.resolve()
      .then(() => work(createStore('jutbank-fair', 'photographs')))
      .catch(() => undefined);
  return {
    get: (key) => inStore((store) => read<Blob>(key, store)),
    set: (key, picture) => inStore((store) => set(key, picture, store)),
    delete: (key) => inStore((store) => del(key, store)),
  };
}
const server: Sender = {
  note: (note) => send(fairRoutes.addFairNote, { body: note, once: true }),
  picture: (id, picture) => {
    const form = new FormData();
    form.set('file', picture, 'fair.jpg');
    return send(fairRoutes.addFairPicture, { params: { id }, body: form, once: true });
  },
};

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

/** 4xx but for being signed out: sending it again would change nothing. */
const willNeverBeTaken = (error: unknown): error is ApiProblem =>
  error instanceof ApiProblem && error.status >= 400 && error.status < 500 && error.status !== 401;

/**
 * Sends what waits, oldest first. A note is forgotten only when the server has it with its photograph, or will never
 * take it; one whose photograph did not get through is sent again, which the server knows by its key.
 */
export async function sendWaiting(
  store: Store,
  pictures: Photographs = photographs(),
  send: Sender = server,
): Promise<Sent> {
  let sent = 0;
  const refused: { note: FairNote; why: string }[] = [];
  for (const note of waiting(store)) {
    try {
      const { id } = await send.note(note);
      const picture = await pictures.get(note.key);
      if (picture) await send.picture(id, picture);
      sent++;
    } catch (error) {
      if (!willNeverBeTaken(error)) break;
      refused.push({ note, why: error.message });
    }
    store.setItem(PLACE, JSON.stringify(waiting(store).filter((other) => other.key !== note.key)));
    await pictures.delete(note.key);
  }
  return { sent, refused };
}
