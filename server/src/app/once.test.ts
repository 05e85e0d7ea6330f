/** A request that is sent twice with one key is carried out once, and answered twice with the same. */
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import sharp from 'sharp';
import { allRoutes } from '@jutbank/contract/openapi';
import { csv, intake, readyToSell, serverForTest, testPack, type TestServer } from '../testing/index.ts';

let server: TestServer;
beforeAll(async () => {
  server = await serverForTest();
  await server.owner.call('POST', '/reference-packs', testPack);
});
afterAll(() => server.close());

/** POST routes that reckon and change nothing: they need no key. */
const RECKON_ONLY = new Set([
  'post /reference-packs/review',
  'post /lots/allocation',
  'post /gauges/:id/press',
  'post /identify',
  'post /grade',
  'post /condition-rules/trial',
  'post /comparables/look',
  'post /stock-lists/look',
  'post /valuations/estimate',
  'post /pieces/:id/appraisals/draft',
  'post /appraisals/:id/recompute',
  'post /offers/net',
  'post /offers/break-even',
  'post /offers/most-to-pay',
  'post /fair/judge',
  'post /fair/look',
  'post /pieces/:id/offers/judge',
]);

test('every POST of the document honours a key, or only reckons', () => {
  const wrong = allRoutes.flatMap((route) => {
    const name = `${route.method} ${route.path}`;
    if (route.method !== 'post') return [];
    const mounted = server.app.mounted.get(name);
    if (mounted === undefined) return [`${name} is described and not there`];
    return (mounted === 'reads') === RECKON_ONLY.has(name) ? [] : [`${name} ${mounted}`];
  });
  expect(wrong).toEqual([]);
});

const rowsOf = async (table: string) =>
  Number((await server.database.row<{ n: number }>(`SELECT COUNT(*) AS n FROM ${table}`))?.n);
let key = 0;
/** Sends it twice under one key; what was answered, and by how many rows a table grew. */
async function twice(path: string, body: () => unknown, table: string) {
  const headers = { 'Idempotency-Key': `key-${key++}` };
  const before = await rowsOf(table);
  const first = await server.owner.call('POST', path, body(), headers);
  const second = await server.owner.call('POST', path, body(), headers);
  expect(second.status).toBe(first.status);
  expect(second.body).toEqual(first.body);
  expect(second.etag).toBe(first.etag);
  return { first, grew: (await rowsOf(table)) - before };
}

describe('sent twice', () => {
  test('pieces, lots and what is put in them, prices, offers, sales', async () => {
    const piece = await readyToSell(server);
    const lot = {
      name: 'Lot',
      sourceKind: 'fair',
      sourceName: '',
      acquired: null,
      currency: 'EUR',
      method: 'equal',
      costs: [{ label: 'Price', amount: '10.01' }],
      note: '',
    };
    expect((await twice('/pieces', () => intake, 'piece')).grew).toBe(1);
    const { first, grew } = await twice('/lots', () => lot, 'lot');
    expect([first.status, grew]).toEqual([201, 1]);
    const inLot = { pieces: [{ title: 'One', construction: 'slipjoint', value: null, keep: false }] };
    expect((await twice(`/lots/${first.body.id}/pieces`, () => inLot, 'piece')).grew).toBe(1);
    const row = {
      sale_date: '2026-03-01',
      price: '101',
      currency: 'EUR',
      price_kind: 'sold',
      venue_kind: 'fair',
      pattern: 'jack',
    };
    // without the key the second would be known already
    const price = await twice('/comparables', () => row, 'comparable');
    expect([price.first.status, price.grew]).toEqual([201, 1]);
    const offer = {
      bidder: 'C',
      amount: { amount: '70.00', currency: 'EUR' },
      decision: 'countered',
      counter: { amount: '80.00', currency: 'EUR' },
      note: '',
    };
    expect((await twice(`/pieces/${piece.id}/offers`, () => offer, 'offer')).grew).toBe(1);
    const sale = { ageChecked: true, buyerName: 'B', price: { amount: '80.00', currency: 'EUR' } };
    const sold = await twice(`/pieces/${piece.id}/sale`, () => sale, 'sale');
    expect([sold.first.status, sold.grew]).toEqual([201, 1]);
  });

  test('files: pictures, lists of prices and of rates', async () => {
    const piece = (await server.owner.call('POST', '/pieces', intake)).body;
    const bytes = await sharp({ create: { width: 30, height: 20, channels: 3, background: '#888' } })
      .jpeg()
      .toBuffer();
    const picture = () => {
      const form = new FormData();
      form.set('file', new Blob([new Uint8Array(bytes)]), 'p.jpg');
      return form;
    };
    expect((await twice(`/pieces/${piece.id}/pictures`, picture, 'picture')).grew).toBe(1);
    const list = () => csv(['2026-04-01,77,EUR,sold,Tollgate Rooms,online,jack,first,80']);
    const went = await twice('/comparables/import', list, 'comparable');
    // the second says what the first said: one row was added
    expect([went.first.body.added, went.grew]).toEqual([1, 1]);
    const rates = () => {
      const form = new FormData();
      form.set('file', new Blob(['date,currency,rate\n2026-04-01,SEK,11.4']), 'rates.csv');
      return form;
    };
    expect((await twice('/exchange-rates/import', rates, 'exchange_rate')).first.body.added).toBe(1);
  });

  test('at the same moment, several times: once', async () => {
    const before = await rowsOf('piece');
    const replies = await Promise.all(
      Array.from({ length: 5 }, () =>
        server.owner.call('POST', '/pieces', intake, { 'Idempotency-Key': 'all-at-once' }),
      ),
    );
    expect(new Set(replies.map((r) => r.body.id)).size).toBe(1);
    expect((await rowsOf('piece')) - before).toBe(1);
  });

  test('where the server died between the change and its answer, the answer is told from the change', async () => {
    const headers = { 'Idempotency-Key': 'died' };
    const first = await server.owner.call('POST', '/pieces', intake, headers);
    await server.database.run(
      'UPDATE idempotency_key SET status = NULL, body = NULL, headers = NULL, result = ? WHERE request_key = ?',
      [JSON.stringify({ id: first.body.id }), 'died'],
    );
    const again = await server.owner.call('POST', '/pieces', intake, headers);
    expect([again.status, again.body.id, again.etag]).toEqual([201, first.body.id, first.etag]);
  });

  test('with other words under the same key is refused; another person’s key is another', async () => {
    const headers = { 'Idempotency-Key': 'mine' };
    await server.owner.call('POST', '/pieces', intake, headers);
    const other = await server.owner.call('POST', '/pieces', { ...intake, title: 'Other' }, headers);
    expect(other.status).toBe(422);
  });

  test('a change that was refused is not remembered: put right, it goes through', async () => {
    const headers = { 'Idempotency-Key': 'put right' };
    const lot = {
      name: '',
      sourceKind: 'fair',
      sourceName: '',
      acquired: null,
      currency: 'EUR',
      method: 'equal',
      costs: [],
      note: '',
    };
    expect((await server.owner.call('POST', '/lots', lot, headers)).status).toBe(422);
    const right = await server.owner.call(
      'POST',
      '/lots',
      { ...lot, name: 'Lot', costs: [{ label: 'P', amount: '1.00' }] },
      headers,
    );
    expect(right.status).toBe(201);
  });

  test('a saved version sent again after a lost answer is saved, not refused', async () => {
    const piece = (await server.owner.call('POST', '/pieces', intake)).body;
    const put = () =>
      server.owner.call(
        'PUT',
        `/pieces/${piece.id}/pricing`,
        { ask: { amount: '90.00', currency: 'EUR' }, floor: null, note: '' },
        { 'If-Match': `"v${piece.version}"`, 'Idempotency-Key': 'saved' },
      );
    const [first, second] = [await put(), await put()];
    expect([first.status, second.status]).toEqual([200, 200]);
    expect(second.etag).toBe(first.etag);
  });
});
