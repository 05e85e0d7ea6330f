/** Many people at once: nobody waits without end, and nothing is lost or doubled. */
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { csv, intake, serverForTest, testPack, type TestServer } from '../testing/index.ts';

let server: TestServer;
beforeAll(async () => {
  server = await serverForTest();
  await server.owner.call('POST', '/reference-packs', testPack);
  await server.owner.call(
    'POST',
    '/comparables/import',
    csv(
      Array.from(
        { length: 60 },
        (_, i) => `2026-0${1 + (i % 9)}-1${i % 9},${120 + i},EUR,sold,Tollgate Rooms,online,jack,first,80`,
      ),
    ),
  );
});
afterAll(() => server.close());

const AT_ONCE = 40;

test('forty pieces taken in, decided, priced and sold at once: each once, and the server goes on answering', async () => {
  const made = await Promise.all(
    Array.from({ length: AT_ONCE }, (_, i) =>
      server.owner.call('POST', '/pieces', { ...intake, title: `Harbour jack ${i}` }),
    ),
  );
  expect(new Set(made.map((m) => m.status))).toEqual(new Set([201]));
  expect(new Set(made.map((m) => m.body.stockNumber)).size).toBe(AT_ONCE);
  const decided = await Promise.all(
    made.map((m) =>
      server.owner.call(
        'PUT',
        `/pieces/${m.body.id}/attribution`,
        { attribution: { pattern: 'jack', variant: 'first', tier: 'probable', reason: 'compared' } },
        { 'If-Match': m.etag ?? '' },
      ),
    ),
  );
  expect(new Set(decided.map((d) => d.status))).toEqual(new Set([200]));
  const [sold, read] = await Promise.all([
    Promise.all(
      made.map((m) =>
        server.owner.call('POST', `/pieces/${m.body.id}/sale`, {
          price: { amount: '150.00', currency: 'EUR' },
          channel: 'counter',
          buyerName: 'A collector',
          ageChecked: true,
        }),
      ),
    ),
    Promise.all(Array.from({ length: AT_ONCE }, () => server.owner.call('GET', '/pieces?limit=20'))),
  ]);
  expect(new Set(sold.map((s) => s.status))).toEqual(new Set([201]));
  expect(new Set(sold.map((s) => s.body.invoiceNumber)).size).toBe(AT_ONCE);
  expect(new Set(read.map((r) => r.status))).toEqual(new Set([200]));
  const ledger = await server.owner.call('GET', '/ledger/verify');
  expect([ledger.status, ledger.body.intact]).toEqual([200, true]);
}, 60_000);
