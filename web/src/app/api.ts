/** Calls to the server, and what can go wrong with them. */
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
}

export async function call<T>(
  method: 'GET' | 'POST' | 'PUT' | 'DELETE',
  path: string,
  options: CallOptions = {},
): Promise<T> {
  const { body } = options;
  const form = body instanceof FormData;
  const intention = method === 'POST' ? intentionOf(path, body) : undefined;
  const response = await fetch(`/api/v1${path}`, {
    method,
    headers: {
      ...(body === undefined || form ? {} : { 'content-type': 'application/json' }),
      ...(options.version === undefined ? {} : { 'if-match': `"v${options.version}"` }),
      ...(intention ? { 'idempotency-key': intention.key } : {}),
    },
    ...(body === undefined ? {} : { body: form ? body : JSON.stringify(body) }),
    ...(options.signal ? { signal: options.signal } : {}),
  }).catch((error: unknown) => {
    if (error instanceof DOMException && error.name === 'AbortError') throw error;
    throw new ApiProblem(
      0,
      'The server does not answer',
      'Nothing is lost here. It is tried again when you go on.',
      [],
    );
  });
  // a fault tells nothing of whether it was done
  if (response.status < 500) intention?.answered();
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

export const get = <T>(path: string, signal?: AbortSignal): Promise<T> =>
  call<T>('GET', path, signal ? { signal } : {});
