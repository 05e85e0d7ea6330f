import { afterEach, expect, jest, test } from '@jest/globals';
import { render, screen } from '@testing-library/react';
import { call } from './api.ts';
import { useServerAway } from './away.ts';

const real = globalThis.fetch;
afterEach(() => {
  globalThis.fetch = real;
});
/** Answers one after the other; null: the connection is lost. */
function server(...statuses: (number | null)[]): string[] {
  const keys: string[] = [];
  globalThis.fetch = jest.fn((_url: unknown, init?: RequestInit) => {
    keys.push((init?.headers as Record<string, string>)['idempotency-key'] ?? '');
    const status = statuses.shift();
    return status == null
      ? Promise.reject(new TypeError('lost'))
      : Promise.resolve({ ok: status < 300, status, text: () => Promise.resolve('{}') } as Response);
  }) as typeof fetch;
  return keys;
}
const send = (body: unknown) => call('POST', '/pieces', { body, once: true }).catch(() => undefined);

test('what was sent and never answered is the same request when it is sent again', async () => {
  const keys = server(null, 503, 201, 201);
  for (let i = 0; i < 4; i++) await send({ title: 'Jack' });
  expect(keys[0]).not.toBe('');
  expect(keys[1]).toBe(keys[0]);
  expect(keys[2]).toBe(keys[0]);
  // answered: the same words are meant anew
  expect(keys[3]).not.toBe(keys[0]);
});
test('while the server is away it is asked again by itself, with the same key, and says so meanwhile', async () => {
  const keys = server(null, 503, 201);
  function Away() {
    return useServerAway() ? <p>away</p> : <p>here</p>;
  }
  render(<Away />);
  const saved = call('PUT', '/pieces/1/pricing', { body: { note: 'typed' }, version: 3 });
  await screen.findByText('away');
  await saved;
  await screen.findByText('here');
  expect(keys).toHaveLength(3);
  expect(new Set(keys).size).toBe(1);
}, 10_000);
test('other words are another request; so is a file of another size', async () => {
  const keys = server(null, null, null, null);
  await send({ title: 'Jack' });
  await send({ title: 'Petrel' });
  const file = (text: string) => {
    const form = new FormData();
    form.set('file', new File([text], 'a.csv'));
    return form;
  };
  await send(file('a'));
  await send(file('ab'));
  expect(new Set(keys).size).toBe(4);
});
