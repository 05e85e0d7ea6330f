/** What is asked of the list, kept in its address: a view is a link, and going back brings it back. */
import { useMemo } from 'react';
import { useSearchParams } from 'react-router';
import { inventoryFilter, inventoryRoutes, type InventoryFilter } from '@jutbank/contract/inventory';
import { usePages } from '../base/answers.ts';

const AT_ONCE = 100;

export interface Asking {
  readonly filter: InventoryFilter;
  /** the query of this address without its sign of beginning */
  readonly asks: string;
  /** an empty value asks nothing */
  set(name: keyof InventoryFilter, value: string | null): void;
  show(asks: string): void;
}

export function useAsking(): Asking {
  const [params, setParams] = useSearchParams();
  const asks = params.toString();
  const filter = useMemo((): InventoryFilter => {
    const given = Object.fromEntries([...new URLSearchParams(asks)].filter(([, value]) => value !== ''));
    const whole = inventoryFilter.safeParse(given);
    if (whole.success) return given;
    // an address that somebody wrote by hand: what cannot be asked is left out, the rest is
    const wrong = new Set(whole.error.issues.map((issue) => String(issue.path[0])));
    return Object.fromEntries(Object.entries(given).filter(([name]) => !wrong.has(name)));
  }, [asks]);
  return {
    filter,
    asks,
    set: (name, value) => {
      const next = new URLSearchParams(asks);
      if (value === null || value === '') next.delete(name);
      else next.set(name, value);
      setParams(next, { replace: true });
    },
    show: (next) => setParams(new URLSearchParams(next)),
  };
}

export const useRows = (filter: InventoryFilter) =>
  usePages(inventoryRoutes.listRows, { ...inventoryFilter.parse(filter), limit: AT_ONCE });
