import { useQuery, useQueryClient } from '@tanstack/react-query';
import { createContext, use } from 'react';
import type { SessionAnswer } from '@jutbank/contract/shop';
import { ApiProblem, call, get } from './api.ts';

export const SESSION = ['session'];

/** The signed-in person and shop; undefined when nobody is. */
export function useSessionQuery() {
  return useQuery({
    queryKey: SESSION,
    queryFn: async (): Promise<SessionAnswer | null> => {
      try {
        return await get<SessionAnswer>('/session');
      } catch (error) {
        if (error instanceof ApiProblem && error.status === 401) return null;
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

const WRITERS = {
  work: ['owner', 'appraiser', 'clerk'],
  appraise: ['owner', 'appraiser'],
  own: ['owner'],
} as const;
/** Whether the person's role allows it; the server decides again. */
export function useMay(what: keyof typeof WRITERS): boolean {
  const { person } = useSession();
  return (WRITERS[what] as readonly string[]).includes(person.role);
}

export function useSignOut() {
  const queries = useQueryClient();
  return async () => {
    await call('DELETE', '/session');
    queries.clear();
    location.assign('/');
  };
}
