import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { serverForTest, type TestServer, testPack, type Visitor } from '../testing/index.ts';

let server: TestServer;
let owner: Visitor;
beforeAll(async () => {
  server = await serverForTest();
  owner = server.owner;
  await owner.call('POST', '/reference-packs', testPack);
});
afterAll(() => server.close());

const put = (path: string, body: unknown, version?: number) =>
  owner.call(
    'PUT',
    `/reference/items/${path}`,
    body,
    version === undefined ? {} : { 'if-match': `"v${version}"` },
  );
const maker = { id: 'tidewrack', name: 'Tidewrack Tool', active: '1921/' };

describe('writing one thing', () => {
  test('it is added to the shop’s own pack, and can be exported from there', async () => {
    const reply = await put('makers/tidewrack', maker);
    expect(reply.status).toBe(200);
    expect(reply.body).toMatchObject({ item: maker, version: 1, packs: [{ id: 'own' }] });
    const pack = await owner.call('GET', '/reference-packs/own');
    expect(pack.body).toMatchObject({ format: 'jutbank.reference/1', makers: [maker] });
  });

  test('a taken id is told beside the id, and nothing is written over', async () => {
    const reply = await put('makers/tidewrack', { ...maker, name: 'Somebody else' });
    expect(reply.status).toBe(422);
    expect(reply.body.errors[0].pointer).toBe('/id');
    expect((await owner.call('GET', '/reference/items/makers/tidewrack')).body.item.name).toBe(
      'Tidewrack Tool',
    );
  });

  test('two people change it: the later one is told', async () => {
    const first = await put('makers/tidewrack', { ...maker, place: 'Norham Vale' }, 1);
    expect(first.body.version).toBe(2);
    expect((await put('makers/tidewrack', { ...maker, place: 'Elsewhere' }, 1)).status).toBe(412);
  });

  test.each([
    ['windows/w-a', { feature: 'lanyard', value: 'bar', window: '1949/1934' }, '/window'],
    ['windows/w-b', { feature: 'lanyard', value: 'chain', window: '1934' }, '/value'],
    ['variants/v-a', { pattern: 'nowhere', name: 'X', kind: 'production' }, '/pattern'],
    ['marks/m-a', { lines: [] }, '/lines'],
    ['stories/s-a', { told: 'It floated ashore', verdict: 'open' }, '/maker'],
    [
      'codes/c-a',
      {
        kind: 'date',
        reads: [{ id: 'ticks', label: 'Ticks', type: 'count', min: 0, max: 9 }],
        rules: [{ when: { row: 'above' }, year: { base: 1950, plus: 'ticks' } }],
      },
      '/rules/0/when/row',
    ],
  ])('what is wrong with %s is told beside its field', async (path, body, pointer) => {
    const reply = await put(path, { id: path.split('/')[1], ...body });
    expect(reply.status).toBe(422);
    expect(reply.body.errors.map((e: { pointer: string }) => e.pointer)).toContain(pointer);
    expect((await owner.call('GET', `/reference/items/${path}`)).status).toBe(404);
  });

  test('a change that would break what others say of it is refused and named', async () => {
    const feature = testPack.features.find((f) => f.id === 'lanyard');
    const reply = await put('features/lanyard', { ...feature, values: [{ id: 'ring', label: 'Ring' }] }, 1);
    expect(reply.status).toBe(422);
    expect(reply.body.errors[0].message).toMatch(/would no longer hold/);
  });

  test('a circle of twins is refused', async () => {
    const [first, second] = testPack.variants;
    expect((await put(`variants/${first?.id}`, { ...first, twinOf: second?.id }, 1)).status).toBe(200);
    const reply = await put(`variants/${second?.id}`, { ...second, twinOf: first?.id }, 1);
    expect(reply.status).toBe(422);
    expect(reply.body.errors[0].pointer).toBe('/twinOf');
  });
});

describe('taking one thing out', () => {
  test('refused while something refers to it', async () => {
    const reply = await owner.call('DELETE', `/reference/items/makers/${testPack.makers[0]?.id}`);
    expect(reply.status).toBe(409);
    expect(reply.body.detail).toMatch(/still refers to it/);
  });

  test('gone otherwise, from its pack too', async () => {
    await put('sources/old-list', { id: 'old-list', title: 'Old list', kind: 'catalogue' });
    expect((await owner.call('DELETE', '/reference/items/sources/old-list')).status).toBe(200);
    expect((await owner.call('GET', '/reference/items/sources/old-list')).status).toBe(404);
    expect((await owner.call('GET', '/reference-packs/own')).body.sources ?? []).toEqual([]);
  });

  test('a clerk may look, not write', async () => {
    const person = { name: 'Tom Okell', email: 'tom@hollinquay.example', password: 'harbour light 12' };
    await owner.call('POST', '/people', { ...person, role: 'clerk' });
    const clerk = server.nobody();
    await clerk.call('POST', '/session', person);
    expect((await clerk.call('GET', '/reference/items/makers/tidewrack')).status).toBe(200);
    expect(
      (await clerk.call('PUT', '/reference/items/makers/other', { id: 'other', name: 'O' })).status,
    ).toBe(403);
  });
});

describe('a pack is reviewed before it goes in', () => {
  test('new, changed and contradicting are told; nothing is written', async () => {
    const window = testPack.windows[0];
    const reply = await owner.call('POST', '/reference-packs/review', {
      format: 'jutbank.reference/1',
      id: 'neighbour',
      title: 'From a neighbour',
      revision: '1',
      sources: [{ id: 'their-book', title: 'Their book', kind: 'book' }],
      makers: [{ ...testPack.makers[0], place: 'Another vale' }],
      windows: [{ ...window, id: 'their-window', window: '1930/1931', source: 'their-book' }],
    });
    expect(reply.status).toBe(200);
    expect(reply.body.created.map((c: { id: string }) => c.id)).toEqual(['their-book', 'their-window']);
    expect(reply.body.changed).toMatchObject([
      { section: 'makers', fields: [{ field: 'place', after: 'Another vale' }] },
    ]);
    expect(reply.body.contradicts).toMatchObject([{ window: 'their-window', says: '1930/1931' }]);
    expect((await owner.call('GET', '/reference/items/sources/their-book')).status).toBe(404);
  });
});

describe('a file that is not what it says', () => {
  const pack = (more: object) => ({ ...testPack, id: 'odd', ...more });

  test('50 MB of JSON that is no pack is answered in words, and nothing is written', async () => {
    const before = (await owner.call('GET', '/reference-packs')).body.total;
    const reply = await owner.call(
      'POST',
      '/reference-packs',
      JSON.stringify({ junk: 'x'.repeat(50 << 20) }),
      {
        'content-type': 'application/json',
      },
    );
    expect(reply.status).toBe(422);
    expect(reply.body.errors.map((e: { pointer: string }) => e.pointer)).toContain('/format');
    expect((await owner.call('GET', '/reference-packs')).body.total).toBe(before);
  });

  test('more than is accepted is refused as too large', async () => {
    const reply = await owner.call(
      'POST',
      '/reference-packs',
      JSON.stringify({ junk: 'x'.repeat(65 << 20) }),
      {
        'content-type': 'application/json',
      },
    );
    expect(reply.status).toBe(413);
  });

  test('a circle of twins in a pack is told, whole, and nothing goes in', async () => {
    const ring = ['a', 'b', 'c'].map((id, i) => ({
      ...testPack.variants[0],
      id: `ring-${id}`,
      kind: 'commercial-twin',
      twinOf: `ring-${['b', 'c', 'a'][i]}`,
    }));
    const reply = await owner.call('POST', '/reference-packs', pack({ variants: ring }));
    expect(reply.status).toBe(422);
    expect(reply.body.errors[0].message).toContain('ring-a → ring-b → ring-c → ring-a');
    expect((await owner.call('GET', '/reference/variants/ring-a')).status).toBe(404);
  });
});
