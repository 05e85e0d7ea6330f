/** Calls to the server, and what can go wrong with them. */
import type { Route } from '@jutbank/contract/http';
import { waitsForServer } from './away.ts';
import { intentionOf } from './intention.ts';

export interface FieldProblem {
  pointer: string;
  message: string;
}

export class ApiProblem extends Error {
  constructor(
    readonly status: number,
    readonly title: string,
    readonly detail: string | undefined,
    readonly errors: readonly FieldProblem[],
    /** a kind of trouble by its name, where it has one */
    readonly code?: string,
  ) {
    super(detail ?? title);
  }
  /** The message for a field, by the end of its pointer. */
  at(pointer: string): string | undefined {
    return this.errors.find((e) => e.pointer === pointer || e.pointer.startsWith(`${pointer}/`))?.message;
  }
}

export interface CallOptions {
  body?: unknown;
  /** the version seen, for If-Match */
  version?: number;
  signal?: AbortSignal;
  /** asked once: whoever asks has something to do without an answer */
  once?: boolean;
}

/** Waits between tries while the server is away; it is back within seconds, or somebody has to look at it. */
const WAITS_MS = [700, 1500, 3000, 4000, 5000, 5000, 5000, 5000, 5000, 5000];
const AWAY = 503;

/**
 * Asks the server; while it does not answer, again and again, so that a screen carries on by itself with what was typed.
 * What changes something has one key for all tries: it is done once.
 * @throws ApiProblem for what is refused, with status 0 where nobody answered in all that time
 */
export async function call<T>(
  method: 'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE',
  path: string,
  options: CallOptions = {},
): Promise<T> {
  const { body, version, signal } = options;
  const form = body instanceof FormData;
  const intention =
    method === 'POST' || method === 'PUT'
      ? intentionOf(`${method} ${path} ${version ?? ''}`, body)
      : undefined;
  const request: RequestInit = {
    method,
    headers: {
      ...(body === undefined || form ? {} : { 'content-type': 'application/json' }),
      ...(version === undefined ? {} : { 'if-match': `"v${version}"` }),
      ...(intention ? { 'idempotency-key': intention.key } : {}),
    },
    ...(body === undefined ? {} : { body: form ? body : JSON.stringify(body) }),
    ...(signal ? { signal } : {}),
  };
  let back: (() => void) | undefined;
  try {
    for (let tries = 0; ; tries++) {
      const response = await fetch(`/api/v1${path}`, request).catch((error: unknown) => {
        if (error instanceof DOMException && error.name === 'AbortError') throw error;
        return undefined;
      });
      const wait = options.once ? undefined : WAITS_MS[tries];
      if ((response === undefined || response.status === AWAY) && wait !== undefined) {
        back ??= waitsForServer();
        await new Promise((resolve) => setTimeout(resolve, wait));
        continue;
      }
      if (response === undefined)
        throw new ApiProblem(
          0,
          'The server does not answer',
          'Nothing is lost here. It is tried again when you go on.',
          [],
        );
      // a fault tells nothing of whether it was done
      if (response.status < 500) intention?.answered();
      return await answerOf<T>(response);
    }
  } finally {
    back?.();
  }
}

async function answerOf<T>(response: Response): Promise<T> {
  const text = await response.text();
  if (response.ok) return (text === '' ? undefined : JSON.parse(text)) as T;
  let problem: { title?: string; detail?: string; errors?: FieldProblem[]; code?: string } = {};
  try {
    problem = JSON.parse(text) as typeof problem;
  } catch {
    // a proxy's own page: told by its status alone
  }
  throw new ApiProblem(
    response.status,
    problem.title ?? `Error ${response.status}`,
    problem.detail,
    problem.errors ?? [],
    problem.code,
  );
}

/** A body as it is held on a screen: nothing in it need be changeable. */
export type Held<T> = T extends readonly (infer U)[]
  ? readonly Held<U>[]
  : T extends object
    ? { readonly [K in keyof T]: Held<T[K]> }
    : T;

/** What a route is asked with. */
export interface Asked<P, Q, I> extends Omit<CallOptions, 'body'> {
  params?: P;
  query?: { [K in keyof Q]?: Q[K] | undefined };
  body?: I | Held<I> | FormData;
}

/** Asks a route of the contract: its address is filled in, its answer typed. */
export function send<P, Q, B, A, I>(route: Route<P, Q, B, A, I>, asked: Asked<P, Q, I> = {}): Promise<A> {
  const { params, query, body, ...options } = asked;
  const given = new Map<string, unknown>(Object.entries(params ?? {}));
  const path = route.path.replaceAll(/:(\w+)/g, (_, name: string) =>
    encodeURIComponent(String(given.get(name) ?? '')),
  );
  const search = new URLSearchParams(
    Object.entries(query ?? {}).flatMap(([name, value]) =>
      value === undefined || value === null || value === '' ? [] : [[name, String(value)]],
    ),
  ).toString();
  const writes = route.method === 'post' || route.method === 'put' || route.method === 'patch';
  return call<A>(METHODS[route.method], search === '' ? path : `${path}?${search}`, {
    ...options,
    ...(body !== undefined ? { body } : writes ? { body: {} } : {}),
  });
}
const METHODS = { get: 'GET', post: 'POST', put: 'PUT', patch: 'PATCH', delete: 'DELETE' } as const;
