import { checkDeclared } from './declared.ts';

/** Somebody who calls the routes of a server under test. */
export interface Reply<T = unknown> {
  readonly status: number;
  readonly body: T;
  readonly etag: string | null;
  readonly headers: Headers;
}

/** One signed-in (or nobody's) view of the server. */
export class Visitor {
  cookie = '';
  constructor(readonly address: string) {}

  async call<T = any>(
    method: string,
    path: string,
    body?: unknown,
    headers: Record<string, string> = {},
  ): Promise<Reply<T>> {
    const raw = body instanceof FormData || typeof body === 'string';
    const response = await fetch(`${this.address}/api/v1${path}`, {
      method,
      headers: {
        cookie: this.cookie,
        ...(raw || body === undefined ? {} : { 'content-type': 'application/json' }),
        ...headers,
      },
      ...(body === undefined ? {} : { body: raw ? body : JSON.stringify(body) }),
    });
    const cookie = response.headers.getSetCookie()[0]?.split(';')[0];
    if (cookie !== undefined) this.cookie = cookie;
    const text = await response.text();
    const json = response.headers.get('content-type')?.includes('json') ?? false;
    const told: unknown = json && text !== '' ? JSON.parse(text) : text;
    if (json && response.ok) checkDeclared(method, path, told);
    return {
      status: response.status,
      body: told as T,
      etag: response.headers.get('etag'),
      headers: response.headers,
    };
  }
}
