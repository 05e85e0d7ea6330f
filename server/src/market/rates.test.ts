import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { serverForTest, type TestServer } from '../testing/index.ts';

let server: TestServer;
beforeAll(async () => {
  server = await serverForTest();
});
afterAll(() => server.close());

const known = async () => (await server.owner.call('GET', '/exchange-rates')).body;
const list = (text: string) => {
  const form = new FormData();
  form.set('file', new Blob([text], { type: 'text/csv' }), 'bank.csv');
  return form;
};
const importRates = (text: string, check = '') =>
  server.owner.call('POST', `/exchange-rates/import${check}`, list(text));

describe('rates from a list', () => {
  const text = 'date;SEK;GBP\n2026-10-30;11,431;0,86\n2026-10-31;much;0,87\n2026-10-32;1;1\n';
  test('are tried without being stored, each error at its line and column', async () => {
    const tried = await importRates(text, '?check=1');
    expect(tried.body).toMatchObject({ rows: 3, added: 3, updated: 0 });
    expect(
      tried.body.errors.map((e: { line: number; column: string; columnNumber: number }) => [
        e.line,
        e.column,
        e.columnNumber,
      ]),
    ).toEqual([
      [3, 'SEK', 2],
      [4, 'date', 1],
    ]);
    expect((await known()).latest).toEqual([]);
  });
  test('go in, the good ones, with where they come from; a second time nothing is new', async () => {
    expect((await importRates(text)).body).toMatchObject({ added: 3 });
    expect((await importRates(text)).body).toMatchObject({ added: 0, unchanged: 3 });
    const { latest } = await known();
    expect(
      latest.map((r: { currency: string; date: string; rate: string }) => [r.currency, r.date, r.rate]),
    ).toEqual([
      ['GBP', '2026-10-31', '0.87'],
      ['SEK', '2026-10-30', '11.431'],
    ]);
    expect(latest[0].source).toBe('bank.csv');
  });
  test('without a column for the day there is nothing to read', async () => {
    const refused = await importRates('SEK;GBP\n1;2\n');
    expect(refused.status).toBe(422);
    expect(refused.body.errors[0].pointer).toBe('/file');
    expect((await server.owner.call('POST', '/exchange-rates/import', new FormData())).status).toBe(422);
  });
});

describe('rates from the source', () => {
  test('are fetched once for each day, and the revision of the estimates moves', async () => {
    const first = (await server.owner.call('POST', '/exchange-rates/fetch', {})).body;
    expect(first.source).toContain('simulated');
    expect(first.added).toBeGreaterThan(1000);
    const again = (await server.owner.call('POST', '/exchange-rates/fetch', {})).body;
    expect(again.added + again.updated).toBe(0);
    const sek = (await known()).latest.find((r: { currency: string }) => r.currency === 'SEK');
    expect(sek.source).toContain('Harbour Exchange');
    expect(sek.before).toHaveLength(40);
  });
  test('by themselves only where the shop wants it, and once a day', async () => {
    const { dailyRates } = server.app;
    expect(await dailyRates.look()).toBe(false);
    const { body, etag } = await server.owner.call('GET', '/pricing-settings');
    await server.owner.call(
      'PUT',
      '/pricing-settings',
      { ...body.settings, dailyRates: true },
      { 'If-Match': etag ?? '' },
    );
    await server.database.run("DELETE FROM exchange_rate WHERE source LIKE 'source: %'");
    expect(await dailyRates.look()).toBe(true);
    // at a weekend the source has none of today, and asking again brings nothing
    await dailyRates.look();
    expect((await known()).latest.length).toBeGreaterThan(5);
  });
  test('a currency of prices without a rate is named', async () => {
    await server.owner.call('POST', '/exchange-rates', { base: 'EUR', rates: [] });
    expect((await known()).missing).toEqual([]);
  });
});
