/** The public routes, as any other program would call them. */
import { randomUUID } from 'node:crypto';

export class Client {
  #cookie = '';
  constructor(readonly address: string) {}

  async call<T>(method: string, path: string, body?: unknown, version?: number): Promise<T> {
    const form = body instanceof FormData;
    const response = await fetch(`${this.address}/api/v1${path}`, {
      method,
      headers: {
        cookie: this.#cookie,
        ...(form || body === undefined ? {} : { 'content-type': 'application/json' }),
        ...(version === undefined ? {} : { 'if-match': `"v${version}"` }),
        ...(method === 'POST' && !form ? { 'idempotency-key': randomUUID() } : {}),
      },
      ...(body === undefined ? {} : { body: form ? body : JSON.stringify(body) }),
    });
    const cookie = response.headers.getSetCookie()[0]?.split(';')[0];
    if (cookie !== undefined) this.#cookie = cookie;
    const text = await response.text();
    if (!response.ok) throw new Error(`${method} ${path} answered ${response.status}: ${text.slice(0, 600)}`);
    return (text === '' ? undefined : JSON.parse(text)) as T;
  }
}
