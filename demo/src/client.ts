/** The public routes, as any other program would call them. */
import { randomUUID } from 'node:crypto';

export class Client {
  #cookie = '';
  #signIn: { email: string; password: string } | undefined;
  constructor(readonly address: string) {}

  /** Once signed in or set up as; a session may have run out since. */
  async signInAgain(as = this.#signIn): Promise<void> {
    this.#signIn = as;
    await this.call('POST', '/session', as);
  }

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
