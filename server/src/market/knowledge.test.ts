/** An answer of any day can be made again from what was known on that day. */
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { documentOf, SHIPPED_RULES, type ScaleRules } from '@jutbank/core/condition';
import { csv, serverForTest, testPack, type TestServer } from '../testing/index.ts';

let server: TestServer;
beforeAll(async () => {
  server = await serverForTest();
  await server.owner.call('POST', '/reference-packs', testPack);
});
afterAll(() => server.close());

const send = (rows: string[]) => server.owner.call('POST', '/comparables/import', csv(rows));
const sale = (day: string, price: number, currency = 'EUR') =>
  `${day},${price},${currency},sold,Tollgate Rooms,auction,jack,first,80`;
const rate = (value: string) =>
  server.owner.call('POST', '/exchange-rates', {
    base: 'EUR',
    rates: [{ date: '2026-01-02', currency: 'SEK', rate: value }],
  });
const ask = async (more: object = {}) => {
  const reply = await server.owner.call('POST', '/valuations/estimate', {
    subject: { pattern: 'jack', variants: [{ variant: 'first', probability: 1 }], conditionIndex: 80 },
    asOf: '2026-11-01',
    currency: 'EUR',
    venueKind: 'auction',
    ...more,
  });
  expect(reply.status).toBe(200);
  return reply.body;
};
/** Everything so far was entered a day earlier. */
const letADayPass = () => server.database.run('UPDATE revision_log SET at = DATE_SUB(at, INTERVAL 1 DAY)');
const day = (ago: number) => new Date(Date.now() - ago * 86_400_000).toISOString().slice(0, 10);

describe('what was known on a day', () => {
  let first: { estimate: { amount: string }; comparables: { id: string }[] };
  let second: typeof first;

  test('is what had been entered by its end: rows that came later and rates that changed later do not count', async () => {
    await rate('11.0');
    await send([
      ...Array.from({ length: 12 }, (_, i) => sale(`2026-03-${String(i + 1).padStart(2, '0')}`, 100 + i)),
      sale('2026-04-01', 1300, 'SEK'),
    ]);
    first = await ask();
    await letADayPass();
    await rate('13.0');
    await send(
      Array.from({ length: 9 }, (_, i) => sale(`2026-05-${String(i + 1).padStart(2, '0')}`, 160 + i)),
    );
    second = await ask();
    expect(Number(second.estimate.amount)).toBeGreaterThan(Number(first.estimate.amount) * 1.1);
    expect(await ask({ knownOn: day(1) })).toEqual(first);
    expect(await ask({ knownOn: day(0) })).toEqual(second);
  });

  test('holds a sale that was set aside since', async () => {
    await letADayPass();
    const gone = second.comparables.slice(0, 3).map((c) => c.id);
    const reply = await server.owner.call('POST', '/comparables/states', {
      ids: gone,
      state: 'set-aside',
      reason: 'the house took them back',
    });
    expect(reply.status).toBe(200);
    expect((await ask()).comparables.some((c: { id: string }) => gone.includes(c.id))).toBe(false);
    const then = await ask({ knownOn: day(1) });
    expect(gone.every((id) => then.comparables.some((c: { id: string }) => c.id === id))).toBe(true);
    expect(Math.abs(Number(then.estimate.amount) / Number(second.estimate.amount) - 1)).toBeLessThan(0.01);
    expect(await ask({ knownOn: day(2) })).toEqual(first);
    // taken back in, it counts again from now on, and on the day between it did not
    await server.owner.call('POST', '/comparables/states', { ids: gone, state: 'kept' });
    expect(await ask({ knownOn: day(1) })).toEqual(then);
  });

  test('before anything was entered nothing is near it, and the route answers', async () => {
    const nothing = await ask({ knownOn: '2020-01-01' });
    expect(nothing.supported).toBe(false);
    expect(nothing.comparables).toEqual([]);
  });

  test('a grade word stands for what the shop’s own scale says it is', async () => {
    await send(
      Array.from(
        { length: 30 },
        (_, i) =>
          `2026-0${1 + (i % 8)}-1${i % 9},${90 + (i % 5)},EUR,sold,Lantern Row,online,jack,second,${60 + i}`,
      ),
    );
    const form = new FormData();
    form.set(
      'file',
      new Blob([
        [
          'sale_date,price,currency,price_kind,venue,venue_kind,pattern,variant,grade_scale,grade',
          ...Array.from(
            { length: 12 },
            (_, i) => `2026-06-${10 + i},140,EUR,sold,Lantern Row,online,jack,first,collector,excellent`,
          ),
        ].join('\n'),
      ]),
      'words.csv',
    );
    await server.owner.call('POST', '/comparables/import', form);
    const before = Number((await ask()).estimate.amount);
    const scale = documentOf(SHIPPED_RULES, 'collector') as ScaleRules;
    const at = scale.grades.findIndex(({ grade }) => grade === 'excellent');
    const lower = scale.grades.map((g, i) =>
      i < at ? g : { ...g, from: i === scale.grades.length - 1 ? 0 : 40 - 8 * (i - at) },
    );
    const kept = await server.owner.call('POST', '/condition-rules', {
      document: { ...scale, grades: lower },
      note: 'excellent reaches lower here',
    });
    expect([kept.status, kept.body.errors]).toEqual([201, undefined]);
    // the same sales were of poorer pieces: one in good condition is worth more than they brought
    expect(Number((await ask()).estimate.amount)).toBeGreaterThan(before * 1.002);
  });

  test('a day that is none is told at its place', async () => {
    const reply = await server.owner.call('POST', '/valuations/estimate', {
      subject: { pattern: 'jack', variants: [] },
      asOf: '2026-11-01',
      knownOn: '2026-02-30',
      currency: 'EUR',
      venueKind: 'auction',
    });
    expect(reply.status).toBe(422);
    expect(reply.body.errors[0].pointer).toBe('/knownOn');
  });
});
