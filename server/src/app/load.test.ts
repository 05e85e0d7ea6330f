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

test('a monitor is told of requests by their route, of faults and of what waits; nobody from outside is', async () => {
  const text = (await server.nobody().call<string>('GET', '/metrics')).body;
  expect(text).toMatch(/^jutbank_database_up 1$/m);
  expect(text).toMatch(/^jutbank_request_seconds_count\{method="POST",route="\/pieces",status="201"\} \d+$/m);
  expect(text).toMatch(/^jutbank_errands_waiting \d+$/m);
  expect(
    (await server.nobody().call('GET', '/metrics', undefined, { 'X-Forwarded-For': '203.0.113.9' })).status,
  ).toBe(404);
});

test('fifty people read and write for a while: nothing but honest answers, and nobody waits without end', async () => {
  const LONG_MS = Number(process.env.JUTBANK_LOAD_MS ?? 6000);
  const piece = (await server.owner.call('POST', '/pieces', { ...intake, title: 'Everybody’s' })).body;
  const alone: number[] = [];
  const timed = async (list: number[], work: () => Promise<{ status: number }>) => {
    const began = performance.now();
    const { status } = await work();
    list.push(performance.now() - began);
    return status;
  };
  const read = () => server.owner.call('GET', `/pieces/${piece.id}`);
  for (let i = 0; i < 40; i++) await timed(alone, read);
  const reads: number[] = [];
  const writes: number[] = [];
  const statuses = new Map<number, number>();
  const until = Date.now() + LONG_MS;
  await Promise.all(
    Array.from({ length: 50 }, async (_, person) => {
      for (let n = 0; Date.now() < until; n++) {
        // a person looks far more often than they write
        const status = await ((n + person) % 8 !== 0
          ? timed(reads, n % 2 === 0 ? read : () => server.owner.call('GET', '/pieces?limit=20'))
          : timed(writes, async () => {
              if (person % 3 === 0)
                return server.owner.call('POST', '/pieces', { ...intake, title: `${person} ${n}` });
              const seen = await read();
              return server.owner.call(
                'PUT',
                `/pieces/${piece.id}/pricing`,
                { ask: { amount: `${100 + person}.00`, currency: 'EUR' }, floor: null, note: '' },
                { 'If-Match': seen.etag ?? '' },
              );
            }));
        statuses.set(status, (statuses.get(status) ?? 0) + 1);
        await new Promise((resolve) => setTimeout(resolve, 150 + ((person * 37 + n * 91) % 200)));
      }
    }),
  );
  for (const status of statuses.keys()) expect([200, 201, 409, 412, 429]).toContain(status);
  const p95 = (list: number[]) => list.toSorted((a, b) => a - b)[Math.floor(list.length * 0.95)] ?? 0;
  if (process.env.JUTBANK_LOAD_MS !== undefined)
    process.stderr.write(
      `reads ${reads.length} p95 ${p95(reads).toFixed(0)} ms (alone ${p95(alone).toFixed(0)}), writes ${writes.length} p95 ${p95(writes).toFixed(0)} ms, ${JSON.stringify([...statuses])}\n`,
    );
  expect(Math.max(...reads, ...writes)).toBeLessThan(10_000);
  expect((await server.owner.call('GET', '/ledger/verify')).body.intact).toBe(true);
}, 120_000);
