/** Lists as other people keep them go in by what the wizard takes for a beginning, with at most a word put right. */
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { ComparablesImportAnswer, FileLook } from '@jutbank/contract/market';
import { takeGuesses } from '@jutbank/core/lists';
import { serverForTest, testPack, type TestServer } from '../testing/index.ts';

let server: TestServer;
beforeAll(async () => {
  server = await serverForTest();
  await server.owner.call('POST', '/reference-packs', testPack);
});
afterAll(() => server.close());

type Mapping = FileLook['mapping'];
const part = (text: string | Uint8Array<ArrayBuffer>, mapping?: Mapping) => {
  const form = new FormData();
  if (mapping) form.set('mapping', JSON.stringify(mapping));
  form.set('file', new Blob([text]), 'their list.csv');
  return form;
};
const lookAt = async (text: string | Uint8Array<ArrayBuffer>, mapping?: Mapping) =>
  (await server.owner.call<FileLook>('POST', '/comparables/look', part(text, mapping))).body;
/** As the wizard begins: what is guessed of the columns, then of what they say. */
const begun = async (
  text: string | Uint8Array<ArrayBuffer>,
): Promise<{ look: FileLook; mapping: Mapping }> => {
  const look = await lookAt(text);
  return { look, mapping: takeGuesses(look.mapping, look) };
};
const send = async (text: string | Uint8Array<ArrayBuffer>, mapping: Mapping, check = false) =>
  (
    await server.owner.call<ComparablesImportAnswer>(
      'POST',
      `/comparables/import${check ? '?check=1' : ''}`,
      part(text, mapping),
    )
  ).body;
const kept = async (day: string) =>
  (
    await server.owner.call<{ items: { cells: Record<string, string> }[] }>(
      'GET',
      `/comparables?from=${day}&to=${day}`,
    )
  ).body.items.map((item) => item.cells);

describe('a list from', () => {
  test('a German saleroom: 45 rows, decimal commas, what was not sold stays out', async () => {
    const rows = Array.from({ length: 45 }, (_, i) => {
      const day = `${String(1 + (i % 27)).padStart(2, '0')}.0${1 + Math.floor(i / 27)}.2024`;
      const state = ['sehr gut', 'gut', 'Neuwertig', 'befriedigend'][i % 4] ?? '';
      return `${i + 1};${day};Harbour jack;1.${100 + i},50;24;${state};${i % 3 ? 'ja' : 'nein'};${i % 5 ? '' : 'nachgeschliffen, poliert'};verkauft`;
    });
    const text = [
      'Los;Auktionsdatum;Modell;Zuschlag €;Aufgeld %;Zustand;OVP;Veränderungen;Ergebnis',
      ...rows,
      '46;27.09.2024;Harbour jack;900,00;24;gut;ja;;unverkauft',
    ].join('\r\n');
    // as an older program writes it
    const bytes = Uint8Array.from(text, (sign) => (sign === '€' ? 0x80 : sign.charCodeAt(0)));
    const { look, mapping } = await begun(bytes);
    expect(look).toMatchObject({ encoding: 'windows-1252', separator: ';', rows: 46 });
    const told = { ...mapping, fixed: { ...mapping.fixed, currency: 'EUR' } };
    expect(await send(bytes, told)).toMatchObject({
      added: 45,
      rejected: 1,
      errors: [{ line: 47, column: 'price_kind' }],
    });
    expect(await kept('2024-01-01')).toEqual([
      {
        sale_date: '2024-01-01',
        price: '1100.5',
        currency: 'EUR',
        price_kind: 'sold',
        venue_kind: 'auction',
        pattern: 'jack',
        'pattern as listed': 'Harbour jack',
        buyer_premium_pct: '24',
        grade_scale: 'collector',
        grade: 'very-good',
        'grade as listed': 'sehr gut',
        box: 'none',
        'box as listed': 'nein',
        alterations: 'polished|reground',
        'alterations as listed': 'nachgeschliffen, poliert',
        Los: '1',
      },
    ]);
  });

  test('a French dealer: months in words, the currency beside the price', async () => {
    const text = [
      'Modèle\tPrix\tVendu le\tÉtat\tBoîte\tType de vente\tPort',
      'Harbour jack\t1 250,00 €\t12 mars 2023\ttrès bon\toui\tantiquaire\tcompris',
      'Harbour jack\t980 €\t1er août 2023\tcomme neuf\tmanque\tSalon de Gullhaven\ten sus',
      'Harbour jack\t£ 400\t3 déc. 2023\tmoyen\tboîte d’origine\tparticulier\tfranco',
    ].join('\n');
    const { mapping } = await begun(text);
    expect(mapping.currencyInPrice).toBe(true);
    expect(mapping.fixed).toEqual({ price_kind: 'sold' });
    expect(await send(text, mapping)).toMatchObject({ added: 3, errors: [] });
    expect((await kept('2023-03-12'))[0]).toMatchObject({
      price: '1250',
      currency: 'EUR',
      venue_kind: 'retail',
      grade: 'very-good',
      box: 'original',
      shipping_included: 'yes',
    });
    expect((await kept('2023-08-01'))[0]).toMatchObject({
      grade: 'near-mint',
      box: 'none',
      venue_kind: 'fair',
      shipping_included: 'no',
    });
    expect((await kept('2023-12-03'))[0]).toMatchObject({
      price: '400',
      currency: 'GBP',
      venue_kind: 'private',
    });
  });

  test('a Swedish collector: spaces between thousands, crowns, no kind of venue', async () => {
    const text = [
      'Datum;Modell;Slutpris;Valuta;Skick;Ask;Slida;Kommentar',
      '2022-05-07;Harbour jack;1 250;kr;mycket gott;ja;saknas;auktion i Gullhaven',
      '7 maj 2022;Harbour jack;950:50;kr;slitet;nej;ersättning;',
    ].join('\n');
    const { mapping } = await begun(text);
    expect(mapping.columns).toMatchObject({ Ask: 'box', Slida: 'sheath', Skick: 'grade', Slutpris: 'price' });
    const told = { ...mapping, fixed: { ...mapping.fixed, venue_kind: 'private' } };
    expect(await send(text, told)).toMatchObject({ added: 2, errors: [] });
    expect(
      (await kept('2022-05-07')).map((cells) => [cells.price, cells.currency, cells.grade, cells.sheath]),
    ).toEqual(
      expect.arrayContaining([
        ['1250', 'SEK', 'very-good', 'none'],
        ['950.5', 'SEK', 'fair', 'later'],
      ]),
    );
  });

  test('an American seller: months first, points of ten, asked and sold in one column', async () => {
    const text = [
      'When,Model,Amount,Status,Condition,Where',
      '10/30/2021,Harbour jack,"$1,182.50",Sold,8/10,online auction',
      '3/4/2021,Harbour jack,$95,Asking,6/10,online shop',
      '3/5/2021,Harbour jack,$80,Passed,6/10,online shop',
    ].join('\n');
    const { mapping } = await begun(text);
    expect(mapping).toMatchObject({ dateOrder: 'mdy', decimalComma: false, currencyInPrice: true });
    expect(await send(text, mapping)).toMatchObject({ added: 2, rejected: 1 });
    expect((await kept('2021-10-30'))[0]).toMatchObject({
      price: '1182.5',
      currency: 'USD',
      price_kind: 'sold',
      condition_index: '80',
      venue_kind: 'online',
    });
    expect((await kept('2021-03-04'))[0]).toMatchObject({ price_kind: 'asking', condition_index: '60' });
  });

  test('a notebook with grades of its own: a person says what they mean, once', async () => {
    const text = [
      'Day,Piece,Paid,Cur,Wear,Place',
      '2020-06-01,Harbour jack,70,GBP,II+,Gullhaven',
      '2020-06-02,Harbour jack,60,GBP,III,Gullhaven',
    ].join('\n');
    const { mapping } = await begun(text);
    const columns: Mapping['columns'] = {
      Day: 'sale_date',
      Piece: 'pattern',
      Paid: 'price',
      Cur: 'currency',
      Wear: 'grade',
      Place: 'venue',
    };
    const look = await lookAt(text, { ...mapping, columns });
    expect(look.words.map((w) => [w.said, w.guess])).toEqual([
      ['II+', null],
      ['III', null],
    ]);
    const by: Mapping = {
      ...takeGuesses({ ...mapping, columns }, look),
      fixed: { price_kind: 'sold', venue_kind: 'fair' },
      words: { grade: { 'ii+': 'finish/very-good', iii: 'finish/good' } },
    };
    expect(await send(text, by)).toMatchObject({ added: 2, errors: [] });
    expect((await kept('2020-06-01'))[0]).toMatchObject({ grade_scale: 'finish', grade: 'very-good' });
    // the next list of the same kind is read by what was said
    const next = 'Day,Piece,Paid,Cur,Wear,Place\n2020-07-01,Harbour jack,65,GBP,II+,Gullhaven';
    const again = await lookAt(next);
    expect(again).toMatchObject({ remembered: true, mapping: { words: by.words } });
    expect(await send(next, takeGuesses(again.mapping, again))).toMatchObject({ added: 1, errors: [] });
  });
});

describe('before a list goes in', () => {
  const head =
    'sale_date,price,currency,price_kind,venue,venue_kind,pattern,variant,condition_index,box,source';
  const file = (...rows: string[]) => [head, ...rows].join('\n');
  const check = async (text: string) =>
    (await server.owner.call<ComparablesImportAnswer>('POST', '/comparables/import?check=1', part(text)))
      .body;

  test('a sale known already, told again with one cell changed, is named with what differs', async () => {
    const known = '2019-05-04,120,EUR,sold,Tollgate Rooms,auction,jack,first,80,none,sheet 4';
    await server.owner.call('POST', '/comparables/import', part(file(known)));
    const look = await check(
      file(
        known.replace('120', '210'),
        known.replace('2019-05-04', '2019-04-05'),
        known.replace('sheet 4', 'sheet 5'),
        known.replace('120', '130').replace('first', 'second'),
        known,
      ),
    );
    expect(look).toMatchObject({ added: 4, alreadyKnown: 1 });
    expect(look.warnings.map((w) => [w.line, w.column])).toEqual([
      [2, 'price'],
      [3, 'sale_date'],
      [4, 'source'],
    ]);
    expect(look.warnings[0]?.message).toBe(
      'looks like a sale known already, which says “120” here and else the same',
    );
  });
  test('so is one that the list itself tells twice', async () => {
    const row = '2019-08-04,95,EUR,sold,Saltmarsh Sales,auction,jack,first,70,none,a';
    const { warnings } = await check(file(row, row.replace(/a$/, 'b')));
    expect(warnings).toMatchObject([
      { line: 3, column: 'source', message: expect.stringContaining('line 2') },
    ]);
  });
  test('two alike pieces of which little is told are two sales', async () => {
    const bare = 'sale_date,price,currency,price_kind,venue_kind,pattern\n2019-09-01,';
    expect((await check(`${bare}90,EUR,sold,fair,jack\n2019-09-01,95,EUR,sold,fair,jack`)).warnings).toEqual(
      [],
    );
  });
});

test('a column called like a thing every object has goes in, and out again, as the note it is', async () => {
  const text =
    'sale_date,price,currency,price_kind,venue_kind,pattern,constructor,__proto__\n2018-01-01,50,EUR,sold,fair,jack,a,b';
  expect((await server.owner.call('POST', '/comparables/import', part(text))).body).toMatchObject({
    added: 1,
  });
  const exported = (await server.owner.call<string>('GET', '/comparables/export.csv')).body.split(/\r?\n/);
  expect(exported[0]).toContain('constructor');
  expect(exported.find((line) => line.startsWith('2018-01-01'))).toMatch(/,a,.*,b,|,b,.*,a,/);
  expect(exported.join('\n')).not.toContain('native code');
});
