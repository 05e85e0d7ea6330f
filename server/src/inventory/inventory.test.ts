/** All pieces as rows: found by what is asked, in every order, page after page, moved many at once. */
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { InventoryRow } from '@jutbank/contract/inventory';
import { intake, serverForTest, testPack, type TestServer } from '../testing/index.ts';

let server: TestServer;
const call = (method: string, path: string, body?: unknown, headers?: Record<string, string>): Promise<any> =>
  server.owner.call(method as 'GET', path, body, headers);
const put = async (piece: any, path: string, body: unknown): Promise<any> =>
  (await call('PUT', `/pieces/${piece.id}/${path}`, body, { 'if-match': `"v${piece.version}"` })).body;
const list = async (
  query: Record<string, string> = {},
): Promise<{ items: InventoryRow[]; total: number; nextCursor: string | null }> =>
  (await call('GET', `/inventory?${new URLSearchParams(query)}`)).body;
const titles = async (query: Record<string, string> = {}) =>
  (await list(query)).items.map((row) => row.title);

/** title, source, ask, construction */
const PIECES = [
  ['Petrel', 'Tollgate Rooms', '138.00 EUR', 'locking-folder'],
  ['Harbour jack', 'Rosa Halvern', '96.00 EUR', 'slipjoint'],
  ['Deck knife', 'Rosa Halvern', '1140.00 SEK', 'fixed'],
  ['Anchor pen', 'Quay fair', '', 'slipjoint'],
  ['Harbour jack', 'Quay fair', '96.00 EUR', 'slipjoint'],
] as const;
const made: any[] = [];

beforeAll(async () => {
  server = await serverForTest();
  await call('POST', '/reference-packs', testPack);
  await call('POST', '/exchange-rates', {
    base: 'EUR',
    rates: [{ date: new Date().toISOString().slice(0, 10), currency: 'SEK', rate: '11.4' }],
  });
  for (const [title, sourceName, ask, construction] of PIECES) {
    let piece = (await call('POST', '/pieces', { ...intake, title, sourceName, construction })).body;
    const [amount = '', currency = ''] = ask.split(' ');
    if (ask !== '') piece = await put(piece, 'pricing', { ask: { amount, currency }, floor: null, note: '' });
    made.push(piece);
  }
  made[1] = await put(made[1], 'attribution', {
    attribution: { pattern: 'jack', variant: 'first', tier: 'probable', reason: 'compared' },
  });
});
afterAll(() => server.close());

describe('what is asked for', () => {
  test('everything, the newest first', async () => {
    expect(await titles()).toEqual(PIECES.map(([title]) => title).reverse());
    expect((await list()).total).toBe(5);
  });
  test.each([
    ['q', 'harb', 2],
    ['q', 'harb tollg', 0],
    ['source', 'Rosa Halvern', 2],
    ['construction', 'slipjoint', 3],
    ['pattern', 'jack', 1],
    ['maker', 'nobody', 0],
    ['stage', 'sold', 0],
    ['stage', 'here', 5],
    ['days', '0', 5],
    ['days', '36000', 0],
    ['place', 'safe', 0],
  ])('%s %s', async (name, value, n) => {
    const found = await list({ [name]: value });
    expect([found.total, found.items.length]).toEqual([n, n]);
  });
  test('by the maker, whose patterns stand in the reference', async () => {
    const { items } = await list({ pattern: 'jack' });
    const maker = (testPack as any).patterns.find((p: any) => p.id === 'jack').maker as string;
    expect((await list({ maker })).items).toEqual(items);
    expect(items[0]).toMatchObject({ tier: 'probable', attributed: expect.stringMatching(/,/) });
  });
  test('asks in the shop’s currency, those in others by today’s rate', async () => {
    // 1140 SEK is 100 EUR
    expect((await titles({ askFrom: '97', askTo: '101' })).sort()).toEqual(['Deck knife']);
    expect((await titles({ askTo: '100' })).sort()).toEqual(['Deck knife', 'Harbour jack', 'Harbour jack']);
  });
  test('what is no question is told at its name', async () => {
    const refused = await call('GET', '/inventory?sort=prettiest&askFrom=-1');
    expect(refused.body.errors.map((e: any) => e.pointer).sort()).toEqual(['/query/askFrom', '/query/sort']);
    expect((await call('GET', '/inventory?cursor=abc')).status).toBe(422);
  });
});

describe('in an order', () => {
  test.each([
    ['title', ['Anchor pen', 'Deck knife', 'Harbour jack', 'Harbour jack', 'Petrel']],
    ['dearest', ['Petrel', 'Deck knife', 'Harbour jack', 'Harbour jack', 'Anchor pen']],
    ['cheapest', ['Harbour jack', 'Harbour jack', 'Deck knife', 'Petrel', 'Anchor pen']],
    ['oldest', PIECES.map(([title]) => title)],
  ])('%s, and page by page it is the same', async (sort, wanted) => {
    expect(await titles({ sort })).toEqual(wanted);
    const paged: string[] = [];
    let cursor: string | null = '';
    while (cursor !== null) {
      const page: Awaited<ReturnType<typeof list>> = await list({
        sort,
        limit: '1',
        ...(cursor === '' ? {} : { cursor }),
      });
      paged.push(...page.items.map((row) => row.title));
      cursor = page.nextCursor;
      expect(paged.length).toBeLessThanOrEqual(5);
    }
    expect(paged).toEqual(wanted);
  });
});

describe('where it lies', () => {
  test('many are moved at once; what lay there already is not touched, and the ledger keeps where they were', async () => {
    const ids = made.slice(0, 3).map((p) => p.id);
    expect((await call('POST', '/inventory/place', { pieces: ids, place: 'Drawer 3' })).body).toEqual({
      moved: 3,
    });
    const version = (await call('GET', `/pieces/${ids[0]}`)).body.version;
    expect(
      (await call('POST', '/inventory/place', { pieces: [...ids, ids[0]], place: 'Drawer 3' })).body,
    ).toEqual({ moved: 0 });
    expect((await call('GET', `/pieces/${ids[0]}`)).body.version).toBe(version);
    await call('POST', '/inventory/place', { pieces: [ids[0]], place: 'At the grinder’s' });
    expect((await list({ place: 'Drawer 3' })).total).toBe(2);
    expect((await call('GET', '/inventory/choices')).body).toMatchObject({
      places: ['At the grinder’s', 'Drawer 3'],
      sources: ['Quay fair', 'Rosa Halvern', 'Tollgate Rooms'],
    });
    const ledger = (await call('GET', `/pieces/${ids[0]}/ledger?limit=5`)).body.items;
    expect(ledger[0]).toMatchObject({ kind: 'moved', body: { from: 'Drawer 3', to: 'At the grinder’s' } });
  });
  test('one that is not there moves none', async () => {
    const missing = '01ARZ3NDEKTSV4RRFFQ69G5FAV';
    expect(
      (await call('POST', '/inventory/place', { pieces: [made[4].id, missing], place: 'Safe' })).status,
    ).toBe(404);
    expect((await list({ place: 'Safe' })).total).toBe(0);
    expect((await call('POST', '/inventory/place', { pieces: [], place: 'Safe' })).status).toBe(422);
  });
});

describe('what wants a look', () => {
  test('an offer that waits, a trail that contradicts itself: asked for, and said', async () => {
    await call('GET', '/tray');
    expect((await list({ warned: '1' })).total).toBe(0);
    await put((await call('GET', `/pieces/${made[0].id}`)).body, 'custody', {
      events: [
        {
          holder: 'A',
          private: false,
          place: null,
          period: '1950/1970',
          how: null,
          evidence: 'document',
          note: null,
        },
        {
          holder: 'B',
          private: false,
          place: null,
          period: '1950/1970',
          how: null,
          evidence: 'document',
          note: null,
        },
      ],
    });
    await call('GET', '/tray');
    const { items } = await list({ warned: '1' });
    expect(items).toMatchObject([{ title: 'Petrel', warnings: ['The paper trail contradicts itself'] }]);
  });
});

describe('views and lists', () => {
  test('a person keeps views for themselves', async () => {
    const items = [
      { name: 'Dear ones', asks: 'sort=dearest&stage=here' },
      { name: 'At the grinder’s', asks: 'place=At+the+grinder%E2%80%99s' },
    ];
    expect((await call('PUT', '/inventory/views', { items })).body.items.map((v: any) => v.name)).toEqual([
      'At the grinder’s',
      'Dear ones',
    ]);
    expect((await call('GET', '/inventory/views')).body.items).toHaveLength(2);
    expect((await call('PUT', '/inventory/views', { items: [items[0], items[0]] })).status).toBe(422);
  });
  test('as CSV: all that is asked for, and no formula', async () => {
    await call('POST', '/pieces', { ...intake, title: '=HYPERLINK("x")', sourceName: 'Quay fair' });
    const text = (await call('GET', '/inventory.csv?source=Quay+fair')).body as string;
    const lines = text.trim().split('\n');
    expect(lines[0]).toMatch(/^stock_number,title,stage/);
    expect(lines).toHaveLength(4);
    expect(text).not.toMatch(/(^|,)"?=HYPER/m);
    const two = made.slice(0, 2).map((p) => p.id);
    const chosen = (await call('GET', `/inventory.csv?pieces=${two.join(',')}`)).body as string;
    expect(chosen.trim().split('\n')).toHaveLength(3);
  });
});

describe('finding anything', () => {
  const find = async (q: string, of = server.owner): Promise<any[]> =>
    (await of.call<any>('GET', `/search?q=${encodeURIComponent(q)}`)).body.items;
  const kinds = async (q: string) => (await find(q)).map((hit) => hit.kind);

  test('a finding, a question, a number, a lot, somebody: by what was written', async () => {
    const piece = (await call('GET', `/pieces/${made[3].id}`)).body;
    await put(piece, 'condition', {
      findings: [{ part: 'scales', defect: 'crack', severity: 'light', note: 'hairline at the harbour pin' }],
      completeness: {},
      inspected: false,
    });
    await call('POST', '/contacts', { name: 'Philippa Dunmere' });
    await call('POST', '/lots', {
      name: 'Estate at Fernhithe',
      sourceKind: 'estate',
      sourceName: 'Household',
      acquired: null,
      currency: 'EUR',
      method: 'equal',
      costs: [],
      note: '',
    });
    expect(await find('hairline')).toMatchObject([
      { kind: 'finding', id: made[3].id, label: expect.stringMatching(/crack.*hairline/) },
    ]);
    await put((await call('GET', `/pieces/${made[4].id}`)).body, 'observations', {
      observations: [{ number: 'A 4417', part: 'blade' }],
    });
    expect(await find('A 44')).toMatchObject([{ kind: 'number', id: made[4].id, label: 'A 4417, blade' }]);
    expect(await kinds('Dunmere')).toEqual(['contact']);
    expect(await kinds('Fernhithe')).toEqual(['lot']);
    expect(await kinds(made[0].stockNumber)).toContain('piece');
  });
  test('signs that mean something to a database mean nothing here', async () => {
    expect(await kinds('%')).toEqual([]);
    expect(await kinds("' OR 1=1 --")).toEqual([]);
    expect(await kinds('+++')).toEqual([]);
  });
});

describe('what is due, and whom one deals with, as files', () => {
  test('a calendar: days of the pieces, and nobody’s name', async () => {
    const day = new Date(Date.now() + 5 * 86_400_000).toISOString().slice(0, 10);
    const piece = (await call('GET', `/pieces/${made[2].id}`)).body;
    await put(piece, 'reservation', { name: 'Oskar Wynde', until: day });
    const text = String((await call('GET', '/due.ics')).body);
    expect(text).toMatch(/^BEGIN:VCALENDAR\r\nVERSION:2\.0\r\n/);
    expect(text).toContain(`DTSTART;VALUE=DATE:${day.replaceAll('-', '')}`);
    expect(text).toContain(`A reservation ends: ${piece.stockNumber} Deck knife`);
    expect(text).toContain(`UID:reservation-${piece.id}@jutbank`);
    expect(text).not.toContain('Wynde');
    // the same event whenever it is asked for
    expect(String((await call('GET', '/due.ics')).body).match(/UID:.*/g)).toEqual(text.match(/UID:.*/g));
  });
  test('contacts as cards: what is typed breaks out of none; whoever asked to be forgotten is in none', async () => {
    await call('POST', '/contacts', {
      name: 'Corrie; A,\nTEL:999',
      email: 'corrie@fernhithe.example',
      note: 'pays late',
    });
    const gone = (await call('POST', '/contacts', { name: 'Anselm Gone' })).body;
    await call('DELETE', `/contacts/${gone.id}`);
    const text = String((await call('GET', '/contacts.vcf')).body);
    expect(text).toContain('EMAIL');
    expect(text).not.toMatch(/^TEL:999/m);
    expect(text).not.toContain('Gone');
    expect(text).not.toContain('pays late');
    expect(text.match(/BEGIN:VCARD/g)?.length).toBe(text.match(/END:VCARD/g)?.length);
  });
});
