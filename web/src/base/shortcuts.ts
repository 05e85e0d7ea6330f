/**
 * Keys of the screen one is on, listed by `?`. A key typed into a field stays there; a key with a modifier, such as
 * `mod+Enter`, works in fields too. Keys go by what they produce, whatever the layout of the keyboard.
 */
import { useEffect, useSyncExternalStore } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';

export interface Shortcut {
  /** as the key produces it (`/`, `ArrowDown`), or with modifiers (`mod+Enter`) */
  readonly key: string;
  readonly does: string;
  readonly run?: () => void;
}

type Listed = Pick<Shortcut, 'key' | 'does'>;
const stacks = new Map<string, readonly Listed[]>();
let listed: readonly { title: string; keys: readonly Listed[] }[] = [];
const listeners = new Set<() => void>();
const publish = () => {
  listed = [...stacks].map(([title, keys]) => ({ title, keys }));
  for (const tell of listeners) tell();
};

/** Whether a key belongs to the field it is typed into: nothing is typed into a box that is ticked. */
const keepsKey = ({ target }: KeyboardEvent): boolean =>
  target instanceof HTMLInputElement && target.type !== 'checkbox';

const NEVER_TYPED = '\u0000';
const dialogIsOpen = () => document.querySelector('[role="dialog"], [role="listbox"]') !== null;
const withModifier = ({ key }: Shortcut) => key.length > 1 && key.includes('+');

/** @param scope names the group in the list of keys */
export function useShortcuts(scope: string, keys: readonly Shortcut[]): void {
  // listed anew only where what stands in the list has changed, not at every stroke
  const print = JSON.stringify(keys.map(({ key, does }): Listed => ({ key, does })));
  useEffect(() => {
    stacks.set(scope, JSON.parse(print) as Listed[]);
    publish();
    return () => {
      stacks.delete(scope);
      publish();
    };
  }, [scope, print]);
  const acting = keys.filter((k) => k.run);
  const plain = acting.filter((k) => !withModifier(k));
  const modified = acting.filter(withModifier);
  useHotkeys(
    plain.map((k) => k.key),
    (event) => plain.find((k) => k.key.toLowerCase() === event.key.toLowerCase())?.run?.(),
    {
      // of no keys at all the library makes one that produces nothing
      enabled: plain.length > 0,
      useKey: true,
      enableOnFormTags: ['input'],
      // a shift that the layout needs for `?` or `/` is no modifier
      ignoreModifiers: true,
      ignoreEventWhen: (e) =>
        e.defaultPrevented ||
        keepsKey(e) ||
        e.ctrlKey ||
        e.metaKey ||
        e.altKey ||
        (e.shiftKey && /^[a-z]$/i.test(e.key)) ||
        dialogIsOpen(),
      preventDefault: true,
      delimiter: '\n',
      splitKey: NEVER_TYPED,
      sequenceSplitKey: NEVER_TYPED,
    },
  );
  useHotkeys(
    modified.map((k) => k.key),
    (_, { hotkey }) => modified.find((k) => k.key.toLowerCase() === hotkey)?.run?.(),
    {
      enabled: modified.length > 0,
      enableOnFormTags: true,
      useKey: true,
      preventDefault: true,
      delimiter: '\n',
      ignoreEventWhen: dialogIsOpen,
    },
  );
}

/** A key as it stands on the keyboard. */
export const keyInWords = (key: string): string =>
  key
    .replace('mod+', /mac/i.test(navigator.userAgent) ? '⌘ ' : 'Ctrl ')
    .replace('ArrowDown', '↓')
    .replace('ArrowUp', '↑')
    .replace('ArrowLeft', '←')
    .replace('ArrowRight', '→');

export const useListedShortcuts = () =>
  useSyncExternalStore(
    (tell) => {
      listeners.add(tell);
      return () => listeners.delete(tell);
    },
    () => listed,
  );

/** Escape leaves the field one is in, so that the keys of the screen are at hand again; a box or a list shuts first. */
export function useEscapeLeaves(): void {
  useEffect(() => {
    const leave = (event: KeyboardEvent) => {
      const at = document.activeElement;
      if (event.key !== 'Escape' || event.defaultPrevented || dialogIsOpen()) return;
      if (at instanceof HTMLInputElement || at instanceof HTMLTextAreaElement) at.blur();
    };
    document.addEventListener('keydown', leave);
    return () => document.removeEventListener('keydown', leave);
  }, []);
}
