import { afterEach, describe, expect, jest, test } from '@jest/globals';
import { ApiProblem, call } from './api.ts';

const answers = (status: number, body: string) => {
  const seen = jest.fn<typeof fetch>(() => Promise.resolve(new Response(body, { status })));
  globalThis.fetch = seen;
  return seen;
};
const real = globalThis.fetch;
afterEach(() => {
  globalThis.fetch = real;
});
const problem = async (work: Promise<unknown>) => {
  const caught: unknown = await work.catch((error: unknown) => error);
  if (caught instanceof ApiProblem) return caught;
  throw new Error('no problem was told');
};

describe('calls to the server', () => {
  test('a write carries the version it has seen and a key of its own, a question neither', async () => {
    const seen = answers(200, '{}');
    await call('PUT', '/pieces/1/intake', { body: {}, version: 7 });
    await call('POST', '/pieces', { body: {} });
    await call('GET', '/pieces');
    const headers = seen.mock.calls.map(([, init]) => new Headers(init?.headers));
    expect(headers[0]?.get('if-match')).toBe('"v7"');
    const keys = headers.map((h) => h.get('idempotency-key'));
    expect(keys[0]).toMatch(/^[0-9a-f-]{36}$/);
    expect(keys[1]).toMatch(/^[0-9a-f-]{36}$/);
    expect(keys[1]).not.toBe(keys[0]);
    expect(keys[2]).toBeNull();
  });
  test('a problem names its fields, nested ones by their beginning', async () => {
    answers(
      422,
      JSON.stringify({
        title: 'Not right',
        errors: [{ pointer: '/price/amount', message: 'too many decimals' }],
      }),
    );
    const told = await problem(call('POST', '/pieces', { body: {} }));
    expect(told.status).toBe(422);
    expect(told.at('/price')).toBe('too many decimals');
    expect(told.at('/title')).toBeUndefined();
  });
  test('a page that is not ours, and a server that is away, are problems too', async () => {
    answers(502, '<html>Bad gateway</html>');
    expect((await problem(call('GET', '/tray'))).title).toBe('Error 502');
    globalThis.fetch = () => Promise.reject(new TypeError('fetch failed'));
    expect((await problem(call('GET', '/tray', { once: true }))).status).toBe(0);
  });
  test('an empty answer is nothing', async () => {
    globalThis.fetch = () => Promise.resolve(new Response(null, { status: 204 }));
    expect(await call('DELETE', '/session')).toBeUndefined();
  });
});
