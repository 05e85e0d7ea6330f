import { ENGINE_VERSION } from '@jutbank/core/bench';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import sharp from 'sharp';
import { serverForTest, type Reply, type TestServer, csv, intake, testPack } from '../testing/index.ts';

let server: TestServer;
beforeAll(async () => {
  server = await serverForTest();
  await server.owner.call('POST', '/reference-packs', testPack);
  await server.owner.call(
    'POST',
    '/comparables/import',
    csv([
      '2026-01-10,100,EUR,sold,Tollgate Rooms,auction,jack,second,80',
      '2026-03-10,120,EUR,sold,Lantern Row,retail,jack,second,90',
    ]),
  );
});
afterAll(() => server.close());

const create = async () =>
  (await server.owner.call('POST', '/pieces', intake)).body as {
    id: string;
    version: number;
    stockNumber: string;
  };
const put = (piece: { id: string; version: number }, path: string, body: unknown): Promise<Reply<any>> =>
  server.owner.call('PUT', `/pieces/${piece.id}/${path}`, body, { 'if-match': `"v${piece.version}"` });
const picture = async (bytes?: Uint8Array) => {
  const form = new FormData();
  const jpeg =
    bytes ??
    new Uint8Array(
      await sharp({ create: { width: 60, height: 40, channels: 3, background: '#888' } })
        .withExif({ IFD0: { Copyright: 'x' }, IFD3: { GPSLatitudeRef: 'N' } })
        .jpeg()
        .toBuffer(),
    );
  form.set('file', new Blob([jpeg as BlobPart], { type: 'image/jpeg' }), 'p.jpg');
  form.set('caption', 'Mark side');
  return form;
};

describe('intake', () => {
  test('stock numbers run on by the shop’s scheme', async () => {
    const [a, b] = [await create(), await create()];
    expect(Number(b.stockNumber.slice(3))).toBe(Number(a.stockNumber.slice(3)) + 1);
  });
  test('wrong fields are named and nothing is created', async () => {
    const before = (await server.owner.call('GET', '/pieces?limit=1')).body.total;
    const reply = await server.owner.call('POST', '/pieces', {
      ...intake,
      title: ' ',
      acquired: '1940/1930',
      price: { amount: '5.123', currency: 'EUR' },
    });
    expect(reply.body.errors.map((e: { pointer: string }) => e.pointer).sort()).toEqual([
      '/acquired',
      '/price/amount',
      '/title',
    ]);
    expect((await server.owner.call('GET', '/pieces?limit=1')).body.total).toBe(before);
  });
  test('a repeated key gives the first answer; another request under it is refused', async () => {
    const key = { 'idempotency-key': 'take-in-1' };
    const first = await server.owner.call('POST', '/pieces', intake, key);
    const again = await server.owner.call('POST', '/pieces', intake, key);
    expect(again.status).toBe(201);
    expect(again.body).toEqual(first.body);
    expect((await server.owner.call('POST', '/pieces', { ...intake, title: 'Other' }, key)).status).toBe(422);
    const both = await Promise.all(
      [1, 2, 3].map(() => server.owner.call('POST', '/pieces', intake, { 'idempotency-key': 'at-once' })),
    );
    expect(new Set(both.map((r) => r.body.id)).size).toBe(1);
  });
});

describe('two people on one piece', () => {
  test('a stale version is told and changes nothing; none at all is asked for', async () => {
    const piece = await create();
    expect((await put(piece, 'intake', { ...intake, title: 'First' })).status).toBe(200);
    const stale = await put(piece, 'intake', { ...intake, title: 'Second' });
    expect(stale.status).toBe(412);
    const now = await server.owner.call('GET', `/pieces/${piece.id}`);
    expect(now.body.intake.title).toBe('First');
    expect(now.etag).toBe(`"v${piece.version + 1}"`);
    expect((await server.owner.call('PUT', `/pieces/${piece.id}/intake`, intake)).status).toBe(428);
  });
});

describe('pictures', () => {
  test('are re-encoded without what the camera wrote into them', async () => {
    const piece = await create();
    const reply = await server.owner.call('POST', `/pieces/${piece.id}/pictures`, await picture());
    expect(reply.status).toBe(201);
    const { hash } = reply.body.pictures[0];
    const bytes = Buffer.from(
      await (
        await fetch(`${server.address}/api/v1/pictures/${hash}/full`, {
          headers: { cookie: server.owner.cookie },
        })
      ).arrayBuffer(),
    );
    const meta = await sharp(bytes).metadata();
    expect([meta.format, meta.exif]).toEqual(['webp', undefined]);
    expect((await fetch(`${server.address}/api/v1/pictures/${hash}/full`)).status).toBe(401);
    expect(
      (
        await server.owner.call(
          'DELETE',
          `/pieces/${piece.id}/pictures/${reply.body.pictures[0].id}`,
          undefined,
          { 'if-match': `"v${reply.body.version}"` },
        )
      ).body.pictures,
    ).toEqual([]);
  });
  test('are ordered, named, framed with a scale bar, taken away and put back', async () => {
    let piece: any = await create();
    for (let i = 0; i < 2; i++)
      piece = (await server.owner.call<any>('POST', `/pieces/${piece.id}/pictures`, await picture())).body;
    const [first, second] = piece.pictures;
    const arrange = (pictures: object[], of = piece) =>
      server.owner.call<any>(
        'PUT',
        `/pieces/${of.id}/pictures`,
        { pictures },
        { 'if-match': `"v${of.version}"` },
      );
    const frame = { x: 0.25, y: 0, width: 0.5, height: 0.5 };
    const put = await arrange([
      { id: second.id, caption: 'Tang stamp', frame, mmPerPixel: 0.2 },
      { id: first.id, caption: '' },
    ]);
    expect(put.status).toBe(200);
    piece = put.body;
    expect(piece.pictures).toMatchObject([
      { id: second.id, caption: 'Tang stamp', frame, mmPerPixel: 0.2 },
      { id: first.id, frame: null, shown: first.hash },
    ]);
    // what goes out is the frame, with the bar on it; the whole picture stays as it was taken
    const { shown, hash } = piece.pictures[0];
    expect(shown).not.toBe(hash);
    const read = async (of: string) =>
      sharp(
        new Uint8Array(
          await (
            await fetch(`${server.address}/api/v1/pictures/${of}/full`, {
              headers: { cookie: server.owner.cookie },
            })
          ).arrayBuffer(),
        ),
      );
    const [whole, part] = [await (await read(hash)).metadata(), await (await read(shown)).metadata()];
    expect([part.width, part.height]).toEqual([Math.round(whole.width / 2), Math.round(whole.height / 2)]);
    // one that is left out is gone, and comes back when it is named again
    piece = (await arrange([{ id: first.id }])).body;
    expect(piece.pictures.map((p: any) => p.id)).toEqual([first.id]);
    piece = (await arrange([{ id: second.id, caption: 'Tang stamp' }, { id: first.id }])).body;
    expect(piece.pictures.map((p: any) => p.id)).toEqual([second.id, first.id]);
    expect((await arrange([{ id: first.id }, { id: first.id }])).status).toBe(422);
    expect((await arrange([{ id: first.id, frame: { x: 0.9, y: 0, width: 0.5, height: 0.5 } }])).status).toBe(
      422,
    );
    // pictures of another piece are none of this one's
    expect((await arrange([{ id: first.id }], await create())).status).toBe(404);
    expect((await arrange([{ id: first.id }], { ...piece, version: 1 })).status).toBe(412);
  });
  test('what only calls itself a picture is refused', async () => {
    const piece = await create();
    expect(
      (
        await server.owner.call(
          'POST',
          `/pieces/${piece.id}/pictures`,
          await picture(new TextEncoder().encode('<svg onload="x"/>')),
        )
      ).status,
    ).toBe(415);
    expect((await server.owner.call('GET', `/pieces/${piece.id}`)).body.version).toBe(piece.version);
  });
});

describe('from bench to sale', () => {
  let piece: any;
  test('observations are checked, stored and answered with live readings', async () => {
    piece = await create();
    const wrong = await put(piece, 'observations', { observations: [{ feature: 'scales', value: 'gold' }] });
    expect(wrong.body.errors[0].pointer).toBe('/observations/0/value');
    piece = (await server.owner.call('POST', `/pieces/${piece.id}/pictures`, await picture())).body;
    piece = (
      await put(piece, 'observations', {
        observations: [
          { feature: 'lanyard', value: 'bar' },
          { feature: 'scales', value: 'horn', certainty: 'likely' },
          { mark: 'three-line' },
          { feature: 'closed', measure: 104.8, resolution: 0.1, text: '104.8' },
        ],
      })
    ).body;
    expect(piece.readings.which.label).toBe('Harbour jack, Second form');
    expect(piece.readings.when.core).toBe('1934-09/1940');
    expect(piece.readings.worth.estimate.currency).toBe('EUR');
  });

  test('a decision that differs from the evidence wants a reason, and is stored with what the engine said', async () => {
    const decide = (reason: string) =>
      put(piece, 'attribution', {
        attribution: { variant: 'first', pattern: 'jack', tier: 'probable', reason },
      });
    expect((await decide('')).body.errors[0].pointer).toBe('/attribution/reason');
    expect(
      (
        await put(piece, 'attribution', {
          attribution: { variant: 'first', pattern: null, tier: 'probable', reason: 'x' },
        })
      ).status,
    ).toBe(422);
    piece = (
      await put(piece, 'attribution', {
        attribution: { variant: 'second', pattern: 'jack', tier: 'probable', reason: 'Compared.' },
      })
    ).body;
    expect(piece.attribution).toMatchObject({
      decidedBy: 'Ines Vadder',
      engineVersion: ENGINE_VERSION,
      referenceRevision: '1',
      engineAnswer: { candidates: expect.any(Array) },
    });
  });

  test('condition, custody and price', async () => {
    piece = (
      await put(piece, 'condition', {
        findings: [
          { part: 'blade:1', defect: 'sharpened', severity: 'light', note: 'neatly' },
          { part: 'scales', defect: 'crack', measure: 3.5 },
        ],
        completeness: { box: 'none' },
        inspected: true,
      })
    ).body;
    expect(piece.grade.disclosures).toHaveLength(3);
    expect(piece.condition.findings[1]).toMatchObject({ measure: 3.5 });
    expect(
      (await put(piece, 'custody', { events: [{ holder: 'A', period: 'long ago', evidence: 'document' }] }))
        .body.errors[0].pointer,
    ).toBe('/events/0/period');
    piece = (
      await put(piece, 'custody', {
        events: [
          { holder: 'A. Corrie', private: true, place: 'Skerry Bay', period: '1933', evidence: 'tradition' },
        ],
      })
    ).body;
    expect(piece.trail.problems[0].kind).toBe('before-it-was-made');
    const early = await server.owner.call(
      'POST',
      `/pieces/${piece.id}/listing/publish`,
      {},
      { 'if-match': `"v${piece.version}"` },
    );
    expect(early.body.errors[0].message).toBe('Set a price.');
    piece = (
      await put(piece, 'pricing', { ask: { amount: '145.00', currency: 'EUR' }, floor: null, note: '' })
    ).body;
    expect(piece.stage).toBe('listing');
  });

  test('a listing that drops a disclosure or strengthens the claim does not go up', async () => {
    const draft = await server.owner.call('GET', `/pieces/${piece.id}/listing/draft`);
    expect(draft.body).toMatchObject({ problems: [], blocks: [] });
    const { title, body } = draft.body.written;
    piece = (
      await put(piece, 'listing', { title, body: `${body.replace('– No box', '')} Undoubtedly genuine.` })
    ).body;
    const refused = await server.owner.call(
      'POST',
      `/pieces/${piece.id}/listing/publish`,
      {},
      { 'if-match': `"v${piece.version}"` },
    );
    expect(refused.status).toBe(422);
    expect(refused.body.errors).toHaveLength(2);
    piece = (await put(piece, 'listing', { title, body })).body;
    piece = (
      await server.owner.call(
        'POST',
        `/pieces/${piece.id}/listing/publish`,
        {},
        { 'if-match': `"v${piece.version}"` },
      )
    ).body;
    expect(piece.stage).toBe('listed');
  });

  test('the marketplace answers with a question and an offer, once each', async () => {
    const fetchThem = async () =>
      (await server.owner.call('POST', `/pieces/${piece.id}/listing/messages/fetch`, {})).body;
    piece = await fetchThem();
    piece = await fetchThem();
    expect(piece.listing.messages.map((m: { kind: string }) => m.kind).sort()).toEqual(['offer', 'question']);
    const question = piece.listing.messages.find((m: { kind: string }) => m.kind === 'question');
    const answer = (text: string) =>
      server.owner.call('POST', `/pieces/${piece.id}/listing/messages/${question.id}/answer`, { text });
    expect((await answer('')).body.errors[0].pointer).toBe('/text');
    expect((await answer('No play at all.')).status).toBe(200);
    expect((await answer('Again.')).status).toBe(409);
  });

  test('the sale: net, margin, comparable, invoice, certificate – and the record stands', async () => {
    const offer = piece.listing.messages.find((m: { kind: string }) => m.kind === 'offer');
    const sell = (more: object) =>
      server.owner.call('POST', `/pieces/${piece.id}/sale`, {
        message: offer.id,
        buyerName: offer.from,
        ageChecked: true,
        ...more,
      });
    expect((await sell({ ageChecked: false })).body.errors[0].pointer).toBe('/ageChecked');
    const before = (await server.owner.call('GET', '/comparables?limit=1')).body.total;
    const sale = await sell({});
    expect(sale.status).toBe(201);
    expect(sale.body.price).toEqual(offer.amount);
    expect(Number(sale.body.margin.amount)).toBeCloseTo(Number(sale.body.net.net) - 58, 2);
    expect((await server.owner.call('GET', '/comparables?limit=1')).body).toMatchObject({
      total: before + 1,
      items: [{ variant: 'second', priceKind: 'sold' }],
    });
    expect((await sell({})).status).toBe(409);
    const sold = await server.owner.call('GET', `/pieces/${piece.id}`);
    expect((await put(sold.body, 'intake', intake)).status).toBe(409);
    for (const paper of ['invoice', 'certificate']) {
      const pdf = await fetch(`${server.address}/api/v1/sales/${sale.body.id}/${paper}.pdf`, {
        headers: { cookie: server.owner.cookie },
      });
      expect(
        Buffer.from(await pdf.arrayBuffer())
          .subarray(0, 5)
          .toString(),
      ).toBe('%PDF-');
    }
    const check = await server.nobody().call('GET', `/certificates/${sale.body.certificateCode}`);
    expect(check.body).toMatchObject({
      intact: true,
      claim: expect.stringContaining('very likely'),
      findings: expect.arrayContaining(['No box']),
    });
    expect(JSON.stringify(check.body)).not.toContain('Corrie');
    expect(JSON.stringify(check.body)).not.toContain(offer.from);
    expect(JSON.stringify(check.body)).not.toContain('58.00');
  });

  test('the ledger is whole, and shows it when somebody rewrites it', async () => {
    const verify = async () => (await server.owner.call('GET', '/ledger/verify')).body;
    expect(await verify()).toMatchObject({ intact: true });
    const entries = (await server.owner.call('GET', `/pieces/${piece.id}/ledger?limit=100`)).body;
    expect(entries.items.map((e: { kind: string }) => e.kind)).toEqual(
      expect.arrayContaining(['taken-in', 'observed', 'attributed', 'inspected', 'published', 'sold']),
    );
    await server.database.run(
      "UPDATE ledger_entry SET body = REPLACE(body, 'Harbour', 'Golden') WHERE seq = 3",
    );
    expect(await verify()).toMatchObject({ intact: false, firstBroken: 3 });
    await server.database.run(
      "UPDATE ledger_entry SET body = REPLACE(body, 'Golden', 'Harbour') WHERE seq = 3",
    );
    expect(await verify()).toMatchObject({ intact: true });
  });
});

test('the tray groups by where pieces stand, and pieces are found by their words', async () => {
  const tray = (await server.owner.call('GET', '/tray')).body;
  expect(tray.groups.map((g: { stage: string }) => g.stage)).toEqual(
    expect.arrayContaining(['intake', 'sold']),
  );
  expect(tray.bound.currency).toBe('EUR');
  expect((await server.owner.call('GET', '/pieces?q=harb&limit=3')).body.items.length).toBeGreaterThan(0);
  // the letters of a stock number are too short a word for the index
  const numbered = async (path: string): Promise<string[]> =>
    (await server.owner.call<any>('GET', path)).body.items.map((p: { stockNumber: string }) => p.stockNumber);
  expect(await numbered('/pieces?q=hq-0001')).toEqual(['HQ-0001']);
  expect(await numbered('/inventory?q=HQ-0001')).toEqual(['HQ-0001']);
  expect((await server.owner.call('GET', '/search?q=HQ-0001')).body.items[0]).toMatchObject({
    kind: 'piece',
    hint: 'HQ-0001',
  });
});

test('a slip says of a piece what its sheet says, however it was read', async () => {
  const piece = await create();
  const finding = { part: 'blade', defect: 'rust', severity: 'moderate' };
  await put(piece, 'condition', { findings: [finding], completeness: {}, inspected: true });
  const treated = await server.owner.call(
    'POST',
    `/pieces/${piece.id}/treatments`,
    {
      kind: 'remove-rust',
      product: 'light oil',
      grit: '0000',
      doneOn: '2026-11-02',
      doneBy: 'Ines Vadder',
      reason: 'it was spreading',
      reversible: false,
      cost: { amount: '12.50', currency: 'EUR' },
      removes: [0],
      adds: [],
    },
    { 'if-match': '"v2"' },
  );
  expect(treated.status).toBe(201);
  await server.owner.call('POST', `/pieces/${piece.id}/pictures`, await picture(), { 'if-match': '"v3"' });
  const { items } = (await server.owner.call('GET', '/pieces?limit=100')).body as { items: { id: string }[] };
  expect(items).toContainEqual(expect.objectContaining({ cost: { amount: '70.50', currency: 'EUR' } }));
  for (const slip of items) {
    const sheet = (await server.owner.call('GET', `/pieces/${slip.id}`)).body as Record<string, unknown>;
    expect(slip).toEqual(Object.fromEntries(Object.keys(slip).map((key) => [key, sheet[key]])));
  }
});

test('what was bought as a reproduction stays one: no original’s price, and its listing must say so', async () => {
  const made = (await server.owner.call('POST', '/pieces', { ...intake, takenInAs: 'reproduction' })).body;
  await put(made, 'observations', { observations: [{ feature: 'scales', value: 'horn' }] });
  const sheet = (await server.owner.call('GET', `/pieces/${made.id}`)).body;
  expect(sheet.readings.which.label).toMatch(/^A reproduction/);
  expect(sheet.readings.which.variant).toBeNull();
  expect(sheet.readings.worth).toBeNull();
  const decided = await put(sheet, 'attribution', {
    attribution: { pattern: 'jack', variant: null, tier: 'type-consistent', reason: 'bought as one' },
  });
  expect(decided.body.readings.worth).toBeNull();
  const draft = (await server.owner.call('GET', `/pieces/${made.id}/listing/draft`)).body;
  expect(JSON.stringify(draft)).toMatch(/reproduction/i);
  expect(JSON.stringify(draft)).toMatch(/bought as a reproduction, not as the original/);
});

test('pieces of one find are said to belong together once, and both say so', async () => {
  const [knife, sheath, other] = [await create(), await create(), await create()];
  const said = (await put(knife, 'companions', { companions: [sheath.id, sheath.id] })).body;
  expect(said.companions).toMatchObject([{ id: sheath.id, stockNumber: sheath.stockNumber }]);
  const back = (await server.owner.call('GET', `/pieces/${sheath.id}`)).body;
  expect(back.companions).toMatchObject([{ id: knife.id }]);
  const both = await put(back, 'companions', { companions: [knife.id, other.id] });
  expect(both.body.companions.map((c: { id: string }) => c.id)).toEqual([knife.id, other.id]);
  expect((await put(both.body, 'companions', { companions: [other.id] })).status).toBe(200);
  expect((await server.owner.call('GET', `/pieces/${knife.id}`)).body.companions).toEqual([]);
  for (const wrong of [other.id, '01ARZ3NDEKTSV4RRFFQ69G5FAV'])
    expect(
      (await put({ ...other, version: 1 }, 'companions', { companions: [wrong] })).body.errors,
    ).toMatchObject([{ pointer: '/companions/0' }]);
});
