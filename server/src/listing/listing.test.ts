/** What a listing may say, when it may go up, and what becomes of it: as its writer, its reader and the marketplace meet it. */
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { readyToSell, serverForTest, testPack, type TestServer } from '../testing/index.ts';

let server: TestServer;
beforeAll(async () => {
  server = await serverForTest();
  await server.owner.call('POST', '/reference-packs', testPack);
});
afterAll(() => server.close());

const call = (method: string, path: string, body?: unknown, version?: number): Promise<any> =>
  server.owner.call(method, path, body, version === undefined ? {} : { 'if-match': `"v${version}"` });
const put = async (piece: any, path: string, body: unknown) =>
  (await call('PUT', `/pieces/${piece.id}/${path}`, body, piece.version)).body;
const draft = async (piece: any) => (await call('GET', `/pieces/${piece.id}/listing/draft`)).body;
const publish = (piece: any) => call('POST', `/pieces/${piece.id}/listing/publish`, {}, piece.version);
const now = async (piece: any) => (await call('GET', `/pieces/${piece.id}`)).body;

describe('before it goes up', () => {
  test('a piece that was not inspected does not, and nothing of it is put up', async () => {
    let piece = await readyToSell(server);
    piece = await put(piece, 'condition', { findings: [], completeness: {}, inspected: false });
    expect((await draft(piece)).blocks.join(' ')).toMatch(/inspection/i);
    const refused = await publish(piece);
    expect(refused.status).toBe(422);
    expect(JSON.stringify(refused.body.errors)).toMatch(/inspection/i);
    expect((await now(piece)).listing).toBeNull();
  });
  test('neither does one without a price', async () => {
    let piece = await readyToSell(server);
    piece = await put(piece, 'pricing', { ask: null, floor: null, note: '' });
    expect((await draft(piece)).blocks.join(' ')).toMatch(/price/i);
    expect((await publish(piece)).status).toBe(422);
  });
  test('a text that leaves out what is known is refused, and told what it leaves out', async () => {
    let piece = await readyToSell(server);
    const { written } = await draft(piece);
    expect(written.body).toMatch(/reground/i);
    piece = await put(piece, 'listing', { title: written.title, body: 'A fine old knife.' });
    const { problems } = await draft(piece);
    expect(problems.map((p: any) => p.kind)).toContain('disclosure-dropped');
    const refused = await publish(piece);
    expect(refused.status).toBe(422);
    expect(JSON.stringify(refused.body.errors)).toMatch(/reground/i);
    // told again, it goes up
    piece = await put(piece, 'listing', written);
    expect((await publish(piece)).status).toBe(200);
  });
  test('a claim that the evidence does not carry is refused', async () => {
    let piece = await readyToSell(server);
    const { written } = await draft(piece);
    piece = await put(piece, 'listing', {
      title: written.title,
      body: `${written.body}\nGuaranteed genuine and confirmed.`,
    });
    expect((await publish(piece)).status).toBe(422);
  });
});

describe('once it is up', () => {
  test('its text stays as it is; a price that was seen is the price that is up', async () => {
    let piece = await readyToSell(server);
    piece = (await publish(piece)).body;
    expect(piece).toMatchObject({ stage: 'listed', listing: { state: 'published' } });
    expect(
      (await call('PUT', `/pieces/${piece.id}/listing`, { title: 'T', body: 'B' }, piece.version)).status,
    ).toBe(409);
  });
  test('sold over the counter, it is taken down here and outside', async () => {
    let piece = await readyToSell(server);
    piece = (await publish(piece)).body;
    const reference = (await now(piece)).listing.marketplaceRef;
    expect(reference).toEqual(expect.any(String));
    const sold = await call('POST', `/pieces/${piece.id}/sale`, {
      price: { amount: '110.00', currency: 'EUR' },
      buyerName: 'Greta Sundholm',
      ageChecked: true,
    });
    expect(sold.status).toBe(201);
    piece = await now(piece);
    expect(piece).toMatchObject({ stage: 'sold', listing: { state: 'ended' } });
    // if anything is left to be told outside, it is that it has ended; nothing more is asked there
    expect(piece.listing.waiting.filter((errand: any) => errand.kind !== 'end')).toEqual([]);
    expect((await call('POST', `/pieces/${piece.id}/listing/messages/fetch`, {})).status).toBe(409);
    expect((await publish(piece)).status).toBe(409);
  });
});
