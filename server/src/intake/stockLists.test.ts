/** A shop moves in with the list it kept: five hundred pieces, nine hundred pictures, and the second thoughts. */
import { afterAll, beforeAll, describe, expect, jest, test } from '@jest/globals';
import sharp from 'sharp';
import type { StockListAnswer, StockListPieces, StockLook } from '@jutbank/contract/intake';
import type { PieceSheet } from '@jutbank/contract/pieces';
import { picturesByName } from '@jutbank/core/intake';
import { takeGuesses } from '@jutbank/core/lists';
import { serverForTest, testPack, type TestServer, type Visitor } from '../testing/index.ts';

jest.setTimeout(240_000);
let server: TestServer;
beforeAll(async () => {
  server = await serverForTest();
  await server.owner.call('POST', '/reference-packs', testPack);
});
afterAll(() => server.close());

type Mapping = StockLook['mapping'];
const part = (text: string | Uint8Array<ArrayBuffer>, mapping?: object, name = 'stock.csv') => {
  const form = new FormData();
  if (mapping) form.set('mapping', JSON.stringify(mapping));
  form.set('file', new Blob([text]), name);
  return form;
};
const begun = async (text: string): Promise<{ look: StockLook; mapping: Mapping }> => {
  const look = (await server.owner.call<StockLook>('POST', '/stock-lists/look', part(text))).body;
  return { look, mapping: takeGuesses(look.mapping, look) as Mapping };
};
const send = (text: string, mapping: Mapping, check = false, by: Visitor = server.owner) =>
  by.call<StockListAnswer>('POST', `/stock-lists${check ? '?check=1' : ''}`, part(text, mapping));
const sheetOf = async (id: string) => (await server.owner.call<PieceSheet>('GET', `/pieces/${id}`)).body;
const listOf = async (id: string | null) =>
  (await server.owner.call<StockListPieces>('GET', `/stock-lists/${id}`)).body;
const stock = async () => (await server.owner.call<{ total: number }>('GET', '/pieces?limit=1')).body.total;

const picture = (n: number) =>
  sharp({
    create: {
      width: 48,
      height: 32,
      channels: 3,
      background: { r: n % 256, g: Math.floor(n / 256) * 40, b: 90 },
    },
  })
    .png()
    .toBuffer();
const addPicture = async (piece: string, bytes: Buffer) => {
  const form = new FormData();
  form.set('file', new Blob([new Uint8Array(bytes)]), 'x.png');
  form.set('unlessShown', '1');
  return server.owner.call<PieceSheet>('POST', `/pieces/${piece}/pictures`, form);
};

const ROWS = 500;
const header = 'Nr.;Bezeichnung;Hersteller;Modell;Gekauft am;Von wem;EK;VK;Lagerort;OVP;Status;Fotos;Griff';
const rowOf = (i: number) =>
  [
    `BK-${String(i + 1).padStart(4, '0')}`,
    `Hafenmesser ${i + 1}`,
    'Brackenholt',
    i % 2 === 0 ? 'Harbour jack' : '',
    `${String(1 + (i % 28)).padStart(2, '0')}.03.20${10 + (i % 15)}`,
    'Nachlass Fernhithe',
    `1.${100 + (i % 800)},50 €`,
    i % 3 === 0 ? '' : '1.990,00 €',
    `Schublade ${i % 40}`,
    i % 4 === 0 ? 'ja' : 'nein',
    'auf Lager',
    // the rest of the pictures carry the number in their names
    i < 300 ? `bild${i}.png` : '',
    'Ebenholz',
  ].join(';');
const whole = [header, ...Array.from({ length: ROWS }, (_, i) => rowOf(i))].join('\r\n');

describe('a shop with five hundred pieces', () => {
  let list: StockListPieces;
  test('moves in by what the look at its list offers, all rows together', async () => {
    const { look, mapping } = await begun(whole);
    expect(look).toMatchObject({ separator: ';', rows: ROWS, remembered: false });
    const tried = await send(whole, mapping, true);
    expect(tried.body).toMatchObject({ id: null, added: ROWS, rejected: 0, errors: [] });
    expect(tried.body.first[0]).toEqual({
      line: 2,
      stockNumber: 'BK-0001',
      title: 'Hafenmesser 1',
      construction: 'slipjoint',
      pattern: 'Harbour jack',
      acquired: '2010-03-01',
      price: { amount: '1100.50', currency: 'EUR' },
      ask: null,
      place: 'Schublade 0',
      pictures: 1,
      shopNote: 'Griff: Ebenholz',
    });
    expect(await stock()).toBe(0);
    const done = await send(whole, mapping);
    expect(done.body).toMatchObject({ added: ROWS, alreadyKnown: 0, rejected: 0 });
    expect(await stock()).toBe(ROWS);
    list = await listOf(done.body.id);
    expect(list).toMatchObject({ name: 'stock.csv', pieces: ROWS, bare: ROWS });
  });

  test('each piece is what its row said, with a trail of its own that holds', async () => {
    const second = await sheetOf(list.list[1]?.id ?? '');
    expect(second).toMatchObject({
      stockNumber: 'BK-0002',
      stage: 'intake',
      place: 'Schublade 1',
      narrowing: { makers: ['bh'], patterns: [] },
      ask: { amount: '1990.00', currency: 'EUR' },
      intake: {
        title: 'Hafenmesser 2',
        acquired: '2011-03-02',
        price: { amount: '1101.50', currency: 'EUR' },
        sourceName: 'Nachlass Fernhithe',
        shopNote: 'Griff: Ebenholz',
      },
    });
    expect(second.condition.completeness).toEqual({ box: 'none' });
    // a pattern that the list names is what it is said to be, and no more
    expect((await sheetOf(list.list[0]?.id ?? '')).readings.which).toEqual({
      tier: 'not-enough-seen',
      label: 'Said to be Harbour jack',
      probability: null,
      decided: false,
      variant: null,
      pattern: 'jack',
    });
    const check = await server.owner.call('GET', '/ledger/verify');
    expect(check.body).toMatchObject({ intact: true });
  });

  test('nine hundred pictures find their pieces by name and number; sent again they are no second ones', async () => {
    const files = [
      ...Array.from({ length: 300 }, (_, i) => `Bild${i}.PNG`),
      ...Array.from({ length: ROWS }, (_, i) => `bk${String(i + 1).padStart(4, '0')} tang.png`),
      ...Array.from({ length: 100 }, (_, i) => `BK-${String(i + 1).padStart(4, '0')}_left.png`),
    ];
    expect(files).toHaveLength(900);
    const owners = picturesByName(
      files,
      list.list.map(({ id, stockNumber, pictures }) => ({ id, stockNumber, files: pictures })),
    );
    expect(owners.filter((of) => of.length !== 1)).toEqual([]);
    const waiting = [...files.keys()];
    const sendNext = async (): Promise<void> => {
      const n = waiting.shift();
      if (n === undefined) return;
      const added = await addPicture(owners[n]?.[0] ?? '', await picture(n));
      if (added.status !== 201) throw new Error(`${files[n] ?? ''}: ${added.status}`);
      return sendNext();
    };
    await Promise.all([sendNext(), sendNext(), sendNext()]);
    const shown = await listOf(list.id);
    expect(shown.bare).toBe(0);
    expect(shown.list.reduce((sum, piece) => sum + piece.has, 0)).toBe(900);
    const again = await addPicture(owners[0]?.[0] ?? '', await picture(0));
    expect(again.body.pictures).toHaveLength(3);
  });

  test('the same list again brings only what is new', async () => {
    const { look, mapping } = await begun(whole);
    expect(look.remembered).toBe(true);
    expect((await send(`${whole}\r\n${rowOf(ROWS)}`, mapping)).body).toMatchObject({
      rows: ROWS + 1,
      added: 1,
      alreadyKnown: ROWS,
    });
  });
});

describe('numbers', () => {
  const simple = async (rows: string[]) => {
    const text = ['No;Name', ...rows].join('\n');
    const { mapping } = await begun(text);
    return (await send(text, { ...mapping, columns: { No: 'stock_number', Name: 'title' } })).body;
  };
  test('a number that is taken, and one that comes twice, are told at their lines; the others come in', async () => {
    const answer = await simple(['bk-0007;Same as another', 'N1;First', 'n1;Second', ';None', ';None']);
    expect(answer).toMatchObject({ added: 3, rejected: 2 });
    expect(answer.errors).toEqual([
      expect.objectContaining({
        line: 2,
        columnNumber: 1,
        value: 'bk-0007',
        message: expect.stringMatching(/in stock/),
      }),
      expect.objectContaining({
        line: 4,
        columnNumber: 1,
        value: 'n1',
        message: expect.stringMatching(/before/),
      }),
    ]);
  });
  test('the shop’s next number passes over those that were brought along', async () => {
    const next = await server.owner.call<PieceSheet>('POST', '/pieces', {
      title: 'Next',
      construction: 'fixed',
      sourceKind: null,
      acquired: null,
      price: null,
      asFound: null,
    });
    const number = Number(/\d+$/.exec(next.body.stockNumber)?.[0]);
    await simple([1, 2, 4].map((more) => `HQ-${String(number + more).padStart(4, '0')};Brought along`));
    const { body } = await server.owner.call('POST', '/lots', { name: 'Box', currency: 'EUR' });
    const filled = await server.owner.call<{ list: { stockNumber: string }[] }>(
      'POST',
      `/lots/${body.id}/pieces`,
      { pieces: ['a', 'b'].map((title) => ({ title, construction: 'fixed' })) },
    );
    expect(filled.body.list.map((p) => Number(p.stockNumber.slice(3)))).toEqual([number + 3, number + 5]);
  });
});

describe('taking back', () => {
  test('what nobody worked on goes, its number free again; the rest stays', async () => {
    const text = 'Number;Knife\nT-1;One\nT-2;Two\nT-3;Three';
    const { mapping } = await begun(text);
    const { id } = (await send(text, mapping)).body;
    const [one, two] = (await listOf(id)).list;
    await addPicture(one?.id ?? '', await picture(1));
    const seen = await sheetOf(two?.id ?? '');
    const changed = await server.owner.call(
      'PUT',
      `/pieces/${two?.id}/intake`,
      { ...seen.intake, title: 'Two, looked at' },
      { 'If-Match': `"v${seen.version}"` },
    );
    expect(changed.status).toBe(200);
    const before = await stock();
    expect((await server.owner.call('DELETE', `/stock-lists/${id}`)).body).toEqual({ takenBack: 2, kept: 1 });
    expect(await stock()).toBe(before - 2);
    expect((await server.owner.call('GET', `/pieces/${one?.id}`)).status).toBe(404);
    expect((await server.owner.call('GET', '/ledger/verify')).body).toMatchObject({ intact: true });
    expect((await send(text, mapping)).body).toMatchObject({ added: 2, alreadyKnown: 1 });
    expect((await server.owner.call('DELETE', '/stock-lists/01ARZ3NDEKTSV4RRFFQ69G5FAV')).status).toBe(404);
  });
});

describe('a hostile or hurried list', () => {
  test.each<[string, string | Uint8Array<ArrayBuffer>, number]>([
    ['a workbook', Uint8Array.from([0x50, 0x4b, 3, 4, 0, 0]), 422],
    ['an empty file', '', 422],
    ['two columns of one name', 'Name;Name\na;b', 422],
    ['more rows than come in at once', `Name\n${'Knife\n'.repeat(5001)}`, 422],
  ])('%s is refused with what to do', async (_, text, status) => {
    const mapping = {
      columns: { Name: 'title' },
      dateOrder: 'dmy',
      decimalComma: false,
      fixed: { construction: 'fixed' },
    };
    const before = await stock();
    const answer = await server.owner.call('POST', '/stock-lists', part(text, mapping));
    expect(answer.status).toBe(status);
    expect(await stock()).toBe(before);
  });
  test('without a mapping, or with one of columns that are none, nothing happens', async () => {
    expect((await server.owner.call('POST', '/stock-lists', part('Name\nKnife'))).status).toBe(422);
    const wrong = { columns: { Name: 'id' }, dateOrder: 'dmy', decimalComma: false, fixed: {} };
    expect((await server.owner.call('POST', '/stock-lists', part('Name\nKnife', wrong))).status).toBe(422);
  });
  test('a name beyond every label is told at its line, and formulas come in as words', async () => {
    const text = `Name\n${'k'.repeat(200)}\n=cmd|calc`;
    const { mapping } = await begun(text);
    const { body } = await send(text, mapping);
    expect(body).toMatchObject({ added: 1, rejected: 1, errors: [{ line: 2, column: 'title' }] });
    expect(body.first[0]?.title).toBe('=cmd|calc');
  });
  test('a reader may look at no list of costs, a clerk may not take one back', async () => {
    const text = 'Name;Note\nKnife;bought off Ebbe Frosthult';
    const { mapping } = await begun(text);
    const { id } = (await send(text, mapping)).body;
    const piece = (await listOf(id)).list[0]?.id ?? '';
    const reader = await server.person('reader');
    expect((await send(text, mapping, true, reader)).status).toBe(403);
    expect((await reader.call<PieceSheet>('GET', `/pieces/${piece}`)).body.intake.shopNote).toBe('');
    const found = async (by: Visitor) =>
      (await by.call<{ items: { kind: string }[] }>('GET', '/search?q=Frosthult')).body.items.map(
        (i) => i.kind,
      );
    expect(await found(reader)).toEqual([]);
    expect(await found(server.owner)).toEqual(['note']);
    expect((await (await server.person('clerk')).call('DELETE', `/stock-lists/${id}`)).status).toBe(403);
  });
});
