import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { serverForTest, type TestServer } from '../testing/index.ts';

let server: TestServer;
beforeAll(async () => {
  server = await serverForTest();
});
afterAll(() => server.close());
const post = (path: string, body: unknown) => server.owner.call('POST', path, body);
const pointers = (reply: { body: { errors: { pointer: string }[] } }) =>
  reply.body.errors.map((e) => e.pointer);

describe('money routes', () => {
  const channel = {
    commissionPct: 8,
    paymentPct: 2.5,
    paymentFixed: '0.30',
    taxOnFeesPct: 20,
    postageCharged: '6.00',
    postageCost: '5.40',
    packing: '1.10',
    insurancePct: 1,
  };

  test('net, by hand', async () => {
    // gross 188.50; 8 % of 182.50 = 14.60; 2.5 % of 188.50 = 4.71 + 0.30; 20 % of 19.61 = 3.92; insurance 1.83 (1.825 up)
    expect((await post('/offers/net', { currency: 'EUR', channel, price: '182.50' })).body).toEqual({
      currency: 'EUR',
      gross: '188.50',
      commission: '14.60',
      fixedFee: '0.00',
      paymentFee: '5.01',
      taxOnFees: '3.92',
      postageCost: '5.40',
      packing: '1.10',
      insurance: '1.83',
      net: '156.64',
    });
  });
  test('break-even and most to pay', async () => {
    expect((await post('/offers/break-even', { currency: 'EUR', channel: {}, cost: '60.00' })).body).toEqual({
      currency: 'EUR',
      ask: '60.00',
      net: '60.00',
    });
    const most = await post('/offers/most-to-pay', {
      currency: 'EUR',
      buying: { premiumPct: 25, taxOnPremiumPct: 20, otherCosts: '10.00', increment: '5.00' },
      channel: {},
      price: '200.00',
      target: { marginPct: 20 },
    });
    expect(most.body).toMatchObject({ currency: 'EUR', net: '200.00', bid: '115.00', cost: '159.50' });
  });
  test('what is wrong is told at its place', async () => {
    expect(
      pointers(await post('/offers/net', { currency: 'EUR', channel: { fixedFee: '0.005' }, price: '1' })),
    ).toEqual(['/channel/fixedFee']);
    expect(pointers(await post('/offers/net', { currency: 'JPY', channel: {}, price: '1.50' }))).toEqual([
      '/price',
    ]);
    expect(pointers(await post('/offers/net', { currency: 'XQX', channel: {}, price: '1' }))).toEqual([
      '/currency',
    ]);
    const bad = await post('/offers/break-even', { currency: 'EUR', cost: '5', target: { marginPct: 100 } });
    expect(bad.status).toBe(422);
    expect(
      pointers(
        await post('/offers/break-even', { currency: 'EUR', cost: '5', channel: { commissionPct: 100 } }),
      ),
    ).toEqual(['/channel']);
    expect((await server.nobody().call('POST', '/offers/net', {})).status).toBe(401);
  });
  test('allocation, in the contract’s words', async () => {
    const ask = (more: object) =>
      post('/lots/allocation', { currency: 'EUR', method: 'relative-value', costs: [], pieces: [], ...more });
    expect(
      (await ask({ costs: ['410.00'], pieces: [{ value: '120.00' }, { value: '286.00' }] })).body,
    ).toEqual({
      currency: 'EUR',
      total: '410.00',
      shares: ['121.18', '288.82'],
    });
    expect(pointers(await ask({ costs: ['1.001'], pieces: [{ value: '1' }] }))).toEqual(['/costs/0']);
    expect(pointers(await ask({ costs: ['1.00'] }))).toEqual(['/pieces']);
    expect(pointers(await ask({ costs: ['1.00'], pieces: [{ value: '1' }, { value: '-2' }] }))).toEqual([
      '/pieces/1/value',
    ]);
  });
});
