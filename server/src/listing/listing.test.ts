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
    expect((await draft(piece)).blocks.map((b: any) => b.text).join(' ')).toMatch(/inspection/i);
    const refused = await publish(piece);
    expect(refused.status).toBe(422);
    expect(JSON.stringify(refused.body.errors)).toMatch(/inspection/i);
    expect((await now(piece)).listing).toBeNull();
  });
  test('neither does one without a price', async () => {
    let piece = await readyToSell(server);
    piece = await put(piece, 'pricing', { ask: null, floor: null, note: '' });
    expect((await draft(piece)).blocks.map((b: any) => b.text).join(' ')).toMatch(/price/i);
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

describe('the desk, and what happens to a listing once it is up', () => {
  const usual = async () => {
    const { body, etag } = await server.owner.call<any>('GET', '/paper-settings');
    const put = (listing: object) =>
      server.owner.call<any>(
        'PUT',
        '/paper-settings',
        { ...body.settings, listing: { ...body.settings.listing, ...listing } },
        { 'If-Match': etag ?? '' },
      );
    return { put, listing: body.settings.listing };
  };
  test('what is ready stands first; what lacks a little says what, and where it is mended', async () => {
    const ready = await readyToSell(server);
    let nearly = await readyToSell(server);
    nearly = await put(nearly, 'pricing', { ask: null, floor: null, note: '' });
    const bare = (await call('POST', '/pieces', { ...ready.intake })).body;
    const { items, ready: count } = (await call('GET', '/listing-desk')).body;
    const row = (id: string) => items.find((r: any) => r.id === id);
    expect(row(ready.id)?.missing).toEqual([]);
    expect(row(nearly.id)?.missing).toEqual([{ stage: 'worth', text: 'Set a price.' }]);
    expect(row(bare.id)).toBeUndefined();
    expect(items.slice(0, count).every((r: any) => r.missing.length === 0)).toBe(true);
    await publish(ready);
    expect((await call('GET', '/listing-desk')).body.items.map((r: any) => r.id)).not.toContain(ready.id);
  });
  test('the shop’s own order and words stand in every draft, and no section can be lost', async () => {
    const piece = await readyToSell(server);
    const before = (await draft(piece)).written.body;
    const { put: keep } = await usual();
    expect((await keep({ order: ['nowhere'] })).status).toBe(422);
    await keep({
      order: ['cautions', 'claim'],
      reason: 'Sold to make room.',
      postageHome: '€7.00, tracked',
      offers: 'open',
    });
    const { written, problems } = await draft(piece);
    expect(written.body).toMatch(/^Sold to adults only/);
    for (const line of ['Sold to make room.', 'Postage at home: €7.00, tracked', 'Open to offers.'])
      expect(written.body).toContain(line);
    for (const paragraph of before.split('\n\n')) expect(written.body).toContain(paragraph);
    expect(problems).toEqual([]);
    const { put: back } = await usual();
    await back({ order: [], reason: '', postageHome: '', offers: 'unsaid' });
  });
  test('a price that changes is told outside; taken away, it is refused while it is up', async () => {
    let piece = (await publish(await readyToSell(server))).body;
    piece = await put(piece, 'pricing', { ask: { amount: '99.00', currency: 'EUR' }, floor: null, note: '' });
    const told = await server.database.rows<any>(
      "SELECT body FROM outbox WHERE piece_id = ? AND kind = 'reprice'",
      [piece.id],
    );
    expect(told.map((row) => row.body.price.amount)).toEqual(['99.00']);
    const none = await call(
      'PUT',
      `/pieces/${piece.id}/pricing`,
      { ask: null, floor: null, note: '' },
      piece.version,
    );
    expect(none.status).toBe(409);
  });
  test('taken down with a reason it is a draft again, with its text, and goes up again', async () => {
    const piece = await readyToSell(server);
    const up = (await publish(piece)).body;
    const down = (body: object, version: number) =>
      call('POST', `/pieces/${piece.id}/listing/take-down`, body, version);
    expect((await down({ because: '' }, up.version)).body.errors[0].pointer).toBe('/because');
    const draftAgain = (await down({ because: 'A buyer comes to see it.' }, up.version)).body;
    expect(draftAgain.listing).toMatchObject({
      state: 'draft',
      title: up.listing.title,
      body: up.listing.body,
    });
    expect((await down({ because: 'again' }, draftAgain.version)).status).toBe(409);
    expect((await publish(draftAgain)).body.listing.state).toBe('published');
    const kinds = (await call('GET', `/pieces/${piece.id}/ledger?limit=50`)).body.items.map(
      (e: any) => e.kind,
    );
    expect(kinds.filter((k: string) => k === 'published')).toHaveLength(2);
    expect(kinds).toContain('taken-down');
  });
  test('taken down and put up again: what is to end is named, so that the new listing is not taken for it', async () => {
    const up = (await publish(await readyToSell(server))).body;
    const first = up.listing.marketplaceRef;
    const down = (
      await call('POST', `/pieces/${up.id}/listing/take-down`, { because: 'A mistake.' }, up.version)
    ).body;
    const [told] = await server.database.rows<any>(
      "SELECT body FROM outbox WHERE piece_id = ? AND kind = 'end'",
      [up.id],
    );
    expect(told.body.ref).toBe(first);
    const again = (await publish(down)).body;
    expect(again.listing.marketplaceRef).not.toBe(first);
  });
  test('an offer is countered; whoever made it takes the price that was named', async () => {
    let piece = (await publish(await readyToSell(server))).body;
    piece = (await call('POST', `/pieces/${piece.id}/listing/messages/fetch`, {})).body;
    const offer = piece.listing.messages.find((m: any) => m.kind === 'offer');
    const question = piece.listing.messages.find((m: any) => m.kind === 'question');
    const reply = (message: any, body: object) =>
      call('POST', `/pieces/${piece.id}/listing/messages/${message.id}/answer`, body);
    const counter = { amount: '114.00', currency: 'EUR' };
    expect((await reply(question, { counter })).body.errors[0].pointer).toBe('/counter');
    expect((await reply(offer, { counter: { amount: '-1', currency: 'EUR' } })).status).toBe(422);
    piece = (await reply(offer, { counter })).body;
    expect(piece.listing.messages.find((m: any) => m.id === offer.id)).toMatchObject({
      state: 'countered',
      answer: expect.stringContaining('€114.00'),
    });
    piece = (await call('POST', `/pieces/${piece.id}/listing/messages/fetch`, {})).body;
    const agreed = piece.listing.messages.find((m: any) => m.kind === 'offer' && m.state === 'open');
    expect(agreed).toMatchObject({ amount: counter, from: offer.from });
  });
  test('a second example has what is common to the kind and nothing that is the piece’s own', async () => {
    const piece = await readyToSell(server);
    const second = (await call('POST', `/pieces/${piece.id}/second-example`)).body;
    expect(second).toMatchObject({
      title: piece.title,
      construction: piece.construction,
      observations: [{ feature: 'lanyard', value: 'bar' }],
      attribution: null,
      pictures: [],
      condition: { findings: [], inspected: false },
      pricing: { ask: null },
    });
    expect(second.intake).toMatchObject({ price: null, sourceName: '', acquired: null });
    expect(second.stockNumber).not.toBe(piece.stockNumber);
  });
});

describe('in a second language, with postage, and for as long as it runs', () => {
  const keep = async (change: (settings: any) => object) => {
    const { body, etag } = await server.owner.call<any>('GET', '/paper-settings');
    const kept = await server.owner.call<any>('PUT', '/paper-settings', change(body.settings), {
      'If-Match': etag ?? '',
    });
    expect(kept.status).toBe(200);
  };
  const listingSettings = (more: object) => keep((s) => ({ ...s, listing: { ...s.listing, ...more } }));
  afterAll(() =>
    keep((s) => ({
      ...s,
      listing: { ...s.listing, runsForDays: null, second: { language: null } },
      cautions: { minimumAge: null, longBlade: null, own: [] },
    })),
  );
  const told = async (id: string) =>
    (
      await server.database.rows<any>(
        "SELECT body FROM outbox WHERE piece_id = ? AND kind = 'publish' ORDER BY id DESC",
        [id],
      )
    )[0]?.body.listing;

  test('written from the same record, edited for itself, held to the same rules, and put up with the first', async () => {
    await listingSettings({ second: { language: 'de', reason: 'Aus einer Sammlung.' } });
    let piece = await readyToSell(server);
    const { second, written } = await draft(piece);
    expect(second).toMatchObject({ language: 'de', kept: null, problems: [] });
    expect(second.written.body).toContain('Aus einer Sammlung.');
    expect(second.written.body).toMatch(/umgeschliffen/);
    expect(written.body).not.toMatch(/umgeschliffen|Sammlung/);
    // what it leaves out stops it, as in English
    piece = await put(piece, 'listing', { title: 'Ein Messer', body: 'Ein feines Messer.', language: 'de' });
    expect((await draft(piece)).second.problems.map((p: any) => p.kind)).toContain('disclosure-dropped');
    const refused = await publish(piece);
    expect(refused.status).toBe(422);
    expect(JSON.stringify(refused.body.errors)).toMatch(/Deutsch: .*umgeschliffen/);
    piece = await put(piece, 'listing', { ...second.written, title: 'Ein Messer', language: 'de' });
    expect((await publish(piece)).status).toBe(200);
    expect(await told(piece.id)).toMatchObject({
      title: written.title,
      translations: [{ language: 'de', title: 'Ein Messer', body: second.written.body }],
    });
    expect(
      (await call('PUT', `/pieces/${piece.id}/listing`, { ...written, language: 'fr' }, piece.version))
        .status,
    ).toBe(422);
    await listingSettings({ second: { language: null } });
  });

  test('the shop’s own age and cautions must stand in the text', async () => {
    const piece = await readyToSell(server);
    const { written } = await draft(piece);
    const kept = await put(piece, 'listing', written);
    await keep((s) => ({
      ...s,
      cautions: { minimumAge: 21, longBlade: null, own: [{ text: 'Posted to a checked address.' }] },
    }));
    const { problems, cautions } = await draft(kept);
    expect(problems.map((p: any) => p.detail).join(' ')).toMatch(/21 years.*Posted to a checked address/s);
    expect(cautions).toContain('Posted to a checked address.');
    expect((await draft(kept)).cautionsAtCounter[0]).toMatch(/21 years/);
    expect((await publish(kept)).status).toBe(422);
    expect((await publish(await put(kept, 'listing', (await draft(kept)).written))).status).toBe(200);
    await keep((s) => ({ ...s, cautions: { minimumAge: null, longBlade: null, own: [] } }));
  });

  test('a quote that was taken is printed, and reckoned with', async () => {
    const piece = await readyToSell(server);
    const taken = await call('POST', `/pieces/${piece.id}/postage`, {}, piece.version);
    expect(taken.status).toBe(200);
    expect((await call('POST', `/pieces/${piece.id}/postage`, {}, piece.version)).status).toBe(412);
    const { postage, written } = await draft(taken.body);
    expect(postage.quotes.map((q: any) => q.zone)).toEqual(['home', 'near', 'far', 'overseas']);
    expect(postage.quotes.every((q: any) => q.tracked)).toBe(true);
    expect(written.body).toMatch(/Postage at home: €\d+\.\d\d \(.*Tracked parcel/);
    const after = (await call('GET', `/pieces/${piece.id}/money`)).body;
    // the buyer pays it and the carrier gets it
    const { price } = postage.quotes[0];
    const gross = (Number(after.money.net.gross) - Number(price.amount)).toFixed(2);
    expect([after.money.net.postageCost, gross]).toEqual([price.amount, piece.pricing.ask.amount]);
    const sold = await call('POST', `/pieces/${piece.id}/sale`, {
      price: { amount: '110.00', currency: 'EUR' },
      channel: (await call('GET', '/pricing-settings')).body.settings.usualChannel,
      buyerName: 'Greta Sundholm',
      ageChecked: true,
    });
    expect(sold.body.net.postageCost).toBe(price.amount);
  });

  test('run out it waits on the desk, is no longer up, and goes up again', async () => {
    await listingSettings({ runsForDays: 30 });
    let piece = (await publish(await readyToSell(server))).body;
    const { expiresOn } = piece.listing;
    expect(Math.round((Date.parse(expiresOn) - Date.now()) / 86_400_000)).toBeGreaterThanOrEqual(29);
    expect(await told(piece.id)).toMatchObject({ until: expiresOn });
    expect((await publish(piece)).status).toBe(409);
    await server.database.run("UPDATE listing SET expires_on = '2026-01-31' WHERE piece_id = ?", [piece.id]);
    piece = await now(piece);
    expect(piece.attention).toContain('Its listing has run out');
    expect((await call('GET', '/listing-desk')).body.items.map((r: any) => r.id)).toContain(piece.id);
    const again = await publish(piece);
    expect(again.status).toBe(200);
    expect(again.body.listing.expiresOn).toBe(expiresOn);
    await listingSettings({ runsForDays: null });
  });

  test('a question is answered from the record', async () => {
    let piece = (await publish(await readyToSell(server))).body;
    piece = (await call('POST', `/pieces/${piece.id}/listing/messages/fetch`, {})).body;
    const question = piece.listing.messages.find((m: any) => m.kind === 'question');
    await server.database.run('UPDATE market_message SET words = ? WHERE id = ?', [
      'Was the blade ever reground?',
      question.id,
    ]);
    const { items } = (await call('GET', `/pieces/${piece.id}/listing/messages/${question.id}/answers`)).body;
    expect(items[0]).toMatch(/reground/);
    expect((await call('GET', `/pieces/${piece.id}/listing/messages/${piece.id}/answers`)).status).toBe(404);
  });
});

describe('offered in several places', () => {
  test('sold in one, it says where it is still to be taken down, until that is done', async () => {
    let piece = await readyToSell(server);
    const settings = (await call('GET', '/pricing-settings')).body.settings;
    const other = settings.channels.find((c: any) => c.id !== settings.usualChannel);
    const offer = (channels: string[]) =>
      call('PUT', `/pieces/${piece.id}/offered-at`, { channels }, piece.version);
    expect((await offer(['nowhere'])).body.errors[0].pointer).toBe('/channels/0');
    expect((await offer([settings.usualChannel])).status).toBe(422);
    piece = (await offer([other.id])).body;
    expect(piece.offeredAt).toMatchObject([{ channel: other.id, name: other.name }]);
    const down = () => call('POST', `/pieces/${piece.id}/offered-at/taken-down`, { channel: other.id });
    expect((await down()).status).toBe(409);
    await call('POST', `/pieces/${piece.id}/sale`, {
      price: { amount: '110.00', currency: 'EUR' },
      buyerName: 'Greta Sundholm',
      ageChecked: true,
    });
    expect((await now(piece)).attention).toEqual([`It has left, and is still offered: ${other.name}`]);
    const warned = (await call('GET', '/inventory?warned=1&limit=200')).body.items;
    expect(warned.find((r: any) => r.id === piece.id)?.warnings).toHaveLength(1);
    expect((await down()).body.offeredAt).toEqual([]);
    expect((await now(piece)).attention).toEqual([]);
    expect((await down()).status).toBe(409);
  });
});
