/** What was typed and is not kept yet, wherever on the screen: whoever would leave it behind is asked first. */
import { useEffect } from 'react';

const unsaved = new Set<symbol>();

export const somethingUnsaved = (): boolean => unsaved.size > 0;

/** @param is whether something stands here that going away would lose */
export function useUnsaved(is: boolean): void {
  useEffect(() => {
    if (!is) return;
    const here = Symbol();
    unsaved.add(here);
    return () => {
      unsaved.delete(here);
    };
  }, [is]);
}
