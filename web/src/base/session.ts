import { accessOf, shopRoutes, type SessionAnswer } from '@jutbank/contract/shop';
import type { Access } from '@jutbank/contract/http';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { createContext, use } from 'react';
import { queryKeyOf } from './answers.ts';
import { ApiProblem, send } from './api.ts';
import { forgetKept, keptSession } from './kept.ts';

/** The signed-in person and shop; null when nobody is. Without a connection, whoever packed this device for it. */
export function useSessionQuery() {
  return useQuery({
    queryKey: queryKeyOf(shopRoutes.session),
    queryFn: async (): Promise<SessionAnswer | null> => {
      const kept = keptSession();
      try {
        // whoever packed for a fair does not wait for a server that is out of reach
        return await send(shopRoutes.session, kept ? { once: true } : {});
      } catch (error) {
        if (!(error instanceof ApiProblem)) throw error;
        if (error.status === 401) return null;
        if (error.status === 0 && kept) return kept;
        throw error;
      }
    },
    staleTime: 60_000,
  });
}

export const SessionContext = createContext<SessionAnswer | null>(null);

/** For screens inside the shell, where somebody is signed in. */
export function useSession(): SessionAnswer {
  const session = use(SessionContext);
  if (!session) throw new Error('nobody is signed in');
  return session;
}

/** Whether the person's role allows it; the server decides again. */
export function useMay(what: Access): boolean {
  const { person } = useSession();
  return accessOf(person.role).includes(what);
}

export function useSignOut() {
  const queries = useQueryClient();
  return async () => {
    await send(shopRoutes.signOut);
    await forgetKept();
    queries.clear();
    location.assign('/');
  };
}
