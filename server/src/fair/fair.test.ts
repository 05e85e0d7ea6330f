/** The fair over the server: a ceiling, a bag to carry, notes that come in late. */
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { randomUUID } from 'node:crypto';
import sharp from 'sharp';
import { FairTable, isBag } from '@jutbank/core/fair';
import { csv, serverForTest, testPack, type TestServer } from '../testing/index.ts';

const SERIAL = {
  id: 'numbered',
  kind: 'serial',
  title: 'Numbers',
  maker: 'bh',
  pattern: 'jack',
  format: 'HJ (\\d+)',
  number: 1,
};
const OTHER_MAKER = {
  makers: [...testPack.makers, { id: 'tw', name: 'Tarnwick Works', active: '1920/1980' }],
  patterns: [...testPack.patterns, { id: 'pen', maker: 'tw', name: 'Office pen', construction: 'slipjoint' }],
  variants: [...testPack.variants, { id: 'pen-1', pattern: 'pen', name: 'Pen', kind: 'production' }],
};
let server: TestServer;
const sales = (paid: number, venue = 'Tollgate Rooms') =>
  csv(
    Array.from(
      { length: 24 },
      (_, i) => `2026-0${1 + (i % 9)}-1${i % 9},${paid + (i % 7) * 4},EUR,sold,${venue},online,jack,first,80`,
    ),
  );
beforeAll(async () => {
  server = await serverForTest();
  await server.owner.call('POST', '/reference-packs', {
    ...testPack,
    ...OTHER_MAKER,
    codes: [...testPack.codes, SERIAL],
  });
  await server.owner.call('POST', '/comparables/import', sales(150));
});
afterAll(() => server.close());

describe('the fair', () => {
  const judge = (more: object = {}) =>
    server.owner.call('POST', '/fair/judge', {
      pattern: 'jack',
      variant: 'first',
      conditionIndex: 80,
      ...more,
    });

  test('a ceiling, and what the asked price would leave', async () => {
    const cheap = (await judge({ asked: { amount: '50.00', currency: 'EUR' } })).body;
    expect(cheap.verdict).toBe('pay');
    expect(cheap.atAsked.cost).toEqual({ amount: '50.00', currency: 'EUR' });
    expect(cheap.atAsked.marginPct).toBeGreaterThan(30);
    expect(Number(cheap.most.bid)).toBeGreaterThan(60);
    expect(cheap.most.steps.at(-1).amount).toBe(cheap.most.bid);
    expect((await judge({ asked: { amount: '900.00', currency: 'EUR' } })).body.verdict).toBe('leave');
    expect((await judge()).body.verdict).toBe('no-price');
  });
  test('the careful pay less than the bold, and worse condition has a lower ceiling', async () => {
    const bid = async (more: object) => Number((await judge(more)).body.most.bid);
    expect(await bid({ care: 'careful' })).toBeLessThan(await bid({ care: 'bold' }));
    expect(await bid({ conditionIndex: 40 })).toBeLessThan(await bid({ conditionIndex: 90 }));
  });
  test('without a variant every honest one of the pattern is possible; strange ids are told', async () => {
    expect((await judge({ variant: null })).status).toBe(200);
    expect((await judge({ variant: 'ghost' })).body.errors[0].pointer).toBe('/variant');
    expect((await judge({ pattern: 'ghost', variant: null })).body.errors[0].pointer).toBe('/pattern');
    expect((await judge({ asked: { amount: '5', currency: 'SEK' } })).body.errors[0].pointer).toBe(
      '/asked/currency',
    );
  });
  test('a note sent twice is kept once, and a bought piece is taken in', async () => {
    const note = {
      key: randomUUID(),
      notedAt: '2026-11-21T10:12:00.000Z',
      title: 'Jack from the second table',
      construction: 'slipjoint',
      question: { pattern: 'jack', variant: 'first', alterations: [] },
      decision: 'bought',
      paid: { amount: '55.00', currency: 'EUR' },
      note: 'said to be his grandfather’s',
    };
    const first = await server.owner.call('POST', '/fair/notes', note);
    expect(first.status).toBe(201);
    const again = await server.owner.call('POST', '/fair/notes', note);
    expect(again.body.id).toBe(first.body.id);
    expect((await server.owner.call('GET', '/fair/notes')).body.items).toHaveLength(1);
    const taken = (await server.owner.call('GET', `/pieces/${first.body.pieceId}`)).body;
    expect(taken.intake).toMatchObject({
      sourceKind: 'fair',
      acquired: '2026-11-21',
      price: { amount: '55.00', currency: 'EUR' },
    });
  });
});

describe('a photograph at the fair', () => {
  const picture = async () => {
    const form = new FormData();
    const bytes = await sharp({ create: { width: 60, height: 40, channels: 3, background: '#c9b99a' } })
      .jpeg()
      .toBuffer();
    form.set('file', new Blob([new Uint8Array(bytes)], { type: 'image/jpeg' }), 'fair.jpg');
    return form;
  };
  const note = (decision: string) => ({
    key: randomUUID(),
    notedAt: '2026-11-22T09:00:00.000Z',
    title: 'Bone jack, third table',
    construction: 'slipjoint',
    question: null,
    decision,
    paid: decision === 'bought' ? { amount: '30.00', currency: 'EUR' } : null,
    note: '',
  });
  test('a piece nobody could name is taken in with its picture, sent twice or not', async () => {
    const { body } = await server.owner.call('POST', '/fair/notes', note('bought'));
    const first = await server.owner.call('POST', `/fair/notes/${body.id}/picture`, await picture());
    expect(first.status).toBe(200);
    await server.owner.call('POST', `/fair/notes/${body.id}/picture`, await picture());
    const taken = (await server.owner.call('GET', `/pieces/${body.pieceId}`)).body;
    expect(taken.title).toBe('Bone jack, third table');
    expect(taken.pictures.map((p: { hash: string }) => p.hash)).toEqual([first.body.picture]);
  });
  test('one that was left keeps its picture with the note; what is no picture is refused', async () => {
    const { body } = await server.owner.call('POST', '/fair/notes', note('left'));
    const broken = new FormData();
    broken.set('file', new Blob(['no picture']), 'x.jpg');
    expect((await server.owner.call('POST', `/fair/notes/${body.id}/picture`, broken)).status).toBe(415);
    const kept = await server.owner.call('POST', `/fair/notes/${body.id}/picture`, await picture());
    const { items } = (await server.owner.call('GET', '/fair/notes')).body;
    expect(items.find((n: { id: string }) => n.id === body.id).picture).toBe(kept.body.picture);
    const nowhere = '01ARZ3NDEKTSV4RRFFQ69G5FAV';
    expect((await server.owner.call('POST', `/fair/notes/${nowhere}/picture`, await picture())).status).toBe(
      404,
    );
  });
});

describe('a bag to carry', () => {
  test('answers at the table as the server does', async () => {
    const { body: bag } = await server.owner.call('GET', '/fair/bag?makers=bh');
    if (!isBag(bag as object)) throw new Error('this is no bag');
    const table = new FairTable(JSON.parse(JSON.stringify(bag)));
    const question = {
      pattern: 'jack',
      conditionIndex: 80,
      alterations: [],
      asked: { amount: '60.00', currency: 'EUR' },
    };
    const judged = (await server.owner.call('POST', '/fair/judge', question)).body;
    const at = table.judge(question);
    expect(at.ok && at.value.most.bid).toBe(judged.most.bid);
    expect(at.ok && at.value.verdict).toBe(judged.verdict);
    const look = { observations: [{ mark: 'three-line' }, { feature: 'lanyard', value: 'bar' }] };
    const seen = table.look(look);
    expect(seen.ok && JSON.parse(JSON.stringify(seen.value))).toEqual(
      (await server.owner.call('POST', '/fair/look', look)).body,
    );
    expect(JSON.parse(JSON.stringify(table.search('harbour')))).toEqual(
      (await server.owner.call('GET', '/fair/search?q=harbour')).body.items,
    );
  });
  test('holds the market of the makers that were chosen, and every one of the reference', async () => {
    const { body } = await server.owner.call('GET', '/fair/bag?makers=tw');
    expect(body.makers).toEqual(['tw']);
    expect(body.sales).toEqual([]);
    expect(body.reference.variants).toHaveLength(3);
    expect((await server.owner.call('GET', '/fair/bag')).body.makers.sort()).toEqual(['bh', 'tw']);
    const strange = await server.owner.call('GET', '/fair/bag?makers=bh,ghost');
    expect(strange.status).toBe(422);
    expect(strange.body.errors[0].message).toContain('ghost');
  });
});

describe('a note that comes in late', () => {
  const note = (more: object) => ({
    key: randomUUID(),
    notedAt: '2026-11-21T10:12:00.000Z',
    title: 'Jack from the second table',
    construction: 'slipjoint',
    question: { pattern: 'jack', variant: 'first', alterations: [], conditionIndex: 80 },
    decision: 'bought',
    paid: { amount: '55.00', currency: 'EUR' },
    note: '',
    packedAt: '2026-11-21T07:00:00.000Z',
    ...more,
  });
  const sent = async (more: object) => (await server.owner.call('POST', '/fair/notes', note(more))).body;
  const ceilingNow = async () =>
    (await server.owner.call('POST', '/fair/judge', note({}).question)).body.most.bid as string;
  const eur = (amount: string) => ({ amount, currency: 'EUR' });

  test('with what was seen has it at the bench of its piece, and what was said as the seller’s words', async () => {
    const observations = [{ mark: 'three-line' }, { feature: 'lanyard', value: 'bar' }];
    const { pieceId, told } = await sent({
      observations,
      note: 'from a cellar',
      ceiling: eur(await ceilingNow()),
    });
    expect(told).toEqual([]);
    const piece = (await server.owner.call('GET', `/pieces/${pieceId}`)).body;
    expect(piece.observations).toEqual(observations);
    expect(piece.intake.sellerStatement).toBe('from a cellar');
    expect(piece.readings.which.pattern).toBe('jack');
    const kinds = (await server.owner.call('GET', `/pieces/${pieceId}/ledger`)).body.items.map(
      (entry: { kind: string }) => entry.kind,
    );
    expect(kinds.sort()).toEqual(['observed', 'taken-in']);
  });
  test('whose number another piece bears by now is taken in and told of', async () => {
    const observations = [{ code: 'numbered', text: 'HJ 412' }];
    expect((await sent({ observations })).told).toEqual([]);
    const second = await sent({ observations, title: 'The same again' });
    expect(second.told).toHaveLength(1);
    expect(second.told[0]).toContain('Number 412 is also recorded on');
    const { items } = (await server.owner.call('GET', '/fair/notes')).body;
    expect(items.find((n: { id: string }) => n.id === second.id).told).toEqual(second.told);
  });
  test('that names what left the reference comes in without it', async () => {
    const body = await sent({
      question: { pattern: 'gone', alterations: [] },
      ceiling: eur('70.00'),
      observations: [{ mark: 'gone' }, { mark: 'three-line' }],
    });
    expect(body.told).toHaveLength(2);
    expect(body.told.join(' ')).toContain('not in the reference any more');
    const piece = (await server.owner.call('GET', `/pieces/${body.pieceId}`)).body;
    expect(piece.observations).toEqual([{ mark: 'three-line' }]);
  });
  test('whose ceiling has moved since is told of, and that too much was paid', async () => {
    const ceiling = eur(await ceilingNow());
    await server.owner.call('POST', '/comparables/import', sales(40, 'Gullhaven Rooms'));
    const { told } = await sent({ ceiling });
    expect(told).toHaveLength(1);
    expect(told[0]).toMatch(/At the table the most to pay was .*; by what is known now it is .*\./);
  });
});
