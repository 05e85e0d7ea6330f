/**
 * Answers of the server as they are kept on the screen. What an answer is kept under follows from the route and from
 * what it was asked with, so that nobody writes a key by hand.
 */
import type { Route } from '@jutbank/contract/http';
import {
  keepPreviousData,
  useInfiniteQuery,
  useQuery,
  useQueryClient,
  type QueryClient,
  type QueryKey,
  type UseQueryOptions,
  type UseQueryResult,
} from '@tanstack/react-query';
import { useMemo } from 'react';
import { send, type Asked } from './api.ts';

/** Path, then parameters, query and body, each only where there is one. */
export function queryKeyOf<P, Q, B, A, I>(
  route: Route<P, Q, B, A, I>,
  { params, query, body }: Asked<P, Q, I> = {},
): QueryKey {
  return [route.path, params ?? null, ...(query || body ? [query ?? null] : []), ...(body ? [body] : [])];
}

type Options<A> = Omit<UseQueryOptions<A>, 'queryKey' | 'queryFn'>;

/** Asks a route and keeps its answer; while it is asked again, `placeholderData: keepPreviousData` shows the one before. */
export function useAnswer<P, Q, B, A, I>(
  route: Route<P, Q, B, A, I>,
  asked: Asked<P, Q, I> = {},
  options: Options<A> = {},
): UseQueryResult<A> {
  return useQuery<A>({
    queryKey: queryKeyOf(route, asked),
    queryFn: ({ signal }) => send(route, { ...asked, signal }),
    ...options,
  });
}

interface Page {
  readonly nextCursor?: string | null | undefined;
}

/** A long list, page by page; `fetchNextPage` asks for the next one. */
export function usePages<P, Q extends { cursor?: unknown }, B, A extends Page, I>(
  route: Route<P, Q, B, A, I>,
  query: { [K in keyof Q]?: Q[K] | undefined },
) {
  return useInfiniteQuery({
    queryKey: queryKeyOf(route, { query }),
    queryFn: ({ pageParam, signal }) => send(route, { query: { ...query, cursor: pageParam }, signal }),
    initialPageParam: '',
    getNextPageParam: (page) => page.nextCursor ?? undefined,
    placeholderData: keepPreviousData,
  });
}

/** What a route answered before, whatever it was asked with: `invalidate` asks anew what is shown of it. */
export class KeptAnswers {
  readonly #queries: QueryClient;
  constructor(queries: QueryClient) {
    this.#queries = queries;
  }

  invalidate(...routes: readonly Pick<Route, 'path'>[]): Promise<unknown> {
    return Promise.all(routes.map((route) => this.#queries.invalidateQueries({ queryKey: [route.path] })));
  }
  /** All routes whose address begins so, with these parameters, or with any. */
  invalidateBelow(path: string, params?: Readonly<Record<string, string>>): Promise<unknown> {
    return this.#queries.invalidateQueries({
      predicate: ({ queryKey: [at, given] }) =>
        typeof at === 'string' &&
        at.startsWith(path) &&
        Object.entries(params ?? {}).every(
          ([name, value]) => new Map(Object.entries(given ?? {})).get(name) === value,
        ),
    });
  }
  invalidateAll(): Promise<unknown> {
    return this.#queries.invalidateQueries();
  }
  set<P, Q, B, A, I>(route: Route<P, Q, B, A, I>, asked: Asked<P, Q, I>, answer: A): void {
    this.#queries.setQueryData(queryKeyOf(route, asked), answer);
  }
  get<P, Q, B, A, I>(route: Route<P, Q, B, A, I>, asked: Asked<P, Q, I>): A | undefined {
    return this.#queries.getQueryData<A>(queryKeyOf(route, asked));
  }
}

export function useKeptAnswers(): KeptAnswers {
  const queries = useQueryClient();
  return useMemo(() => new KeptAnswers(queries), [queries]);
}
