import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { StockGrounds, StockPiece, StockValuation } from '@jutbank/contract/worth';
import { csv, serverForTest, testPack, type TestServer } from '../testing/index.ts';

let server: TestServer;
const intake = (title: string, price: string | null, acquired: string | null) => ({
  title,
  construction: 'slipjoint',
  sourceKind: 'fair',
  acquired,
  price: price === null ? null : { amount: price, currency: 'EUR' },
  asFound: null,
});
const daysAgo = (n: number) => new Date(Date.now() - n * 86_400_000).toISOString().slice(0, 10);
async function piece(
  title: string,
  price: string | null,
  acquired: string | null,
  known = true,
): Promise<string> {
  const made = await server.owner.call('POST', '/pieces', intake(title, price, acquired));
  if (known)
    await server.owner.call(
      'PUT',
      `/pieces/${made.body.id}/attribution`,
      { attribution: { pattern: 'jack', variant: 'first', tier: 'probable', reason: 'compared' } },
      { 'If-Match': made.etag ?? '' },
    );
  return made.body.id as string;
}
/** Asked for, worked off, and what is kept of it. */
async function valued(): Promise<StockValuation> {
  const asked = await server.owner.call('POST', '/stock/valuations', {});
  expect(asked.status).toBe(202);
  expect((await server.owner.call('GET', '/stock')).body.running).toBe(asked.body.job);
  await server.app.jobs.runOne();
  expect((await server.owner.call('GET', `/jobs/${asked.body.job}`)).body.state).toBe('done');
  return (await server.owner.call('GET', '/stock')).body.valuation as StockValuation;
}
const of = (valuation: StockValuation, title: string): StockPiece => {
  const found = valuation.pieces.find((p) => p.title === title);
  if (!found) throw new Error(`${title} was not valued`);
  return found;
};

beforeAll(async () => {
  server = await serverForTest();
  await server.owner.call('POST', '/reference-packs', testPack);
  const year = (back: number) => daysAgo(back * 11 + 3);
  await server.owner.call(
    'POST',
    '/comparables/import',
    csv(
      Array.from(
        { length: 62 },
        (_, i) => `${year(i)},${150 + (i % 7) * 4},EUR,sold,Tollgate Rooms,online,jack,first,80`,
      ),
    ),
  );
});
afterAll(() => server.close());

describe('the stock', () => {
  test('of an empty shop is nothing, and says so', async () => {
    expect((await server.owner.call('GET', '/stock')).body).toEqual({
      valuation: null,
      pieces: 0,
      running: null,
    });
  });
  test('at cost and at worth, by age; what is not found out has no worth', async () => {
    await piece('New jack', '80.00', daysAgo(10));
    await piece('Old jack', '60.50', daysAgo(400));
    await piece('Nobody knows', '20.00', daysAgo(100), false);
    await piece('Found in a drawer', null, null);
    const valuation = await valued();
    expect(valuation.totals).toMatchObject({
      pieces: 4,
      cost: { amount: '160.50', currency: 'EUR' },
      valued: 3,
      costOfValued: { amount: '140.50', currency: 'EUR' },
      withoutCost: 1,
    });
    const sum = valuation.pieces.reduce((total, p) => total + Number(p.worth?.estimate.amount ?? 0), 0);
    expect(Number(valuation.totals.worth.amount)).toBeCloseTo(sum, 2);
    expect(valuation.ages.map((a) => a.pieces)).toEqual([2, 1, 0, 1]);
    expect(of(valuation, 'Nobody knows').worth).toBeNull();
    expect(of(valuation, 'Old jack')).toMatchObject({ days: 400, age: 'more than a year', moved: null });
    expect(valuation.history).toHaveLength(1);
  });
  test('keeps the sales each worth rested on, whatever is entered since', async () => {
    const valuation = await valued();
    const { id } = of(valuation, 'New jack');
    const path = `/stock/valuations/${valuation.id}/pieces/${id}`;
    const kept = (await server.owner.call('GET', path)).body as StockGrounds;
    const total = kept.rows.reduce((sum, row) => sum + row.weight, kept.rest.weight);
    expect(total).toBeCloseTo(1, 6);
    expect(kept.rows[0]).toMatchObject({ venue: 'Tollgate Rooms', paid: { currency: 'EUR' } });
    expect(kept.worth).toEqual(of(valuation, 'New jack').worth);
    await server.owner.call(
      'POST',
      '/comparables/import',
      csv([`${daysAgo(1)},900,EUR,sold,Quay Auctions,online,jack,first,80`]),
    );
    expect((await server.owner.call('GET', path)).body).toEqual(kept);
    const nobody = of(valuation, 'Nobody knows').id;
    const none = await server.owner.call('GET', `/stock/valuations/${valuation.id}/pieces/${nobody}`);
    expect(none.status).toBe(404);
  });
  test('an ask beside what it would bring is named with a better one', async () => {
    const { pieces } = await valued();
    const id = pieces.find((p) => p.title === 'New jack')?.id ?? '';
    const seen = (await server.owner.call('GET', `/pieces/${id}`)).etag ?? '';
    await server.owner.call(
      'PUT',
      `/pieces/${id}/pricing`,
      { ask: { amount: '900.00', currency: 'EUR' }, floor: null, note: '' },
      { 'If-Match': seen },
    );
    const valuation = await valued();
    const dear = of(valuation, 'New jack');
    expect(dear.reprice?.reasons).toEqual(['above']);
    expect(Number(dear.reprice?.ask.amount)).toBeLessThan(400);
    expect(dear.moved).toBeCloseTo(0, 1);
    expect(of(valuation, 'Old jack').reprice).toBeNull();
    expect(valuation.history).toHaveLength(4);
  });
  test('what was done to a piece is part of what it cost', async () => {
    const id = await piece('Treated jack', '60.50', daysAgo(400));
    const put = async (path: string, body: object, method = 'PUT') => {
      const { etag } = await server.owner.call('GET', `/pieces/${id}`);
      const reply = await server.owner.call(method, `/pieces/${id}/${path}`, body, {
        'If-Match': etag ?? '',
      });
      expect(reply.status).toBeLessThan(300);
    };
    await put('condition', {
      findings: [{ part: 'blade', defect: 'rust', severity: 'light' }],
      completeness: {},
      inspected: true,
    });
    await put(
      'treatments',
      {
        kind: 'remove-rust',
        doneOn: daysAgo(1),
        doneBy: 'the works',
        product: 'oil',
        grit: '',
        reason: 'it was spreading',
        reversible: false,
        cost: { amount: '12.25', currency: 'EUR' },
        removes: [0],
        adds: [],
      },
      'POST',
    );
    expect(of(await valued(), 'Treated jack').cost).toEqual({ amount: '72.75', currency: 'EUR' });
    const sheet = (await server.owner.call('GET', `/pieces/${id}`)).body;
    expect(sheet.cost).toEqual({ amount: '72.75', currency: 'EUR' });
    const { money } = (await server.owner.call('GET', `/pieces/${id}/money`)).body;
    expect(Number(money.breakEven.net.amount)).toBeGreaterThanOrEqual(72.75);
    const sold = await server.owner.call('POST', `/pieces/${id}/sale`, {
      price: { amount: '150.00', currency: 'EUR' },
      channel: 'counter',
      buyerName: 'A collector',
      ageChecked: true,
    });
    expect(sold.status).toBe(201);
    expect(sold.body.cost).toEqual({ amount: '72.75', currency: 'EUR' });
    expect(Number(sold.body.margin.amount)).toBeCloseTo(Number(sold.body.net.left) - 72.75, 2);
  });
  test('trends are told of the market, the maker and the pattern that have sales enough', async () => {
    const { trends } = await valued();
    expect(trends.map((t) => [t.of, t.name])).toEqual([
      ['market', 'The market'],
      ['maker', 'Brackenholt Cutlery'],
      ['pattern', expect.any(String)],
    ]);
    for (const t of trends) expect(t.low).toBeLessThan(t.high);
  });
  test('a valuation that is cancelled leaves the one before', async () => {
    const before = (await server.owner.call('GET', '/stock')).body.valuation.at as string;
    const { body } = await server.owner.call('POST', '/stock/valuations', {});
    await server.owner.call('DELETE', `/jobs/${body.job}`);
    await server.app.jobs.runOne();
    const after = (await server.owner.call('GET', '/stock')).body;
    expect(after.valuation.at).toBe(before);
    expect(after.running).toBeNull();
  });
  test('what is sold is no stock', async () => {
    const { pieces } = await valued();
    const id = pieces.find((p) => p.title === 'Old jack')?.id ?? '';
    const sold = await server.owner.call('POST', `/pieces/${id}/sale`, {
      price: { amount: '150.00', currency: 'EUR' },
      buyerName: 'A. Collector',
      buyerAddress: '',
      ageChecked: true,
    });
    expect(sold.status).toBe(201);
    expect((await valued()).totals.pieces).toBe(3);
  });
});
