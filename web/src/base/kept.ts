/**
 * What this device keeps so that the program can be used without a connection: documents by name, and who is signed in.
 * Signing out forgets all of it.
 */
import { clear, createStore, get, set, type UseStore } from 'idb-keyval';
import type { SessionAnswer } from '@jutbank/contract/shop';

const store = (): UseStore => createStore('jutbank-kept', 'documents');

/** Undefined where nothing was kept under that name. @throws where this browser keeps nothing at all */
export const keptDocument = (name: string): Promise<unknown> => get<unknown>(name, store());
export const keepDocument = (name: string, document: unknown): Promise<void> => set(name, document, store());

/** Texts that are forgotten with the rest are kept in the browser's store of texts under names that begin so. */
export const KEPT = 'jutbank.kept.';
const SESSION = `${KEPT}session`;

/** Who was signed in when something was last kept for use without a connection. */
export function keptSession(): SessionAnswer | undefined {
  const text = localStorage.getItem(SESSION);
  if (text === null) return undefined;
  try {
    const kept = JSON.parse(text) as Partial<SessionAnswer>;
    return kept.person && kept.shop ? { person: kept.person, shop: kept.shop } : undefined;
  } catch {
    return undefined;
  }
}
export const keepSession = (session: SessionAnswer): void =>
  localStorage.setItem(SESSION, JSON.stringify(session));

export async function forgetKept(): Promise<void> {
  for (const name of Object.keys(localStorage)) if (name.startsWith(KEPT)) localStorage.removeItem(name);
  await clear(store()).catch(() => undefined);
}

/**
 * Keeps the program itself on this device.
 * @returns false where this browser does not do that, or the files did not come through
 */
export async function keepProgram(): Promise<boolean> {
  if (!('serviceWorker' in navigator)) return false;
  try {
    await navigator.serviceWorker.register('/serviceWorker.js');
    const { active } = await navigator.serviceWorker.ready;
    // a browser short of room throws out what was not asked for
    await navigator.storage?.persist?.();
    return active !== null;
  } catch {
    return false;
  }
}
