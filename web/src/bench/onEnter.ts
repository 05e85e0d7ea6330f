import type { KeyboardEvent } from 'react';

/** Enter takes what was typed, without sending a form. */
export const onEnter = (take: () => void) => (e: KeyboardEvent) => {
  if (e.key !== 'Enter') return;
  e.preventDefault();
  take();
};
