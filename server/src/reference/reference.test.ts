import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { serverForTest, type TestServer, testPack } from '../testing/index.ts';

let server: TestServer;
beforeAll(async () => {
  server = await serverForTest();
});
afterAll(() => server.close());
const send = (pack: unknown) => server.owner.call('POST', '/reference-packs', pack);

describe('importing a pack', () => {
  test('all or nothing: one mistake and nothing is there', async () => {
    const wrong = {
      ...testPack,
      variants: [
        ...testPack.variants,
        { id: 'x', pattern: 'nowhere', name: 'X', kind: 'production', window: '1940/1930' },
      ],
    };
    const reply = await send(wrong);
    expect(reply.status).toBe(422);
    expect(reply.body.errors.map((e: { pointer: string }) => e.pointer)).toEqual([
      '/variants/2/pattern',
      '/variants/2/window',
    ]);
    expect((await server.owner.call('GET', '/reference/vocabulary')).body.makers).toEqual([]);
  });

  test('a shape that is not a pack is named field by field', async () => {
    const reply = await send({
      ...testPack,
      features: [{ id: 'Bad Id', label: 'x', part: 'p', kind: 'colour' }],
    });
    expect(reply.body.errors.map((e: { pointer: string }) => e.pointer)).toEqual([
      '/features/0/id',
      '/features/0/kind',
    ]);
  });

  test('twice changes nothing; a change updates; the export is what was written', async () => {
    const first = await send(testPack);
    expect(first.status).toBe(200);
    expect(first.body).toMatchObject({
      packId: 'test-pack',
      created: { variants: 2, makers: 1 },
      updated: { variants: 0 },
      unchanged: { variants: 0 },
    });
    const again = await send(testPack);
    expect(again.body).toMatchObject({
      created: { variants: 0 },
      updated: { variants: 0 },
      unchanged: { variants: 2, features: 3 },
    });
    const renamed = {
      ...testPack,
      revision: '2',
      makers: [{ ...testPack.makers[0], name: 'Brackenholt & Sons' }],
    };
    expect((await send(renamed)).body).toMatchObject({ updated: { makers: 1 }, unchanged: { variants: 2 } });
    expect((await server.owner.call('GET', '/reference-packs/test-pack')).body).toEqual(renamed);
    expect((await server.owner.call('GET', '/reference-packs/none')).status).toBe(404);
    expect((await server.owner.call('GET', '/reference-packs')).body).toMatchObject({
      total: 1,
      nextCursor: null,
      items: [{ id: 'test-pack', revision: '2', counts: { variants: 2 } }],
    });
  });

  test('the engine sees a change at once', async () => {
    const ask = () => server.owner.call('POST', '/identify', { observations: [], limit: 100 });
    expect((await ask()).body.candidates).toHaveLength(2);
    await send({
      format: 'jutbank.reference/1',
      id: 'more',
      title: 'More',
      revision: '1',
      variants: [{ id: 'third', pattern: 'jack', name: 'Third', kind: 'production', window: '1941/1950' }],
    });
    expect((await ask()).body.candidates).toHaveLength(3);
  });
});

test('browsing: patterns, variants, and what is unknown', async () => {
  expect((await server.owner.call('GET', '/reference/patterns/jack')).body).toMatchObject({
    pattern: { id: 'jack' },
    windows: [{ id: 'w1' }],
    marks: [{ id: 'three-line' }],
  });
  expect((await server.owner.call('GET', '/reference/variants/second')).body).toMatchObject({
    maker: { id: 'bh' },
    sources: [{ id: 'ledger' }],
  });
  expect((await server.owner.call('GET', '/reference/variants/none')).status).toBe(404);
});

test('finding a stamp with letters that cannot be read', async () => {
  const hits = await server.owner.call('GET', `/search?q=${encodeURIComponent('BR?CKENH')}`);
  expect(hits.body.items).toEqual(
    expect.arrayContaining([expect.objectContaining({ kind: 'mark', id: 'three-line' })]),
  );
});

describe('identify over HTTP', () => {
  const ask = (body: unknown) => server.owner.call('POST', '/identify', body);
  test('answers in the contract’s shape', async () => {
    const { body } = await ask({
      observations: [
        { feature: 'lanyard', value: 'bar' },
        { mark: 'three-line' },
        { code: 'ticks', reads: { ticks: 5 } },
      ],
      within: { makers: [], patterns: [] },
      found: 'fair',
      limit: 10,
    });
    expect(body.candidates[0]).toMatchObject({ variant: 'second', pattern: 'jack', exchanged: [] });
    expect(body.candidates[0].evidence[0]).toEqual(
      expect.objectContaining({ verdict: 'agrees', weight: expect.any(Number), expected: expect.any(Array) }),
    );
    expect(body.dating.core).toBe('1935');
    expect(body.codes[0]).toMatchObject({
      code: 'ticks',
      readings: [{ window: '1935', implies: [] }],
      contradicts: [],
    });
    expect(body.attribution.tier).toEqual(expect.any(String));
    const sum = body.candidates.reduce(
      (s: number, c: { probability: number }) => s + c.probability,
      body.unlisted,
    );
    expect(sum).toBeCloseTo(1, 9);
  });
  test.each([
    [{ observations: [{ code: 'ticks', reads: { ticks: 12 } }] }, '/observations/0/reads/ticks'],
    [{ observations: [{ feature: 'scales', value: 'gold' }] }, '/observations/0/value'],
    [{ observations: [{ feature: 'scales' }] }, '/observations/0'],
    [{ observations: [], limit: 0 }, '/limit'],
    [{ observations: [], within: { makers: ['nobody'] } }, '/within/makers/0'],
  ])('refuses %j', async (body, pointer) => {
    const reply = await ask(body);
    expect(reply.status).toBe(422);
    expect(reply.body.errors[0].pointer).toBe(pointer);
  });
});

test('grade over HTTP', async () => {
  const right = await server.owner.call('POST', '/grade', {
    construction: 'slipjoint',
    findings: [{ part: 'blade:2', defect: 'sharpened', severity: 'light' }],
    completeness: { box: 'none' },
  });
  expect(right.body).toMatchObject({
    conditionIndex: 96,
    grades: [{ scale: 'collector', grade: 'excellent' }, { scale: 'user' }, { scale: 'finish' }],
  });
  const wrong = await server.owner.call('POST', '/grade', {
    construction: 'slipjoint',
    findings: [{ part: 'wing', defect: 'bored' }],
  });
  expect(wrong.body.errors.map((e: { pointer: string }) => e.pointer)).toEqual([
    '/findings/0/part',
    '/findings/0/defect',
  ]);
});
