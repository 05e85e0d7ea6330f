/** What the owner has not opened to readers stands in no answer to them, whatever they ask. */
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { allRoutes } from '@jutbank/contract/openapi';
import { readyToSell, serverForTest, testPack, type TestServer, type Visitor } from '../testing/index.ts';

let server: TestServer;
let reader: Visitor;
let ids: Record<string, string>;
const COST = '71.37';
const FLOOR = '97.13';
const BUYER = 'Philippa Dunmere';
const PASSWORD = 'a long enough word';

beforeAll(async () => {
  server = await serverForTest();
  const { owner } = server;
  await owner.call('POST', '/reference-packs', testPack);
  const piece = await readyToSell(server, { price: { amount: COST, currency: 'EUR' } });
  const priced = await owner.call(
    'PUT',
    `/pieces/${piece.id}/pricing`,
    { ask: { amount: '120.00', currency: 'EUR' }, floor: { amount: FLOOR, currency: 'EUR' }, note: '' },
    { 'If-Match': `"v${piece.version}"` },
  );
  expect(priced.status).toBe(200);
  const gone = await readyToSell(server, { price: { amount: COST, currency: 'EUR' } });
  const sale = await owner.call('POST', `/pieces/${gone.id}/sale`, {
    ageChecked: true,
    buyerName: BUYER,
    price: { amount: '130.00', currency: 'EUR' },
  });
  expect(sale.status).toBe(201);
  const lot = await owner.call('POST', '/lots', {
    name: 'Lot',
    sourceKind: 'fair',
    sourceName: '',
    acquired: null,
    currency: 'EUR',
    method: 'equal',
    costs: [{ label: 'Price', amount: COST }],
    note: '',
  });
  await owner.call('POST', '/people', {
    name: 'R',
    email: 'r@hollinquay.example',
    password: PASSWORD,
    role: 'reader',
  });
  reader = server.nobody();
  await reader.call('POST', '/session', { email: 'r@hollinquay.example', password: PASSWORD });
  ids = { piece: piece.id, gone: gone.id, sale: sale.body.id, lot: lot.body.id };
}, 30_000);
afterAll(() => server.close());

/** Every answer to a GET of every route, for every id that could stand in it. */
async function everything(visitor: Visitor): Promise<{ path: string; status: number; text: string }[]> {
  const found = [];
  for (const route of allRoutes) {
    if (route.method !== 'get' || route.path === '/gauges/readings') continue;
    for (const id of route.path.includes(':id') ? Object.values(ids) : ['']) {
      const path = route.path.replace(':id', id).replaceAll(/:\w+/g, 'x');
      const { status, body } = await visitor.call<unknown>('GET', path);
      found.push({ path, status, text: typeof body === 'string' ? body : JSON.stringify(body) });
    }
  }
  return found;
}
const told = async (secret: string) =>
  (await everything(reader)).filter((answer) => answer.text.includes(secret)).map((answer) => answer.path);

test('nothing is opened until the owner says so: no cost, no floor, no buyer in any answer', async () => {
  const answers = await everything(reader);
  expect(answers.filter((a) => a.status >= 500)).toEqual([]);
  for (const secret of [COST, FLOOR, BUYER])
    expect(answers.filter((a) => a.text.includes(secret)).map((a) => a.path)).toEqual([]);
  const sheet = (await reader.call('GET', `/pieces/${ids['piece'] ?? ''}`)).body;
  expect([sheet.cost, sheet.intake.price, sheet.pricing.floor]).toEqual([null, null, null]);
  expect(sheet.pricing.ask.amount).toBe('120.00');
  const [sale] = (await reader.call('GET', '/sales')).body.items;
  expect([sale.buyerName, sale.margin, sale.net, sale.price.amount]).toEqual([null, null, null, '130.00']);
  expect((await reader.call('GET', `/sales/${ids['sale'] ?? ''}/invoice.pdf`)).status).toBe(403);
  expect((await reader.call('GET', '/lots')).status).toBe(403);
  // those who work here see all of it
  expect((await server.owner.call('GET', `/pieces/${ids['piece'] ?? ''}`)).body.intake.price.amount).toBe(
    COST,
  );
});

test('what the owner opens is told, and only that', async () => {
  const { shop } = (await server.owner.call('GET', '/session')).body;
  const put = (readerSees: string[]) =>
    server.owner.call('PUT', '/shop', { name: shop.name, stockScheme: shop.stockScheme, readerSees });
  expect((await put(['costs'])).body.readerSees).toEqual(['costs']);
  expect((await told(COST)).length).toBeGreaterThan(2);
  expect(await told(FLOOR)).toEqual([]);
  await put(['buyers']);
  expect(await told(COST)).toEqual([]);
  expect((await told(BUYER)).length).toBeGreaterThan(0);
  expect((await reader.call('GET', `/sales/${ids['sale'] ?? ''}/invoice.pdf`)).status).toBe(200);
});
