/** Several people at the same thing at once: what one decides on is what stands when they write. */
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { Decimal } from 'decimal.js';
import {
  intake,
  readyToSell,
  serverForTest,
  testPack,
  type Reply,
  type TestServer,
} from '../testing/index.ts';

let server: TestServer;
beforeAll(async () => {
  server = await serverForTest();
  await server.owner.call('POST', '/reference-packs', testPack);
});
afterAll(() => server.close());

const call = (method: string, path: string, body?: unknown, headers: Record<string, string> = {}) =>
  server.owner.call(method, path, body, headers);
const version = (n: number) => ({ 'If-Match': `"v${n}"` });
const statuses = (replies: readonly Reply[]) => replies.map((r) => r.status).sort();
const times = <T>(n: number, make: (i: number) => Promise<T>) =>
  Promise.all(Array.from({ length: n }, (_, i) => make(i)));

const lotBody = {
  name: 'Estate at Fernhithe',
  sourceKind: 'estate',
  sourceName: '',
  acquired: '2026-10',
  currency: 'EUR',
  method: 'equal',
  costs: [{ label: 'Hammer price', amount: '100.01' }],
  note: '',
};
const inLot = (title: string) => ({ title, construction: 'slipjoint', value: null, keep: false });

describe('a lot', () => {
  test('that three fill at once is shared among all pieces, to the cent', async () => {
    const lot = (await call('POST', '/lots', lotBody)).body;
    const filled = await times(3, (i) =>
      call('POST', `/lots/${lot.id}/pieces`, { pieces: [inLot(`${i} a`), inLot(`${i} b`), inLot(`${i} c`)] }),
    );
    expect(statuses(filled)).toEqual([201, 201, 201]);
    const sheet = (await call('GET', `/lots/${lot.id}`)).body as { list: { cost: string }[] };
    expect(sheet.list).toHaveLength(9);
    const sum = sheet.list.reduce((total, p) => total.plus(p.cost), new Decimal(0));
    expect(sum.toFixed(2)).toBe('100.01');
  });
  test('that several change by one version is changed once', async () => {
    const lot = (await call('POST', '/lots', lotBody)).body;
    const replies = await times(4, (i) =>
      call('PUT', `/lots/${lot.id}`, { ...lotBody, name: `Lot ${i}` }, version(lot.version)),
    );
    expect(statuses(replies)).toEqual([200, 412, 412, 412]);
  });
});

describe('a sale', () => {
  test('racing an inspection: the certificate says what the record says', async () => {
    for (let round = 0; round < 6; round++) {
      let piece = (await call('POST', '/pieces', intake)).body;
      piece = (
        await call(
          'PUT',
          `/pieces/${piece.id}/attribution`,
          { attribution: { variant: 'second', pattern: 'jack', tier: 'probable', reason: 'Compared.' } },
          version(piece.version),
        )
      ).body;
      const [inspected, sold] = await Promise.all([
        call(
          'PUT',
          `/pieces/${piece.id}/condition`,
          { findings: [], completeness: {}, inspected: true },
          version(piece.version),
        ),
        call('POST', `/pieces/${piece.id}/sale`, {
          ageChecked: true,
          buyerName: 'B',
          price: { amount: '80.00', currency: 'EUR' },
        }),
      ]);
      expect(sold.status).toBe(201);
      const sheet = (await call('GET', `/pieces/${piece.id}`)).body;
      const certificate = (await call('GET', `/certificates/${sold.body.certificateCode}`)).body;
      expect(certificate.inspected).toBe(sheet.condition.inspected);
      expect(sheet.condition.inspected).toBe(inspected.status === 200);
    }
  });
  test('racing an offer, a correction and a note of it: nothing is written on what is sold', async () => {
    const piece = await readyToSell(server);
    const [sold, offer] = await Promise.all([
      call('POST', `/pieces/${piece.id}/sale`, {
        ageChecked: true,
        buyerName: 'B',
        price: { amount: '80.00', currency: 'EUR' },
      }),
      call('POST', `/pieces/${piece.id}/offers`, {
        bidder: 'C',
        amount: { amount: '70.00', currency: 'EUR' },
        decision: 'refused',
        note: '',
      }),
    ]);
    expect(sold.status).toBe(201);
    expect([201, 409, 422]).toContain(offer.status);
    const ledger = (await call('GET', `/pieces/${piece.id}/ledger`)).body as { items: { kind: string }[] };
    const kinds = ledger.items.map((e) => e.kind).reverse();
    expect(kinds.at(-1)).toBe('sold');
  });
});

test('settings that three save from one version are saved once', async () => {
  const before = await call('GET', '/pricing-settings');
  const replies = await times(3, (i) =>
    call(
      'PUT',
      '/pricing-settings',
      { ...before.body.settings, holding: i },
      { 'If-Match': before.etag ?? '' },
    ),
  );
  expect(statuses(replies).slice(1)).toEqual([412, 412]);
  expect([200, 422]).toContain(statuses(replies)[0]);
});

test('the same price posted thrice at once is known once', async () => {
  const row = {
    sale_date: '2026-03-01',
    price: '101',
    currency: 'EUR',
    price_kind: 'sold',
    venue_kind: 'fair',
    pattern: 'jack',
  };
  expect(statuses(await times(3, () => call('POST', '/comparables', row)))).toEqual([201, 409, 409]);
});

test('rules that several keep at once are versions of their own', async () => {
  const { body: document } = await call('GET', '/condition-rules/collector');
  const kept = await times(3, () => call('POST', '/condition-rules', { document, note: 'the same again' }));
  expect(new Set(kept.map((k) => k.body.version)).size).toBe(3);
});

test('a piece kept apart by two at once is kept apart once; it is let out once', async () => {
  const piece = (await call('POST', '/pieces', intake)).body;
  const apart = await times(2, () =>
    call(
      'POST',
      `/pieces/${piece.id}/quarantine`,
      { since: '2026-01-01', reviewOn: '2026-02-01', reason: 'Celluloid that sweats' },
      version(piece.version),
    ),
  );
  expect(statuses(apart)).toEqual([201, 412]);
  const { id } = apart.find((a) => a.status === 201)?.body ?? {};
  const out = await times(3, () =>
    call('PUT', `/quarantine/${id}`, { endedOn: '2026-03-01', outcome: 'Stable' }),
  );
  expect(out.filter((o) => o.status === 200)).toHaveLength(1);
});

test('messages that two fetch at once are kept once each', async () => {
  const piece = await readyToSell(server);
  await call('POST', `/pieces/${piece.id}/listing/publish`, {}, version(piece.version));
  const fetched = await times(3, () => call('POST', `/pieces/${piece.id}/listing/messages/fetch`, {}));
  expect(statuses(fetched)).toEqual([200, 200, 200]);
  expect((await call('GET', `/pieces/${piece.id}`)).body.listing.messages).toHaveLength(2);
});

test('an offer that is declined and accepted at once is one of the two', async () => {
  const piece = await readyToSell(server);
  await call('POST', `/pieces/${piece.id}/listing/publish`, {}, version(piece.version));
  const sheet = (await call('POST', `/pieces/${piece.id}/listing/messages/fetch`, {})).body;
  const offer = sheet.listing.messages.find((m: { kind: string }) => m.kind === 'offer');
  const [declined, sold] = await Promise.all([
    call('POST', `/pieces/${piece.id}/listing/messages/${offer.id}/answer`, { decline: true }),
    call('POST', `/pieces/${piece.id}/sale`, { message: offer.id, buyerName: offer.from, ageChecked: true }),
  ]);
  expect([declined.status, sold.status].filter((s) => s === 409)).toHaveLength(1);
});
