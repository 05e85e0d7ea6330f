/**
 * Fair notes that wait for a connection: kept on the phone until the server has said that it has them, their photographs
 * beside them in the browser's database, for they are too large for its store of texts. What the server does not take
 * stays, with its reason, until a person throws it away.
 */
import { fairRoutes, fairNote, type FairNote, type FairNoteRecord } from '@jutbank/contract/fair';
import { createStore, del, get as read, set, type UseStore } from 'idb-keyval';
import { z } from 'zod';
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
  note(note: FairNote): Promise<Pick<FairNoteRecord, 'id' | 'told'>>;
  picture(id: string, picture: Blob): Promise<unknown>;
}
const entry = z.object({
  note: fairNote,
  /** who made it: it goes out under nobody else's name */
  person: z.string(),
  /** why the server did not take it */
  refused: z.string().optional(),
});
export type Waiting = z.infer<typeof entry>;

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

export function waiting(store: Store): Waiting[] {
  try {
    const kept = JSON.parse(store.getItem(PLACE) ?? '[]') as unknown[];
    return kept.flatMap((one) => {
      const read = entry.safeParse(one);
      return read.success ? [read.data] : [];
    });
  } catch {
    return [];
  }
}
const write = (store: Store, entries: readonly Waiting[]): void =>
  store.setItem(PLACE, JSON.stringify(entries));

/** @param person id of who made it */
export function keep(store: Store, note: FairNote, person: string): void {
  write(store, [...waiting(store), { note, person }]);
}

/** What was refused is tried again: whatever spoke against it may have been mended. */
export function tryAgain(store: Store): void {
  write(
    store,
    waiting(store).map(({ note, person }) => ({ note, person })),
  );
}

export async function throwAway(
  store: Store,
  key: string,
  pictures: Photographs = photographs(),
): Promise<void> {
  write(
    store,
    waiting(store).filter(({ note }) => note.key !== key),
  );
  await pictures.delete(key);
}

export interface Sent {
  readonly sent: number;
  /** of notes that came in although something no longer held, and what */
  readonly told: readonly { readonly title: string; readonly what: string }[];
}

/** Busy, signed out, just being kept by another window: it goes by waiting. */
const PASSING = [401, 408, 409, 425, 429];
const isRefused = (error: unknown): error is ApiProblem =>
  error instanceof ApiProblem && error.status >= 400 && error.status < 500 && !PASSING.includes(error.status);

/**
 * Sends what a person's notes wait, oldest first. A note is forgotten only when the server has it with its photograph;
 * one whose photograph did not get through is sent again, which the server knows by its key.
 */
export async function sendWaiting(
  store: Store,
  person: string,
  pictures: Photographs = photographs(),
  send: Sender = server,
): Promise<Sent> {
  let sent = 0;
  const told: { title: string; what: string }[] = [];
  const mine = waiting(store).filter((one) => one.person === person && one.refused === undefined);
  for (const { note } of mine) {
    try {
      const kept = await send.note(note);
      const picture = await pictures.get(note.key);
      if (picture) await send.picture(kept.id, picture);
      sent++;
      told.push(...kept.told.map((what) => ({ title: note.title, what })));
    } catch (error) {
      if (!isRefused(error)) break;
      write(
        store,
        waiting(store).map((one) => (one.note.key === note.key ? { ...one, refused: error.message } : one)),
      );
      continue;
    }
    await throwAway(store, note.key, pictures);
  }
  return { sent, told };
}
