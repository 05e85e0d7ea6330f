/** An appraisal stands for years: shown as it was, reckoned again from what was known then, and from what is known now. */
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { Decimal } from 'decimal.js';
import type {
  AppraisalEvidence,
  AppraisalRecord,
  Grounds,
  KeptAppraisal,
  Recomputed,
  TrackRecord,
} from '@jutbank/contract/worth';
import { canonical, sha256 } from '../ledger/index.ts';
import { keepHouseRecord } from '../market/index.ts';
import { csv, serverForTest, testPack, type TestServer } from '../testing/index.ts';

let server: TestServer;
let piece: string;
const daysAgo = (n: number) => new Date(Date.now() - n * 86_400_000).toISOString().slice(0, 10);
const sale = (ago: number, price: number, more = 'EUR,sold,Tollgate Rooms,online,jack,first,80') =>
  `${daysAgo(ago)},${price},${more}`;
const send = (rows: string[]) => server.owner.call('POST', '/comparables/import', csv(rows));
const rate = (day: string, value: string) =>
  server.owner.call('POST', '/exchange-rates', {
    base: 'EUR',
    rates: [{ date: day, currency: 'SEK', rate: value }],
  });
const asked = { basis: 'market', effectiveDate: daysAgo(2), currency: 'EUR' };
const draft = async (more: object = {}) =>
  server.owner.call('POST', `/pieces/${piece}/appraisals/draft`, { ...asked, ...more });
const appraise = async (more: object = {}) => {
  const { known } = (await draft()).body as AppraisalEvidence;
  return server.owner.call('POST', `/pieces/${piece}/appraisals`, {
    ...asked,
    known,
    purpose: 'insurance',
    intendedUser: 'The owner and her insurer',
    interest: 'The shop owns the piece.',
    assumptions: [{ text: 'The blade was never reground', extraordinary: true, effectPct: -20 }],
    concluded: '150.00',
    because: 'Between the grid and the middle of raw prices, nearer the grid.',
    signature: 'Ines Vadder',
    ...more,
  });
};
const recompute = async (id: string) =>
  (await server.owner.call('POST', `/appraisals/${id}/recompute`)).body as Recomputed;
const sumOf = (r: Recomputed) =>
  r.changes.reduce((sum, c) => sum.plus(c.by.amount), new Decimal(r.then.amount)).toFixed(2);
const bytesOf = async (id: string) => {
  const row = await server.database.row<{ record: string }>('SELECT record FROM appraisal WHERE id = ?', [
    id,
  ]);
  return row?.record ?? '';
};

beforeAll(async () => {
  server = await serverForTest();
  await server.owner.call('POST', '/reference-packs', testPack);
  await rate(daysAgo(300), '11.0');
  await send([
    ...Array.from({ length: 40 }, (_, i) => sale(10 + i * 9, 130 + (i % 9) * 5)),
    ...Array.from({ length: 6 }, (_, i) =>
      sale(20 + i * 8, 1500 + i * 20, 'SEK,sold,Quay Auctions,auction,jack,second,75'),
    ),
  ]);
  const made = await server.owner.call('POST', '/pieces', {
    title: 'Harbour jack',
    construction: 'slipjoint',
    sourceKind: 'fair',
    acquired: daysAgo(40),
    price: { amount: '80.00', currency: 'EUR' },
    asFound: null,
  });
  piece = made.body.id as string;
  const decided = await server.owner.call(
    'PUT',
    `/pieces/${piece}/attribution`,
    { attribution: { pattern: 'jack', variant: 'first', tier: 'probable', reason: 'compared' } },
    { 'If-Match': made.etag ?? '' },
  );
  expect(decided.status).toBe(200);
}, 60_000);
afterAll(() => server.close());

describe('before anybody concludes', () => {
  test('every row, line and method is there, with cells, rate and where the rate is from', async () => {
    const evidence = (await draft({ basis: 'insurance-replacement' })).body as AppraisalEvidence;
    expect(evidence.point).toEqual({ venueKind: 'retail', point: 0.75, factor: 1 });
    expect(evidence.rows.length).toBeGreaterThan(30);
    expect(evidence.rows[0]?.cells['venue']).toBe('Tollgate Rooms');
    expect(evidence.methods.map((m) => m.name)).toContain('adjustment-grid');
    expect(evidence.market.soldInTwoYears).toBe(46);
    expect(evidence.market.beyondLastSale).toBe(true);
  });
  test('a day that has not come is told at its place; a piece nobody identified cannot be appraised', async () => {
    const early = await draft({ effectiveDate: daysAgo(-3) });
    expect([early.status, early.body.errors[0].pointer]).toEqual([422, '/effectiveDate']);
    const unknown = await server.owner.call('POST', '/pieces', {
      title: 'Nobody knows',
      construction: 'fixed',
      sourceKind: 'fair',
      acquired: null,
      price: null,
      asFound: null,
    });
    const reply = await server.owner.call('POST', `/pieces/${unknown.body.id}/appraisals/draft`, asked);
    expect(reply.status).toBe(409);
  });
  test('figures that moved since they were looked at are not concluded on', async () => {
    const reply = await appraise({ known: { comparables: 0, rates: 0, reference: 0 } });
    expect(reply.status).toBe(409);
    expect((await server.owner.call('GET', `/pieces/${piece}/appraisals`)).body.items).toEqual([]);
  });
  test('what is missing is told beside its field, and nothing is kept', async () => {
    const reply = await appraise({ because: '', signature: ' ', concluded: '-3' });
    expect(reply.status).toBe(422);
    expect(reply.body.errors.map((e: { pointer: string }) => e.pointer).sort()).toEqual([
      '/because',
      '/concluded',
      '/signature',
    ]);
  });
});

test('beside the grid stand pairs that differ in one thing, and near sales with why they are not in it', async () => {
  const other = (ago: number, price: number, more: string) => sale(ago, price, `EUR,sold,${more},80`);
  await send([
    other(30, 160, 'Gullhaven fair,fair,jack,first'),
    other(33, 200, 'Tollgate Rooms,online,jack,first'),
    other(60, 75, 'Saltmarsh Sales,fair,jack,'),
  ]);
  const { items } = (await server.owner.call('GET', '/comparables?q=Saltmarsh')).body as {
    items: { id: string }[];
  };
  await server.owner.call('POST', '/comparables/states', {
    ids: items.map((item) => item.id),
    state: 'set-aside',
    reason: 'a blade alone',
  });
  const { pairs, near } = (await server.owner.call('GET', `/pieces/${piece}/worth/grounds`)).body as Grounds;
  const venue = pairs.find((line) => line.said === 'fair against online');
  expect(venue?.pairs.some((p) => p.more.paid.amount === '160.00' && p.less.paid.amount === '200.00')).toBe(
    true,
  );
  expect(venue?.pairs.find((p) => p.less.paid.amount === '200.00')?.percent).toBeCloseTo(-20, 6);
  expect(near.find((n) => n.price.amount === '75.00')?.why).toBe('set aside by hand: a blade alone');
  expect(near.find((n) => n.variant === 'Second form')?.why).toMatch(/another form/);
  // what stood beside the grid on the day is part of what is kept
  const drafted = (await draft()).body as AppraisalEvidence;
  expect(drafted.grounds?.near.some((n) => n.why.startsWith('set aside'))).toBe(true);
});

describe('once it is made', () => {
  let id: string;
  let bytes: string;
  let record: AppraisalRecord;

  test('it is numbered, hashed, in the ledger, and for paper', async () => {
    const made = await appraise();
    expect(made.body).toMatchObject({ purpose: 'insurance', person: 'Ines Vadder' });
    id = made.body.id as string;
    expect(made.body.number).toMatch(/^A-\d{4}-0001$/);
    const shown = (await server.owner.call('GET', `/appraisals/${id}`)).body as KeptAppraisal;
    expect(shown.intact).toBe(true);
    record = shown.record;
    expect(record.assumptions).toEqual([
      { text: 'The blade was never reground', extraordinary: true, effectPct: -20 },
    ]);
    bytes = await bytesOf(id);
    expect(sha256(bytes)).toBe(shown.fingerprint);
    const paper = await server.owner.call('GET', `/appraisals/${id}/appraisal.pdf`);
    expect(paper.status).toBe(200);
  });

  test('reckoned again at once it is the same to the cent, and nothing moved it', async () => {
    const again = await recompute(id);
    expect(again.agrees).toBe(true);
    expect(again.now).toEqual(record.figure);
    expect(again.changes.every((c) => Number(c.by.amount) === 0)).toBe(true);
  });

  test('two hundred rows, rates, a revision of the reference and a re-inspection later: shown byte for byte, then to the cent, now with every cause', async () => {
    await send(Array.from({ length: 200 }, (_, i) => sale(3 + (i % 50), 170 + (i % 11) * 4)));
    await rate(daysAgo(300), '14.0');
    await rate(daysAgo(15), '12.5');
    const [gone] = record.rows;
    await server.owner.call('POST', '/comparables/states', {
      ids: [gone?.id],
      state: 'set-aside',
      reason: 'it came back to the house',
    });
    await server.owner.call('POST', '/reference-packs', {
      ...testPack,
      revision: '2',
      variants: testPack.variants.map((v) =>
        v.id === 'first' ? { ...v, made: { quantity: 300, basis: 'documented' } } : v,
      ),
    });
    const sheet = await server.owner.call('GET', `/pieces/${piece}`);
    const inspected = await server.owner.call(
      'PUT',
      `/pieces/${piece}/condition`,
      {
        findings: [{ part: 'blade', defect: 'reground', severity: 'moderate' }],
        completeness: {},
        inspected: true,
      },
      { 'If-Match': sheet.etag ?? '' },
    );
    expect(inspected.status).toBe(200);
    expect(await bytesOf(id)).toBe(bytes);
    expect((await server.owner.call('GET', `/appraisals/${id}`)).body.record).toEqual(record);
    const again = await recompute(id);
    expect(again.then).toEqual(record.figure);
    expect(again.agrees).toBe(true);
    expect(Number(again.now.amount)).not.toBe(Number(record.figure.amount));
    expect(sumOf(again)).toBe(Number(again.now.amount).toFixed(2));
    const by = Object.fromEntries(again.changes.map((c) => [c.cause, c]));
    expect(by['sales']?.told).toBe('200 sales came in, 1 was set aside');
    expect(Number(by['sales']?.by.amount)).toBeGreaterThan(5);
    expect(by['rates']?.told).toBe('2 rates were entered or replaced');
    expect(Number(by['rates']?.by.amount)).not.toBe(0);
    expect(by['reference']?.told).toMatch(/change.* of the reference/);
    expect(Number(by['reference']?.by.amount)).not.toBe(0);
    expect(Number(by['engine']?.by.amount)).toBe(0);
    expect(Number(by['piece']?.by.amount)).toBeLessThan(-5);
  }, 60_000);

  test('made by an engine of other settings, it is reckoned with those, and the engine is a cause of its own', async () => {
    const settings = {
      ...record.engine.settings,
      sd: { ...record.engine.settings.sd, variant: 0.6 },
      noise: 0.5,
    };
    const older = {
      ...record,
      number: 'A-OLD',
      engine: { ...record.engine, version: 'value-2', settings },
    } as AppraisalRecord;
    const keep = async (key: string, kept: AppraisalRecord) => {
      const text = canonical(kept);
      await server.database.run(
        `INSERT INTO appraisal SELECT ?, piece_id, ?, person, effective_date, made_at, currency, concluded, ?, ?, ledger_seq FROM appraisal WHERE id = ?`,
        [key, kept.number, text, sha256(text), id],
      );
    };
    const [first, second] = ['01AAAAAAAAAAAAAAAAAAAAAAAA', '01BBBBBBBBBBBBBBBBBBBBBBBB'] as const;
    await keep(first, older);
    const then = (await recompute(first)).then;
    expect(then.amount).not.toBe(record.figure.amount);
    await keep(second, { ...older, number: 'A-OLDER', figure: then });
    const again = await recompute(second);
    expect(again.agrees).toBe(true);
    expect(sumOf(again)).toBe(Number(again.now.amount).toFixed(2));
    const engine = again.changes.find((c) => c.cause === 'engine');
    expect(Number(engine?.by.amount)).not.toBe(0);
    expect(engine?.told).toMatch(/^value-2 then, value-\d+ now$/);
  });

  test('sold, it is held against what was said, with the range a share of so few may lie in', async () => {
    const sold = await server.owner.call('POST', `/pieces/${piece}/sale`, {
      price: { amount: '140.00', currency: 'EUR' },
      channel: 'counter',
      buyerName: 'A collector',
      ageChecked: true,
    });
    expect(sold.status).toBe(201);
    const told = (await server.owner.call('GET', '/track-record')).body as TrackRecord;
    expect(told.pieces).toHaveLength(1);
    expect(told.pieces[0]).toMatchObject({
      basis: 'market',
      maker: 'Brackenholt Cutlery',
      appraiser: 'Ines Vadder',
    });
    expect(told.ranges).toMatchObject({ of: 1, ofConcluded: 140 / 150 });
    expect(told.ranges?.low).toBeLessThan(0.6);
    expect(told.by.map((b) => b.group)).toEqual(['basis', 'maker', 'year', 'appraiser']);
  });

  test('what a sold piece was worth does not drift: later prices and rates leave it as it was', async () => {
    const worth = async () => (await server.owner.call('GET', `/pieces/${piece}/worth`)).body.worth;
    const reading = async () => (await server.owner.call('GET', `/pieces/${piece}`)).body.readings.worth;
    const [before, read] = [await worth(), await reading()];
    await send(Array.from({ length: 30 }, (_, i) => sale(3 + i, 400 + i)));
    await rate(daysAgo(20), '9.0');
    expect(await worth()).toEqual(before);
    expect(await reading()).toEqual(read);
    expect(before.comparables.every((c: { paid: { amount: string } }) => c.paid.amount !== '140.00')).toBe(
      true,
    );
  });

  test('a changed byte is told', async () => {
    await server.database.run(
      "UPDATE appraisal SET record = REPLACE(record, '150.00', '950.00') WHERE id = ?",
      [id],
    );
    expect((await server.owner.call('GET', `/appraisals/${id}`)).body.intact).toBe(false);
  });
});

test('ranges go by how those of the house have held; the figure stays, and an earlier appraisal is reckoned as it was', async () => {
  const earlier = (await appraise()).body as KeptAppraisal;
  const before = (await draft()).body as AppraisalEvidence;
  expect(await keepHouseRecord(server.database, { of: 40, held: 27, stretch: 1.2 })).toBe(true);
  expect(await keepHouseRecord(server.database, { of: 41, held: 28, stretch: 1.203 })).toBe(false);
  const after = (await draft()).body as AppraisalEvidence;
  const reach = (e: AppraisalEvidence) => Math.log(Number(e.high.amount) / Number(e.low.amount));
  expect(after.figure).toEqual(before.figure);
  expect(reach(after) / reach(before)).toBeCloseTo(1.2, 3);
  expect(after.notes.join(' ')).toContain('20 % wider');
  const again = await recompute(earlier.id);
  expect(again.agrees).toBe(true);
  expect(again.changes.find((c) => c.cause === 'engine')?.told).toContain('more of the house’s own sales');
  expect(sumOf(again)).toBe(again.now.amount);
  const { house } = (await server.owner.call('GET', '/track-record')).body as TrackRecord;
  expect(house).toEqual({ of: 40, held: 27, stretch: 1.2 });
});
