import { afterAll, beforeAll, describe, expect, jest, test } from '@jest/globals';
import { serverForTest, testPack, type TestServer } from '../testing/index.ts';

let server: TestServer;
beforeAll(async () => {
  server = await serverForTest();
  await server.owner.call('POST', '/reference-packs', testPack);
});
afterAll(() => server.close());

const body = {
  name: 'Estate at Fernhithe',
  sourceKind: 'estate',
  sourceName: 'Household at Fernhithe',
  acquired: '2026-10',
  currency: 'EUR',
  method: 'relative-value',
  costs: [
    { label: 'Hammer price', amount: '400.00' },
    { label: 'Travel', amount: '10.00' },
  ],
  note: '',
};
const piece = (title: string, value: string | null, keep = false) => ({
  title,
  construction: 'slipjoint',
  value,
  keep,
});

describe('a lot', () => {
  test('a piece that does not belong is taken out: its share goes to the others, its own cost is not known', async () => {
    const lot = (await server.owner.call('POST', '/lots', { ...body, method: 'equal' })).body;
    const filled = await server.owner.call('POST', `/lots/${lot.id}/pieces`, {
      pieces: [piece('One', '1'), piece('Two', '1'), piece('Stray', '1')],
    });
    const stray = filled.body.list[2].id as string;
    const out = (seen: number) =>
      server.owner.call('DELETE', `/lots/${lot.id}/pieces/${stray}`, undefined, { 'If-Match': `"v${seen}"` });
    expect((await out(0)).status).toBe(412);
    const left = await out(filled.body.version);
    expect(left.body.list.map((p: { cost: string }) => p.cost)).toEqual(['205.00', '205.00']);
    const sheet = (await server.owner.call('GET', `/pieces/${stray}`)).body;
    expect(sheet.cost).toBeNull();
    expect((await out(left.body.version)).status).toBe(404);
  });
  test('is taken in in a run, its cost spread to the cent, and spread anew when it changes', async () => {
    const lot = (await server.owner.call('POST', '/lots', body)).body;
    expect(lot).toMatchObject({ cost: '410.00', pieces: 0, share: 0 });
    const filled = await server.owner.call('POST', `/lots/${lot.id}/pieces`, {
      pieces: [piece('Harbour jack', '120'), piece('Pen knife', '80'), piece('Whittler', '206', true)],
    });
    expect(filled.status).toBe(201);
    expect(filled.body.list.map((p: { cost: string }) => p.cost)).toEqual(['121.18', '80.79', '208.03']);
    const [first] = filled.body.list;
    const sheet = (await server.owner.call('GET', `/pieces/${first.id}`)).body;
    expect(sheet.intake).toMatchObject({
      price: { amount: '121.18', currency: 'EUR' },
      sourceName: 'Household at Fernhithe',
    });
    const equal = await server.owner.call(
      'PUT',
      `/lots/${lot.id}`,
      { ...body, method: 'equal' },
      { 'If-Match': `"v${filled.body.version}"` },
    );
    expect(equal.body.list.map((p: { cost: string }) => p.cost)).toEqual(['136.67', '136.67', '136.66']);
    const manual = await server.owner.call(
      'PUT',
      `/lots/${lot.id}`,
      { ...body, method: 'manual' },
      { 'If-Match': `"v${equal.body.version}"` },
    );
    const shares = await server.owner.call(
      'PUT',
      `/lots/${lot.id}/pieces`,
      {
        pieces: manual.body.list.map((p: { id: string; value: string; keep: boolean }, i: number) => ({
          id: p.id,
          value: p.value,
          share: i === 0 ? '12.34' : null,
          keep: p.keep,
        })),
      },
      { 'If-Match': `"v${manual.body.version}"` },
    );
    // by hand: 397.66·80/286 = 111.2336, 397.66·206/286 = 286.4264
    expect(shares.body.list.map((p: { cost: string }) => p.cost)).toEqual(['12.34', '111.23', '286.43']);
    expect(shares.body.kept).toBe(1);
  });

  test('two people on one lot are told; a stale change changes nothing', async () => {
    const lot = (await server.owner.call('POST', '/lots', body)).body;
    const stale = { 'If-Match': '"v0"' };
    expect((await server.owner.call('PUT', `/lots/${lot.id}`, { ...body, name: 'x' }, stale)).status).toBe(
      412,
    );
    expect((await server.owner.call('PUT', `/lots/${lot.id}`, body)).status).toBe(428);
    expect((await server.owner.call('GET', `/lots/${lot.id}`)).body.name).toBe(body.name);
  });

  test('shares that do not meet the total are refused, and nothing moves', async () => {
    const lot = (await server.owner.call('POST', '/lots', { ...body, method: 'manual' })).body;
    const { body: filled } = await server.owner.call('POST', `/lots/${lot.id}/pieces`, {
      pieces: [piece('One', '1')],
    });
    const reply = await server.owner.call(
      'PUT',
      `/lots/${lot.id}/pieces`,
      { pieces: [{ id: filled.list[0].id, value: '1', share: '400.00', keep: false }] },
      { 'If-Match': `"v${filled.version}"` },
    );
    expect(reply.status).toBe(422);
    expect(reply.body.errors[0].pointer).toBe('/shares');
    expect((await server.owner.call('GET', `/lots/${lot.id}`)).body.list[0].cost).toBe('410.00');
  });

  test('what its pieces bring is followed to the day it broke even, and a sold piece keeps its share', async () => {
    const lot = (
      await server.owner.call('POST', '/lots', { ...body, costs: [{ label: 'Price', amount: '90.00' }] })
    ).body;
    const { list } = (
      await server.owner.call('POST', `/lots/${lot.id}/pieces`, {
        pieces: [piece('One', '50'), piece('Two', '40')],
      })
    ).body;
    const id = list[0].id as string;
    const version = async () => (await server.owner.call('GET', `/pieces/${id}`)).etag ?? '';
    await server.owner.call(
      'PUT',
      `/pieces/${id}/attribution`,
      { attribution: { pattern: 'jack', variant: null, tier: 'type-consistent', reason: 'known shape' } },
      { 'If-Match': await version() },
    );
    const sold = await server.owner.call('POST', `/pieces/${id}/sale`, {
      price: { amount: '95.00', currency: 'EUR' },
      buyerName: 'A buyer',
      buyerAddress: '',
      ageChecked: true,
    });
    expect(sold.status).toBe(201);
    const after = await server.owner.call('GET', `/lots/${lot.id}`);
    expect(after.body).toMatchObject({ sold: 1, recovered: '95.00', brokeEvenOn: expect.any(String) });
    const more = await server.owner.call(
      'PUT',
      `/lots/${lot.id}`,
      { ...body, costs: [{ label: 'Price', amount: '100.00' }] },
      { 'If-Match': `"v${after.body.version}"` },
    );
    expect(more.body.list.map((p: { cost: string }) => p.cost)).toEqual(['50.00', '50.00']);
    expect((await server.owner.call('GET', '/lots')).body.items[0]).toMatchObject({ id: lot.id, sold: 1 });
    const pdf = await server.owner.call<string>('GET', `/lots/${lot.id}/sheet.pdf`);
    expect(pdf.status).toBe(200);
    expect(pdf.body.startsWith('%PDF')).toBe(true);
  });
});

test('a market that cannot be reckoned takes the worth away and nothing else', async () => {
  const away = jest.spyOn(server.app.markets, 'on').mockRejectedValue(new Error('no fit'));
  let id: string;
  try {
    const made = await server.owner.call('POST', '/pieces', {
      title: 'Jack without a market',
      construction: 'slipjoint',
      sourceKind: 'fair',
      acquired: null,
      price: { amount: '40.10', currency: 'EUR' },
      asFound: null,
    });
    id = made.body.id as string;
    const sheet = await server.owner.call('GET', `/pieces/${id}`);
    expect([sheet.status, sheet.body.readings.worth, sheet.body.readings.marketAway]).toEqual([
      200,
      null,
      true,
    ]);
    for (const path of ['/tray', '/pieces', '/lots'])
      expect((await server.owner.call('GET', path)).status).toBe(200);
  } finally {
    away.mockRestore();
  }
  const back = await server.owner.call('GET', `/pieces/${id}`);
  expect(back.body.readings.marketAway).toBeUndefined();
});
