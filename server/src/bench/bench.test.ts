import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { serverForTest, type TestServer, testPack, type Visitor } from '../testing/index.ts';

let server: TestServer;
let owner: Visitor;
let piece = '';
let other = '';
const SERIAL = {
  id: 'serial',
  maker: 'bh',
  kind: 'serial',
  format: '^PT-(\\d+)$',
  number: 1,
  title: 'Serial',
};

const newPiece = async (title: string) =>
  (
    await owner.call('POST', '/pieces', {
      title,
      construction: 'slipjoint',
      sourceKind: null,
      sourceName: '',
      sourcePlace: '',
      acquired: null,
      price: null,
      sellerStatement: '',
      cameWith: '',
      asFound: null,
    })
  ).body as { id: string; version: number };

beforeAll(async () => {
  server = await serverForTest();
  owner = server.owner;
  await owner.call('POST', '/reference-packs', { ...testPack, codes: [...testPack.codes, SERIAL] });
  const first = await newPiece('Petrel of the estate');
  piece = first.id;
  other = (await newPiece('Petrel of the fair')).id;
  await owner.call(
    'PUT',
    `/pieces/${piece}/observations`,
    { observations: [{ code: 'serial', text: 'PT-0412' }] },
    { 'if-match': `"v${first.version}"` },
  );
});
afterAll(() => server.close());

const alertsOf = async (body: object) =>
  ((await owner.call('POST', '/identify', body)).body as { alerts: { kind: string; detail: string }[] })
    .alerts;

describe('a number that was seen before', () => {
  test('is told with the piece that bears it, however it is written', async () => {
    const alerts = await alertsOf({ observations: [{ code: 'serial', text: 'PT-412' }] });
    expect(alerts).toMatchObject([{ kind: 'serial-seen-before' }]);
    expect(alerts[0]?.detail).toContain('Petrel of the estate');
  });

  test('not of the piece itself, nor of another number', async () => {
    const same = [{ code: 'serial', text: 'PT-0412' }];
    expect(await alertsOf({ observations: same, piece })).toEqual([]);
    expect(await alertsOf({ observations: same, piece: other })).toHaveLength(1);
    expect(await alertsOf({ observations: [{ code: 'serial', text: 'PT-0413' }] })).toEqual([]);
  });

  test('the shop’s watch-list is looked at too', async () => {
    const added = await owner.call('POST', '/watch-list', {
      code: 'serial',
      text: 'PT-0777',
      note: 'reported stolen',
    });
    expect(added.status).toBe(201);
    expect((await owner.call('POST', '/watch-list', { code: 'serial', text: 'PT-0777' })).status).toBe(409);
    expect((await owner.call('POST', '/watch-list', { code: 'ticks', text: '3' })).status).toBe(422);
    const alerts = await alertsOf({ observations: [{ code: 'serial', text: 'PT-0777' }] });
    expect(alerts[0]?.detail).toContain('reported stolen');
    await owner.call('DELETE', `/watch-list/${added.body.id}`);
    expect(await alertsOf({ observations: [{ code: 'serial', text: 'PT-0777' }] })).toEqual([]);
  });
});

describe('open questions', () => {
  test('are kept on the piece, listed in one place and answered', async () => {
    const asked = await owner.call('POST', `/pieces/${piece}/questions`, {
      asked: 'Two initials on the liner: whose?',
    });
    expect(asked.status).toBe(201);
    expect((await owner.call('GET', '/questions')).body.items).toMatchObject([
      { asked: 'Two initials on the liner: whose?', answer: null, piece: { id: piece } },
    ]);
    expect((await owner.call('GET', `/questions?piece=${other}`)).body.items).toEqual([]);
    const answered = await owner.call('PUT', `/questions/${asked.body.id}`, {
      answer: 'The cutler who fitted it',
    });
    expect(answered.body).toMatchObject({ answer: 'The cutler who fitted it', answeredBy: 'Ines Vadder' });
  });

  test('an empty one is told beside its field', async () => {
    const reply = await owner.call('POST', `/pieces/${piece}/questions`, { asked: ' ' });
    expect(reply.body.errors[0].pointer).toBe('/asked');
  });
});

test('the decision keeps what it was asked and what the engine said', async () => {
  const before = await owner.call('GET', `/pieces/${piece}`);
  const reply = await owner.call(
    'PUT',
    `/pieces/${piece}/attribution`,
    {
      attribution: {
        variant: testPack.variants[0]?.id,
        pattern: 'jack',
        tier: 'doubtful',
        reason: 'Feel of it',
      },
    },
    { 'if-match': `"v${before.body.version}"` },
  );
  expect(reply.status).toBe(200);
  expect(reply.body.attribution).toMatchObject({
    observations: [{ code: 'serial', text: 'PT-0412' }],
    engineVersion: expect.stringMatching(/^bench-/),
    reason: 'Feel of it',
  });
});

describe('gauges', () => {
  test('a key is pressed and the reading comes over the stream', async () => {
    expect((await owner.call('GET', '/gauges')).body.items).toEqual([
      { id: 'caliper', kind: 'caliper', simulated: true },
    ]);
    const going = new AbortController();
    const stream = await fetch(`${server.address}/api/v1/gauges/stream`, {
      headers: { cookie: owner.cookie },
      signal: going.signal,
    });
    expect(stream.headers.get('content-type')).toContain('text/event-stream');
    const reader = stream.body?.pipeThrough(new TextDecoderStream()).getReader();
    await reader?.read();
    expect((await owner.call('POST', '/gauges/caliper/press', { key: 'send', jaws: 97.62 })).status).toBe(
      200,
    );
    expect((await reader?.read())?.value).toContain('97.62 mm');
    going.abort();
  });

  test('one that is not there is told', async () => {
    expect((await owner.call('POST', '/gauges/rule/press', { key: 'send' })).status).toBe(404);
    expect((await owner.call('POST', '/gauges/caliper/press', { key: 'shake' })).status).toBe(422);
  });
});

describe('something the reference has no value for', () => {
  test('is kept as it was written, and listed with the pieces it was seen on', async () => {
    for (const [title, seen] of [
      ['With celluloid', 'Celluloid'],
      ['Again', 'celluloid'],
    ] as const) {
      const { id, version } = await newPiece(title);
      const put = await owner.call(
        'PUT',
        `/pieces/${id}/observations`,
        { observations: [{ feature: 'scales', other: seen, certainty: 'likely' }] },
        { 'if-match': `"v${version}"` },
      );
      expect(put.status).toBe(200);
      expect((await owner.call('GET', `/pieces/${id}`)).body.observations).toEqual([
        { feature: 'scales', other: seen, certainty: 'likely' },
      ]);
    }
    const { items } = (await owner.call('GET', '/observations/unlisted')).body;
    expect(items).toMatchObject([{ feature: 'scales', count: 2 }]);
    expect(items[0].text.toLowerCase()).toBe('celluloid');
    expect(items[0].pieces).toHaveLength(2);
  });
  test('what the list has is told to be chosen from it', async () => {
    const refused = await owner.call('POST', '/identify', {
      observations: [{ feature: 'scales', other: 'Horn' }],
    });
    expect(refused.status).toBe(422);
    expect(refused.body.errors[0]).toEqual({
      pointer: '/observations/0/other',
      message: '“Horn” is in the list: choose it',
    });
  });
});
