/** Keys of the screen one is on, listed by `?`. A key typed into a field stays there. */
import { useEffect, useSyncExternalStore } from 'react';

export interface Shortcut {
  readonly key: string;
  readonly does: string;
  readonly run?: () => void;
}

const stacks = new Map<string, readonly Shortcut[]>();
let listed: readonly { title: string; keys: readonly Shortcut[] }[] = [];
const listeners = new Set<() => void>();
const publish = () => {
  listed = [...stacks].map(([title, keys]) => ({ title, keys }));
  for (const tell of listeners) tell();
};

const typing = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement &&
  (target.isContentEditable || ['INPUT', 'TEXTAREA', 'SELECT'].includes(target.tagName));

/** @param keys must be stable between renders, or made with useMemo */
export function useShortcuts(title: string, keys: readonly Shortcut[]): void {
  useEffect(() => {
    stacks.set(title, keys);
    publish();
    const onKey = (event: KeyboardEvent) => {
      if (event.defaultPrevented || event.ctrlKey || event.metaKey || event.altKey || typing(event.target))
        return;
      if (document.querySelector('[role="dialog"]')) return;
      const shortcut = keys.find((k) => k.run && k.key === event.key);
      if (!shortcut?.run) return;
      event.preventDefault();
      shortcut.run();
    };
    addEventListener('keydown', onKey);
    return () => {
      removeEventListener('keydown', onKey);
      stacks.delete(title);
      publish();
    };
  }, [title, keys]);
}

export const useListedShortcuts = () =>
  useSyncExternalStore(
    (tell) => {
      listeners.add(tell);
      return () => listeners.delete(tell);
    },
    () => listed,
  );
