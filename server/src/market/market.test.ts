import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { serverForTest, type TestServer, csv, testPack } from '../testing/index.ts';
import { readCsv } from '../lists/index.ts';

let server: TestServer;
beforeAll(async () => {
  server = await serverForTest();
  await server.owner.call('POST', '/reference-packs', testPack);
});
afterAll(() => server.close());
const send = (form: FormData, check = false) =>
  server.owner.call('POST', `/comparables/import${check ? '?check=1' : ''}`, form);
const row = (day: string, price: string, more = 'EUR,sold,Tollgate Rooms,auction,jack,first,80') =>
  `${day},${price},${more}`;
const count = async () => (await server.owner.call('GET', '/comparables?limit=1')).body.total as number;

describe('reading CSV', () => {
  test('a quoted cell over two lines is one row, and lines are physical', () => {
    const file = readCsv('a,b\n1,"x\ny"\n2,z');
    expect(file.rows).toEqual([
      { line: 2, cells: ['1', 'x\ny'] },
      { line: 4, cells: ['2', 'z'] },
    ]);
  });
  test('broken quoting costs its own row only', () => {
    const file = readCsv('a,b\n1,"x\n2,y\n3,z');
    expect(file.rows.map((r) => ('message' in r ? `${r.line} broken` : r.line))).toEqual(['2 broken', 3, 4]);
  });
  test('byte order mark, CRLF and semicolons', () => {
    const file = readCsv('\uFEFFa;b\r\n1;2\r\n');
    expect(file).toMatchObject({
      separator: ';',
      header: ['a', 'b'],
      rows: [{ line: 2, cells: ['1', '2'] }],
    });
  });
});

describe('importing comparables', () => {
  test('a file without a column it needs is refused', async () => {
    const form = new FormData();
    form.set('file', new Blob(['sale_date,price\n2026,1']), 'x.csv');
    const reply = await send(form);
    expect(reply.status).toBe(422);
    expect(reply.body.errors[0].message).toContain('currency');
  });

  test('a dry run changes nothing; good rows go in, bad ones are told at their line and column', async () => {
    const file = () =>
      csv([
        row('2026-01-10', '100'),
        row('2026-02', '110.50'),
        row('2026-02-30', '90'),
        row('2030-01-01', '90'),
        row('2026-03-01', '-5'),
        row('2026-03-01', '80', 'EUR,sold,x,auction,jack,nothing,80'),
        'too,few',
      ]);
    const dry = await send(file(), true);
    expect(dry.body).toMatchObject({ rows: 7, added: 2, rejected: 5 });
    expect(await count()).toBe(0);
    const real = await send(file());
    expect(real.body).toMatchObject({ rows: 7, added: 2, alreadyKnown: 0, rejected: 5 });
    expect(
      real.body.errors.map((e: { line: number; column: string; columnNumber: number }) => [
        e.line,
        e.column,
        e.columnNumber,
      ]),
    ).toEqual([
      [4, 'sale_date', 1],
      [5, 'sale_date', 1],
      [6, 'price', 2],
      [7, 'variant', 8],
      [8, null, null],
    ]);
  });

  test('the same row goes in once, whatever its order, separator or notation', async () => {
    const before = await count();
    const form = new FormData();
    form.set(
      'file',
      new Blob([
        'price;variant;pattern;venue_kind;venue;price_kind;currency;sale_date;condition_index\n100,00;first;jack;AUCTION;Tollgate Rooms;sold;eur;2026-01-10;80',
      ]),
      'again.csv',
    );
    expect((await send(form)).body).toMatchObject({ added: 0, alreadyKnown: 1, rejected: 0 });
    expect(await count()).toBe(before);
  });

  test('unknown columns are kept as notes, formulas go in with a warning', async () => {
    const form = new FormData();
    form.set(
      'file',
      new Blob([
        'sale_date,price,currency,price_kind,venue_kind,pattern,remark\n2026-04-01,77,EUR,sold,fair,jack,=1+1',
      ]),
      'x.csv',
    );
    const reply = await send(form);
    expect(reply.body).toMatchObject({ added: 1, warnings: [{ line: 2, column: 'remark' }] });
    expect((await server.owner.call('GET', '/comparables?limit=1')).body.items[0].cells.remark).toBe('=1+1');
  });

  test('what is not UTF-8 text is refused', async () => {
    const form = new FormData();
    form.set('file', new Blob([new Uint8Array([0xff, 0xfe, 0x41, 0x00])]), 'x.csv');
    expect((await send(form)).status).toBe(422);
  });

  test('rows as JSON, and one by hand with its message beside the field', async () => {
    const reply = await server.owner.call('POST', '/comparables/import', {
      rows: [
        {
          sale_date: '2026-05-01',
          price: 95,
          currency: 'EUR',
          price_kind: 'asking',
          venue_kind: 'online',
          pattern: 'jack',
        },
      ],
    });
    expect(reply.body).toMatchObject({ rows: 1, added: 1 });
    const wrong = await server.owner.call('POST', '/comparables', {
      sale_date: 'yesterday',
      price: '5',
      currency: 'EUR',
      price_kind: 'sold',
      venue_kind: 'fair',
      pattern: 'jack',
    });
    expect(wrong.body.errors).toEqual([
      { pointer: '/sale_date', message: expect.stringContaining('yesterday') },
    ]);
  });

  test('pages follow one another without a gap or a repeat', async () => {
    await send(
      csv(Array.from({ length: 23 }, (_, i) => row(`2025-0${1 + (i % 9)}-1${i % 9}`, String(100 + i)))),
    );
    const seen: string[] = [];
    let cursor: string | null = '';
    while (cursor !== null) {
      const page: { body: { items: { id: string }[]; nextCursor: string | null; total: number } } =
        await server.owner.call('GET', `/comparables?limit=7${cursor === '' ? '' : `&cursor=${cursor}`}`);
      seen.push(...page.body.items.map((i) => i.id));
      cursor = page.body.nextCursor;
    }
    expect(new Set(seen).size).toBe(seen.length);
    expect(seen.length).toBe(await count());
  });

  test('a large file is a job with progress, done once even when picked up again', async () => {
    const many = csv(Array.from({ length: 20_500 }, (_, i) => row('2024-06', (50 + i / 100).toFixed(2))));
    const reply = await send(many);
    expect(reply.status).toBe(202);
    const location = reply.headers.get('location')?.replace('/api/v1', '') ?? '';
    expect((await server.owner.call('GET', location)).body.state).toBe('queued');
    // a worker that was killed: it had claimed the job and was never heard of again
    await server.database.run(
      "UPDATE job SET state = 'running', heartbeat = DATE_SUB(UTC_TIMESTAMP(3), INTERVAL 5 MINUTE)",
    );
    expect(await server.app.jobs.runOne()).toBe(true);
    expect((await server.owner.call('GET', location)).body).toMatchObject({
      state: 'done',
      progress: 1,
      result: { added: 20_500, rejected: 0 },
    });
    expect(await server.app.jobs.runOne()).toBe(false);
  });

  test('a cancelled job leaves nothing', async () => {
    const before = await count();
    const reply = await send(
      csv(Array.from({ length: 20_001 }, (_, i) => row('2023-06', (50 + i / 100).toFixed(2)))),
    );
    const location = reply.headers.get('location')?.replace('/api/v1', '') ?? '';
    expect((await server.owner.call('DELETE', location)).body.state).toBe('cancelled');
    expect(await server.app.jobs.runOne()).toBe(false);
    expect(await count()).toBe(before);
  });
});

describe('rates and estimates', () => {
  const ask = (more: object = {}) =>
    server.owner.call('POST', '/valuations/estimate', {
      subject: {
        pattern: 'jack',
        variants: [{ variant: 'first', probability: 1 }],
        conditionIndex: 80,
        box: 'none',
        papers: 'none',
        sheath: 'not-applicable',
        alterations: [],
      },
      asOf: '2026-11-01',
      currency: 'EUR',
      venueKind: 'retail',
      ...more,
    });
  beforeAll(async () => {
    await server.database.run("DELETE FROM comparable WHERE sale_date IN ('2024-06', '2023-06')");
    await server.database.run("UPDATE revision SET number = number + 1 WHERE name = 'comparables'");
  });

  test('rates are stored, replaced, and needed', async () => {
    expect((await ask({ currency: 'SEK' })).body.errors[0].pointer).toBe('/currency');
    const rate = (value: string) =>
      server.owner.call('POST', '/exchange-rates', {
        base: 'EUR',
        rates: [{ date: '2026-10-30', currency: 'SEK', rate: value }],
      });
    expect((await rate('11.4310')).body).toEqual({ added: 1, updated: 0, unchanged: 0 });
    expect((await rate('11.4310')).body).toEqual({ added: 0, updated: 0, unchanged: 1 });
    expect((await rate('11.5')).body).toEqual({ added: 0, updated: 1, unchanged: 0 });
    expect((await server.owner.call('POST', '/exchange-rates', { base: 'GBP', rates: [] })).status).toBe(422);
    const [euros, crowns] = [(await ask()).body, (await ask({ currency: 'SEK' })).body];
    expect(Number(crowns.estimate.amount) / Number(euros.estimate.amount)).toBeCloseTo(11.5, 2);
  });

  test('the answer adds up, in the contract’s shape', async () => {
    const { body } = await ask();
    expect(body).toMatchObject({
      level: 0.8,
      thin: false,
      byVariant: [{ variant: 'first', probability: 1, predictive: { kind: 'log-student-t' } }],
    });
    expect(Number(body.low.amount)).toBeLessThan(Number(body.estimate.amount));
    const weights = body.comparables.reduce(
      (s: number, c: { weight: number }) => s + c.weight,
      body.rest.weight,
    );
    expect(weights).toBeCloseTo(1, 5);
    const grid = Math.exp(
      body.comparables.reduce(
        (s: number, c: { weight: number; adjusted: { amount: string } }) =>
          s + c.weight * Math.log(Number(c.adjusted.amount)),
        body.rest.weight * Math.log(Number(body.rest.adjusted.amount)),
      ),
    );
    expect(Math.abs(grid - Number(body.methods[0].estimate.amount))).toBeLessThan(0.02);
  });

  test('an import that was answered is in the next estimate; later sales are in none', async () => {
    const before = (await ask()).body.estimate.amount;
    await send(
      csv(Array.from({ length: 30 }, (_, i) => row(`2026-10-${String(10 + (i % 20))}`, String(400 + i)))),
    );
    expect(Number((await ask()).body.estimate.amount)).toBeGreaterThan(Number(before) * 1.3);
    expect(
      (await ask({ asOf: '2026-09-30' })).body.comparables.every(
        (c: { saleDate: string }) => c.saleDate < '2026-10',
      ),
    ).toBe(true);
  });

  test('probabilities above one and unknown ids are refused', async () => {
    const subject = (variants: object[], pattern = 'jack') => ({
      subject: { pattern, variants, conditionIndex: 80 },
    });
    expect(
      (
        await ask(
          subject([
            { variant: 'first', probability: 0.7 },
            { variant: 'second', probability: 0.7 },
          ]),
        )
      ).body.errors[0].pointer,
    ).toBe('/subject/variants');
    expect((await ask(subject([{ variant: 'ghost', probability: 1 }]))).body.errors[0].pointer).toBe(
      '/subject/variants/0/variant',
    );
    expect((await ask(subject([], 'ghost'))).body.errors[0].pointer).toBe('/subject/pattern');
  });
});
