/** Decisions, narrowing, what was learnt, and numbers seen before: one answer on every page. */
import { afterAll, beforeAll, beforeEach, describe, expect, test } from '@jest/globals';
import { serverForTest, type TestServer, testPack, type Visitor } from '../testing/index.ts';

let server: TestServer;
let owner: Visitor;
interface Piece {
  id: string;
  version: number;
}
let piece: Piece;

const [first] = testPack.variants;
const COPY = {
  id: 'copy',
  pattern: 'jack',
  name: 'Later copy',
  kind: 'reproduction',
  twinOf: first?.id,
  window: '2018/2022',
  made: { quantity: 400_000, basis: 'documented' },
  features: { scales: ['fibre'], lanyard: ['ring'] },
  tells: ['cast bolsters'],
};
const SERIAL = {
  id: 'serial',
  maker: 'bh',
  kind: 'serial',
  format: '^PT-(\\d+)$',
  number: 1,
  title: 'Serial',
};

beforeAll(async () => {
  server = await serverForTest();
  owner = server.owner;
  const reply = await owner.call('POST', '/reference-packs', {
    ...testPack,
    codes: [...testPack.codes, SERIAL],
    variants: [...testPack.variants, COPY],
  });
  expect(reply.status).toBe(200);
});
afterAll(() => server.close());
const takeIn = async (title: string) => {
  piece = (
    await owner.call<Piece>('POST', '/pieces', {
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
  ).body;
};
beforeEach(() => takeIn('Jack of the quay'));

const put = async (path: string, body: object) => {
  const version = (await owner.call<Piece>('GET', `/pieces/${piece.id}`)).body.version;
  return owner.call('PUT', `/pieces/${piece.id}/${path}`, body, { 'if-match': `"v${version}"` });
};
const observe = (observations: object[]) => put('observations', { observations });
const sheet = async () => (await owner.call('GET', `/pieces/${piece.id}`)).body;
const decide = (more: object) =>
  put('attribution', {
    attribution: { variant: first?.id, pattern: 'jack', tier: 'probable', reason: 'looked at it', ...more },
  });

describe('a decision', () => {
  test('over evidence that speaks for an imitation wants its ground named, and stays seen', async () => {
    await observe([
      { feature: 'scales', value: 'fibre' },
      { feature: 'lanyard', value: 'ring' },
    ]);
    expect((await sheet()).readings.which.tier).toBe('rejected');
    const bare = await decide({});
    expect(bare.status).toBe(422);
    expect(bare.body.errors).toMatchObject([{ pointer: '/attribution/evidence' }]);
    expect((await sheet()).attribution).toBeNull();
    expect((await decide({ evidence: 'works letter of 1936' })).status).toBe(200);
    expect((await sheet()).overruled).toBe(true);
    const draft = (await owner.call('GET', `/pieces/${piece.id}/listing/draft`)).body;
    expect(draft.written.body).toContain('the marks speak against it');
    expect(draft.written.body).toContain('works letter of 1936');
  });

  test('carries its own date with a reason, and that is what every page says', async () => {
    await observe([{ feature: 'lanyard', value: 'bar' }]);
    const without = await decide({ made: '1931' });
    expect(without.body.errors).toMatchObject([{ pointer: '/attribution/madeReason' }]);
    expect((await decide({ made: '1931', madeReason: 'dated invoice' })).status).toBe(200);
    const now = await sheet();
    expect(now.date).toMatchObject({ core: '1931', by: 'decision', reason: 'dated invoice' });
    expect(now.readings.when.core).toBe('1931');
    const draft = (await owner.call('GET', `/pieces/${piece.id}/listing/draft`)).body;
    expect(draft.written.body).toContain('Made: 1931.');
    expect(draft.written.body).toContain('Dated 1931 by the appraiser: dated invoice');
  });

  test('a date that is none is told beside its field, and nothing is kept', async () => {
    await observe([{ feature: 'lanyard', value: 'bar' }]);
    const reply = await decide({ made: 'long ago', madeReason: 'feel' });
    expect(reply.status).toBe(422);
    expect(reply.body.errors[0].pointer).toBe('/attribution/made');
    expect((await sheet()).attribution).toBeNull();
  });
});

describe('what one knows at once', () => {
  test('narrows the sheet’s own question and is kept', async () => {
    expect((await put('narrowing', { makers: ['bh'], patterns: ['jack'] })).status).toBe(200);
    expect((await sheet()).narrowing).toEqual({ makers: ['bh'], patterns: ['jack'] });
    const answer = (await owner.call('GET', `/pieces/${piece.id}/identification`)).body;
    expect(answer.narrowedBy).toEqual(
      expect.arrayContaining([expect.objectContaining({ by: 'choice', what: 'maker', ids: ['bh'] })]),
    );
    expect((await put('narrowing', {})).status).toBe(200);
    expect((await sheet()).narrowing).toEqual({ makers: [], patterns: [] });
  });
  test('a maker nobody knows is refused at its place', async () => {
    const reply = await put('narrowing', { makers: ['nobody'] });
    expect(reply.body.errors).toMatchObject([{ pointer: '/makers/0' }]);
  });
});

describe('how often things turn up', () => {
  test('decisions are learnt from, shown with their number, and left out again when switched off', async () => {
    await observe([{ feature: 'lanyard', value: 'bar' }]);
    await decide({ tier: 'confirmed' });
    const learnt = (await owner.call('GET', '/identify/frequency')).body;
    expect(learnt.learns).toBe(true);
    expect(learnt.learnt.find((l: { from: string }) => l.from === 'own').named).toBeGreaterThan(0);
    expect((await owner.call('PUT', '/identify/frequency', { learns: false })).status).toBe(200);
    expect((await owner.call('GET', '/identify/frequency')).body).toMatchObject({
      learns: false,
      learnt: [],
    });
    await owner.call('PUT', '/identify/frequency', { learns: true });
  });
});

test('the same number on a second piece takes the certainty of the first, on every page', async () => {
  await observe([{ code: 'serial', text: 'PT-0099' }]);
  const before = piece;
  const alerts = async () =>
    ((await owner.call('GET', `/pieces/${before.id}/identification`)).body.alerts as { kind: string }[]).map(
      (a) => a.kind,
    );
  expect(await alerts()).toEqual([]);
  await takeIn('Another');
  await observe([{ code: 'serial', text: 'PT-99' }]);
  expect(await alerts()).toEqual(['serial-seen-before']);
});

test('it is quoted in another school with a reason only, and in the usual one again', async () => {
  expect((await sheet()).quotedScale).toBe('collector');
  expect((await put('quoted-scale', { quoted: { scale: 'user', reason: '' } })).body.errors).toMatchObject([
    { pointer: '/quoted/reason' },
  ]);
  await put('quoted-scale', { quoted: { scale: 'user', reason: 'sold to be carried' } });
  expect((await sheet()).quotedScale).toBe('user');
  await put('quoted-scale', { quoted: null });
  expect((await sheet()).quotedScale).toBe('collector');
});
