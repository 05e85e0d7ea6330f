/** What the other rooms' tests leave open: selling over the counter, declining, lists, settings, a market that is away. */
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { Drawing } from '@jutbank/core/drawing';
import { intake, readyToSell, serverForTest, testPack, type TestServer } from '../testing/index.ts';

let server: TestServer;
beforeAll(async () => {
  server = await serverForTest();
  await server.owner.call('POST', '/reference-packs', testPack);
});
afterAll(() => server.close());

const put = async (piece: any, path: string, body: unknown) =>
  (await server.owner.call('PUT', `/pieces/${piece.id}/${path}`, body, { 'if-match': `"v${piece.version}"` }))
    .body;
const ready = (more: object = {}): Promise<any> => readyToSell(server, more);

describe('over the counter', () => {
  test('needs a decision, a price and a buyer; keeps all of it without fees', async () => {
    const bare = (await server.owner.call('POST', '/pieces', intake)).body;
    const early = await server.owner.call('POST', `/pieces/${bare.id}/sale`, {
      price: { amount: '10', currency: 'EUR' },
      buyerName: 'B',
      ageChecked: true,
    });
    expect(early.status).toBe(409);
    const piece = await ready();
    const sell = (body: object) =>
      server.owner.call('POST', `/pieces/${piece.id}/sale`, { ageChecked: true, ...body });
    expect((await sell({ price: { amount: '100', currency: 'EUR' } })).body.errors[0].pointer).toBe(
      '/buyerName',
    );
    expect((await sell({ buyerName: 'Greta Sundholm' })).body.errors[0].pointer).toBe('/price');
    expect(
      (await sell({ buyerName: 'Greta Sundholm', price: { amount: '-1', currency: 'EUR' } })).status,
    ).toBe(422);
    const sold = await sell({ buyerName: 'Greta Sundholm', price: { amount: '101.50', currency: 'EUR' } });
    expect(sold.body).toMatchObject({
      net: { gross: '101.50', commission: '0.00', net: '101.50' },
      cost: { amount: '58.00' },
      margin: { amount: '43.50', currency: 'EUR' },
    });
    const comparable = (await server.owner.call('GET', '/comparables?limit=1')).body.items[0];
    expect(comparable).toMatchObject({
      venueKind: 'retail',
      variantName: 'Second form',
      cells: { alterations: 'reground', source: 'own sale', note: piece.stockNumber },
    });
  });

  test('through a channel of the shop’s, with tax on the margin: by hand to the cent', async () => {
    const { body, etag } = await server.owner.call('GET', '/pricing-settings');
    const put = (tax: object, seen: string | null) =>
      server.owner.call('PUT', '/pricing-settings', { ...body.settings, tax }, { 'If-Match': seen ?? '' });
    const taxed = await put({ on: 'margin', pct: 21 }, etag);
    const piece = await ready();
    const sell = (channel: string) =>
      server.owner.call('POST', `/pieces/${piece.id}/sale`, {
        ageChecked: true,
        buyerName: 'Greta Sundholm',
        price: { amount: '101.50', currency: 'EUR' },
        channel,
      });
    expect((await sell('nowhere')).body.errors[0].pointer).toBe('/channel');
    // 8 % = 8.12, 2.5 % = 2.54 and 0.30; 43.50 gained · 21/121 = 7.55; 101.50 − 8.12 − 2.84 − 7.55 = 82.99
    expect((await sell('quayside')).body).toMatchObject({
      net: { channel: 'Quayside market', net: '90.54', tax: '7.55', left: '82.99' },
      margin: { amount: '24.99', currency: 'EUR' },
    });
    await put({ on: 'none', pct: 0 }, taxed.etag);
  });

  test('a cost in a currency without a rate leaves the margin open, not wrong', async () => {
    const piece = await ready({ price: { amount: '500', currency: 'SEK' } });
    const sold = await server.owner.call('POST', `/pieces/${piece.id}/sale`, {
      ageChecked: true,
      buyerName: 'B',
      price: { amount: '80', currency: 'EUR' },
    });
    expect(sold.body).toMatchObject({ cost: { amount: '500.00', currency: 'SEK' }, margin: null });
  });

  test('a certificate never claims an inspection that was not made', async () => {
    let piece = await ready();
    piece = await put(piece, 'condition', { findings: [], completeness: {}, inspected: false });
    const sold = await server.owner.call('POST', `/pieces/${piece.id}/sale`, {
      ageChecked: true,
      buyerName: 'B',
      price: { amount: '80', currency: 'EUR' },
    });
    const check = (await server.nobody().call('GET', `/certificates/${sold.body.certificateCode}`)).body;
    expect(check).toMatchObject({ inspected: false, grade: null, findings: [] });
  });

  test('a piece without a photograph is drawn on its certificate, as it was drawn then', async () => {
    const piece = await put(await ready(), 'pictures', { pictures: [] });
    expect(piece.pictures).toEqual([]);
    const sold = await server.owner.call('POST', `/pieces/${piece.id}/sale`, {
      ageChecked: true,
      buyerName: 'B',
      price: { amount: '80', currency: 'EUR' },
    });
    const kept = await server.database.row<{ drawing: Drawing | null }>(
      'SELECT drawing FROM sale WHERE id = ?',
      [sold.body.id],
    );
    expect(kept?.drawing?.parts.map((part) => part.part)).toContain('scales');
    const pdf = await server.owner.call('GET', `/sales/${sold.body.id}/certificate.pdf`);
    expect(String(pdf.body)).toContain('/Figure');
  });

  test('sold once, even when two click at the same moment', async () => {
    const piece = await ready();
    const sell = () =>
      server.owner.call('POST', `/pieces/${piece.id}/sale`, {
        ageChecked: true,
        buyerName: 'B',
        price: { amount: '80', currency: 'EUR' },
      });
    const statuses = (await Promise.all([sell(), sell(), sell()])).map((r) => r.status).sort();
    expect(statuses).toEqual([201, 409, 409]);
  });

  test('sales are listed newest first and found one by one; unknown ones are not', async () => {
    const list = (await server.owner.call('GET', '/sales?limit=2')).body;
    expect(list.total).toBe(6);
    expect(list.items).toHaveLength(2);
    expect(
      (await server.owner.call('GET', `/sales?limit=2&cursor=${list.nextCursor}`)).body.items,
    ).toHaveLength(2);
    expect((await server.owner.call('GET', `/sales/${list.items[0].id}`)).body.invoiceNumber).toBe(
      list.items[0].invoiceNumber,
    );
    expect((await server.owner.call('GET', '/sales/01ARZ3NDEKTSV4RRFFQ69G5FAV')).status).toBe(404);
    expect((await server.owner.call('GET', '/sales?cursor=nonsense')).status).toBe(422);
  });
});

describe('offers and questions', () => {
  test('a declined offer is answered, and cannot be accepted afterwards', async () => {
    let piece = await ready();
    expect((await server.owner.call('POST', `/pieces/${piece.id}/listing/messages/fetch`, {})).status).toBe(
      409,
    );
    piece = (
      await server.owner.call(
        'POST',
        `/pieces/${piece.id}/listing/publish`,
        {},
        { 'if-match': `"v${piece.version}"` },
      )
    ).body;
    expect(
      (
        await server.owner.call(
          'POST',
          `/pieces/${piece.id}/listing/publish`,
          {},
          { 'if-match': `"v${piece.version}"` },
        )
      ).status,
    ).toBe(409);
    piece = (await server.owner.call('POST', `/pieces/${piece.id}/listing/messages/fetch`, {})).body;
    const offer = piece.listing.messages.find((m: any) => m.kind === 'offer');
    expect(
      (
        await server.owner.call('POST', `/pieces/${piece.id}/listing/messages/${offer.id}/answer`, {
          decline: true,
        })
      ).status,
    ).toBe(200);
    const late = await server.owner.call('POST', `/pieces/${piece.id}/sale`, {
      message: offer.id,
      buyerName: offer.from,
      ageChecked: true,
    });
    expect(late.status).toBe(409);
    expect((await server.owner.call('GET', `/pieces/${piece.id}`)).body.stage).toBe('listed');
    expect((await put(piece, 'listing', { title: 'T', body: 'B' })).status).not.toBe(200);
  });

  test('a marketplace that does not answer changes nothing', async () => {
    const away = await serverForTest();
    try {
      await away.owner.call('POST', '/reference-packs', testPack);
      const before = (await away.owner.call('POST', '/pieces', intake)).body;
      await away.database.run(
        "INSERT INTO listing (piece_id, state, title, body, published_at, marketplace_ref) VALUES (?, 'published', 't', 'b', UTC_TIMESTAMP(), 'gone')",
        [before.id],
      );
      const reply = await away.owner.call('POST', `/pieces/${before.id}/listing/messages/fetch`, {});
      expect(reply.status).toBe(502);
      expect(reply.body.detail).toContain('try again later');
      expect((await away.owner.call('GET', `/pieces/${before.id}`)).body.version).toBe(before.version);
    } finally {
      await away.close();
    }
  });
});

describe('readings of a stored piece', () => {
  test('identification, worth, and why there is none', async () => {
    const bare = (await server.owner.call('POST', '/pieces', intake)).body;
    expect((await server.owner.call('GET', `/pieces/${bare.id}/worth`)).body).toMatchObject({
      worth: null,
      why: expect.stringContaining('bench'),
    });
    const piece = await ready();
    expect((await server.owner.call('GET', `/pieces/${piece.id}/worth`)).body).toMatchObject({
      pattern: 'jack',
      worth: { level: 0.8 },
    });
    const identification = (await server.owner.call('GET', `/pieces/${piece.id}/identification`)).body;
    const asked = (
      await server.owner.call('POST', '/identify', {
        observations: [{ feature: 'lanyard', value: 'bar' }],
        within: { constructions: ['slipjoint'], patterns: [] },
        found: 'fair',
        decided: { variant: piece.attribution.variant, pattern: 'jack' },
      })
    ).body;
    expect(identification).toEqual(asked);
  });

  test('unknown pieces are not found, whatever is asked of them', async () => {
    const id = '01ARZ3NDEKTSV4RRFFQ69G5FAV';
    for (const path of ['', '/identification', '/worth', '/listing/draft'])
      expect((await server.owner.call('GET', `/pieces/${id}${path}`)).status).toBe(404);
    expect((await server.owner.call('GET', '/pieces/not-an-id')).status).toBe(422);
    expect((await put({ id, version: 1 }, 'intake', intake)).status).toBe(404);
  });

  test('a page of slips is computed once, and anew when something moved', async () => {
    const basis = async () =>
      (
        await server.database.rows<{ basis: string }>('SELECT basis FROM piece_reading ORDER BY piece_id')
      ).map((r) => r.basis);
    await server.owner.call('GET', '/pieces?limit=50');
    const before = await basis();
    await server.owner.call('GET', '/pieces?limit=50');
    expect(await basis()).toEqual(before);
    await server.owner.call('POST', '/comparables', {
      sale_date: '2026-05-02',
      price: '130',
      currency: 'EUR',
      price_kind: 'sold',
      venue_kind: 'fair',
      pattern: 'jack',
      variant: 'second',
    });
    await server.owner.call('GET', '/pieces?limit=50');
    expect(await basis()).not.toEqual(before);
  });
});

test('settings: the owner names the shop and its stock numbers; a scheme without a place is refused', async () => {
  const change = (body: object) => server.owner.call('PUT', '/shop', body);
  expect((await change({ name: 'Hollin Quay', stockScheme: 'HQ' })).body.errors[0].pointer).toBe(
    '/stockScheme',
  );
  expect((await change({ name: 'Hollin Quay', stockScheme: 'Q{00000}' })).body).toMatchObject({
    name: 'Hollin Quay',
    stockScheme: 'Q{00000}',
  });
  expect((await server.owner.call('POST', '/pieces', intake)).body.stockNumber).toMatch(/^Q\d{5}$/);
  expect((await server.owner.call('GET', '/people')).body.items).toHaveLength(1);
  expect((await server.owner.call('GET', '/exchange-rates')).body).toEqual({
    base: 'EUR',
    latest: [],
    missing: [],
  });
});
