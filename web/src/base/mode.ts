import { createContext, use } from 'react';
import type { Mode } from './theme.ts';

/** A light theme for the bench, a dark one for the photo table. */
export const ModeContext = createContext<{ mode: Mode; setMode: (mode: Mode) => void }>({
  mode: 'light',
  setMode: () => undefined,
});
export const useMode = () => use(ModeContext);

export function storedMode(): Mode {
  const stored = localStorage.getItem('jutbank.mode');
  if (stored === 'light' || stored === 'dark') return stored;
  return matchMedia('(prefers-color-scheme: dark)').matches ? 'dark' : 'light';
}
