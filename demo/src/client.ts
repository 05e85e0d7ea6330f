/** The public routes, as any other program would call them. */
import { randomUUID } from 'node:crypto';

export class Client {
  #cookie = '';
  #who: { email: string; password: string } | undefined;
  constructor(readonly address: string) {}

  /** As whom it signs in, now and when the session has run out. */
  async signIn(who: { email: string; password: string }): Promise<void> {
    this.#who = { email: who.email, password: who.password };
    await this.call('POST', '/session', this.#who);
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
    if (response.status === 401 && this.#who && path !== '/session') {
      await this.signIn(this.#who);
      return this.call(method, path, body, version);
    }
    if (!response.ok) throw new Error(`${method} ${path} answered ${response.status}: ${text.slice(0, 600)}`);
    return (text === '' ? undefined : JSON.parse(text)) as T;
  }
}
