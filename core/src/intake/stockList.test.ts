/** Stock as shops keep it in four languages: what is guessed of it, and the pieces that come of its rows. */
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { namesSaid, takeGuesses, type ListMapping } from '../lists/index.ts';
import { guessStockMapping, pictureNames, stockRowReader, stockWordsSaid, type ReadRow } from './index.ts';

const patterns = new Map([
  ['jack', { name: 'Harbour jack', maker: 'brackenholt', construction: 'slipjoint' as const }],
  ['petrel', { name: 'Petrel', maker: 'corvane', construction: 'locking-folder' as const }],
]);
const makers = new Map([
  ['brackenholt', 'Brackenholt Cutlery'],
  ['corvane', 'Corvane Knifeworks'],
]);
const known = { makers, patterns, today: '2026-12-02' };
const namesKnown = {
  makers: [...makers].map(([id, name]) => ({ id, name })),
  patterns: [...patterns].map(([id, p]) => ({ id, name: p.name, maker: makers.get(p.maker) ?? '' })),
  variants: [],
};

/** As the wizard begins: what is guessed is taken, and what holds for every row is said. */
function readList(
  text: string,
  separator = ';',
  fixed: Record<string, string> = { construction: 'slipjoint', currency: 'EUR' },
): { mapping: ListMapping; rows: ReadRow[] } {
  const [header = [], ...rows] = text
    .trim()
    .split('\n')
    .map((line) => line.trim().split(separator));
  const guessed = { ...guessStockMapping(header, rows), fixed };
  const cells = rows.map((row) => Object.fromEntries(header.map((name, i) => [name, row[i] ?? ''])));
  const mapping = takeGuesses(guessed, {
    names: namesSaid(guessed, cells, namesKnown),
    words: stockWordsSaid(guessed, cells),
  });
  return { mapping, rows: cells.map(stockRowReader(mapping, known)) };
}
const EUR = (amount: string) => ({ amount, currency: 'EUR' });

describe('a shop’s stock as it keeps it', () => {
  test('in German: numbers, decimal commas, what is sold and what is another’s stays out', () => {
    const { mapping, rows } = readList(`
Inv.-Nr.;Bezeichnung;Hersteller;Modell;Bauart;Gekauft am;Von wem;EK;VK;Lagerort;OVP;Status;Fotos;Griff
A-0012;Hafenmesser, Ebenholz;Brackenholt;Harbour jack;Taschenmesser;14.03.2024;Nachlass Fernhithe;1.120,50;1.480,00 €;Vitrine 2;ja;auf Lager;a12-1.jpg, a12-2.jpg;Ebenholz
A-0013;Sturmvogel;Corvane;Petrel;Einhandmesser;März 2024;Messe;80,-;;Schublade 4;ohne;verkauft;;
A-0014;Seitengewehr;;;Bajonett;2021;Händler in Slipgate;210;295;Wand;;Kommission;;
A-0015;Feststehendes;;;feststehend;vor langem;;95;140;Regal;;vorhanden;;Horn`);
    expect(mapping.columns).toEqual({
      'Inv.-Nr.': 'stock_number',
      Bezeichnung: 'title',
      Hersteller: 'maker',
      Modell: 'pattern',
      Bauart: 'construction',
      'Gekauft am': 'acquired',
      'Von wem': 'source_name',
      EK: 'cost',
      VK: 'ask',
      Lagerort: 'place',
      OVP: 'box',
      Status: 'state',
      Fotos: 'pictures',
    });
    expect(rows[0]).toEqual({
      errors: [],
      warnings: [],
      row: {
        stockNumber: 'A-0012',
        title: 'Hafenmesser, Ebenholz',
        maker: 'brackenholt',
        pattern: 'jack',
        construction: 'slipjoint',
        acquired: '2024-03-14',
        sourceKind: null,
        sourceName: 'Nachlass Fernhithe',
        sourcePlace: '',
        cost: EUR('1120.50'),
        ask: EUR('1480.00'),
        floor: null,
        place: 'Vitrine 2',
        sellerStatement: '',
        cameWith: '',
        completeness: { box: 'original' },
        pictures: ['a12-1.jpg', 'a12-2.jpg'],
        note: 'Griff: Ebenholz',
      },
    });
    expect(rows.map((r) => r.errors.map((e) => e.column))).toEqual([[], ['state'], ['state'], []]);
    expect(rows[3]?.row).toMatchObject({
      construction: 'fixed',
      acquired: null,
      note: 'Gekauft am: vor langem\nGriff: Horn',
    });
    expect(rows[3]?.warnings).toEqual([expect.objectContaining({ column: 'acquired', value: 'vor langem' })]);
  });

  test('in French: the currency beside the amount, the month in words', () => {
    const { rows } = readList(
      `
Référence|Désignation|Type|Date d’achat|Fournisseur|Prix d’achat|Prix de vente|Emplacement|Étui|Statut
12|Canif d’homme|couteau de poche|3 février 2023|Vente aux enchères|45,00 €|1 090 €|tiroir 3|oui|en stock
13|Couteau fixe|lame fixe|2019|brocante|30 €|65 €|tiroir 3|sans|vendu`,
      '|',
    );
    expect(rows[0]?.row).toMatchObject({
      stockNumber: '12',
      construction: 'slipjoint',
      acquired: '2023-02-03',
      cost: EUR('45.00'),
      ask: EUR('1090.00'),
      place: 'tiroir 3',
      completeness: { pouch: 'original' },
    });
    expect(rows[1]?.row).toBeUndefined();
  });

  test('in Swedish: crowns, a sheath, what was bought at a market', () => {
    const { mapping, rows } = readList(
      `
Artnr;Benämning;Typ;Inköpt;Typ av källa;Inköpspris;Utpris;Slida;Hylla;Antal
K7;Slidkniv med mässing;slidkniv;2024-05-07;loppis;450 kr;1 200 kr;original;B2;1
K8;Två fickknivar;fickkniv;2024-05-07;privat;100 kr;300 kr;;B2;2`,
      ';',
      { construction: 'slipjoint' },
    );
    expect(mapping.columns).toMatchObject({
      'Typ av källa': 'source_kind',
      Hylla: 'place',
      Antal: 'quantity',
    });
    expect(rows[0]?.row).toMatchObject({
      construction: 'fixed',
      sourceKind: 'fair',
      cost: { amount: '450.00', currency: 'SEK' },
      ask: { amount: '1200.00', currency: 'SEK' },
      completeness: { sheath: 'original' },
    });
    expect(rows[1]?.errors).toEqual([expect.objectContaining({ column: 'quantity', value: '2' })]);
  });

  test('in English: one price only is what is asked, months before days, a “sold on” that is empty means here', () => {
    const { mapping, rows } = readList(
      `
SKU,Item,Model,Variant,Date acquired,Cost,Price,Sold on,Condition
1001,Jack with a bar shield,Harbor jack,second form,12/24/2023,$85.00,$140,,VG
1002,Another,Harbour jack,,3/4/2024,$90.00,"$150",5/6/2025,VG`,
      ',',
      { construction: 'slipjoint' },
    );
    expect(mapping.columns).toMatchObject({ Price: 'ask', Cost: 'cost', 'Sold on': 'state' });
    expect(mapping.dateOrder).toBe('mdy');
    expect(rows[0]?.row).toMatchObject({
      acquired: '2023-12-24',
      cost: { amount: '85.00', currency: 'USD' },
      note: 'Model: Harbor jack\nVariant: second form\nCondition: VG',
    });
    expect(rows[1]?.errors).toEqual([expect.objectContaining({ column: 'state', value: '5/6/2025' })]);
  });

  test('a list of names alone is a list, too', () => {
    const { rows } = readList('Knife\nBone handled jack\n\nPruner');
    expect(rows.map((r) => r.row?.title ?? r.errors[0]?.message)).toEqual([
      'Bone handled jack',
      'a piece needs a name',
      'Pruner',
    ]);
  });
});

describe('what is wrong is told, not guessed', () => {
  const one = (
    columns: Record<string, string>,
    cells: Record<string, string>,
    more: Partial<ListMapping> = {},
  ) =>
    stockRowReader(
      {
        columns: { Name: 'title', ...columns },
        dateOrder: 'dmy',
        decimalComma: false,
        fixed: { construction: 'fixed' },
        ...more,
      },
      known,
    )({ Name: 'Knife', ...cells });
  test.each<[string, Record<string, string>, Record<string, string>, string]>([
    [
      'an amount in two readings',
      { Cost: 'cost', Cur: 'currency' },
      { Cost: '1.200,50', Cur: 'EUR' },
      'cost',
    ],
    ['an amount in no currency', { Cost: 'cost' }, { Cost: '120' }, 'cost'],
    ['an amount below nothing', { Cost: 'cost', Cur: 'currency' }, { Cost: '-5', Cur: 'EUR' }, 'cost'],
    ['parts no currency has', { Cost: 'cost', Cur: 'currency' }, { Cost: '5.555', Cur: 'EUR' }, 'cost'],
    ['a sign against its row', { Cost: 'cost', Cur: 'currency' }, { Cost: '5 €', Cur: 'GBP' }, 'cost'],
    ['a word nobody explained', { Kind: 'source_kind' }, { Kind: 'from Ebbe' }, 'source_kind'],
    ['a day that is not yet', { Bought: 'acquired' }, { Bought: '03.12.2026' }, 'acquired'],
    ['a year that is not yet', { Bought: 'acquired' }, { Bought: '2031' }, 'acquired'],
    ['several in one row', { Qty: 'quantity' }, { Qty: '3' }, 'quantity'],
  ])('%s', (_, columns, cells, column) => {
    const { row, errors } = one(columns, cells);
    expect(row).toBeUndefined();
    expect(errors.map((e) => e.column)).toEqual([column]);
  });
  test('today is not the future, and a dash is no price', () => {
    expect(one({ Bought: 'acquired', Cost: 'cost' }, { Bought: '2.12.2026', Cost: '–' }).row).toMatchObject({
      acquired: '2026-12-02',
      cost: null,
    });
  });
  test('a state that such an item cannot be in stays as a note', () => {
    const bayonet = { fixed: { construction: 'bayonet' } };
    expect(
      one({ Sheath: 'sheath', Box: 'box' }, { Sheath: 'later', Box: 'original' }, bayonet).row,
    ).toMatchObject({
      completeness: {},
      note: 'Box: original\nSheath: later',
    });
    expect(one({ Sheath: 'sheath' }, { Sheath: 'original' }, bayonet).row?.completeness).toEqual({
      scabbard: 'original',
    });
  });
  test('the reference’s word on how a pattern is built is told against the list’s', () => {
    const { row, warnings } = one(
      { Model: 'pattern', Type: 'construction' },
      { Model: 'petrel', Type: 'fixed' },
    );
    expect(row).toMatchObject({ construction: 'fixed', maker: 'corvane' });
    expect(warnings.map((w) => w.column)).toEqual(['construction']);
  });
  test('a column called like a part of every object is a note like any other', () => {
    const columns = { Name: 'title' };
    const cells = Object.fromEntries([
      ['Name', 'Knife'],
      ['__proto__', 'a'],
      ['constructor', 'b'],
    ]);
    expect(
      stockRowReader(
        { columns, dateOrder: 'dmy', decimalComma: false, fixed: { construction: 'fixed' } },
        known,
      )(cells).row?.note,
    ).toBe('__proto__: a\nconstructor: b');
  });
});

test.each([
  ['a.jpg', ['a.jpg']],
  ['C:\\knives\\a.jpg; /home/b.JPG', ['a.jpg', 'b.JPG']],
  ['jack, left.jpg, jack, right.jpg', ['jack, left.jpg', 'jack, right.jpg']],
  ['one.jpg|two.png\nthree.webp', ['one.jpg', 'two.png', 'three.webp']],
  ['', []],
])('the files of “%s”', (cell, names) => expect(pictureNames(cell)).toEqual(names));

test('whatever stands in a file, a row comes in or says why not, and what it cost is no less than nothing', () => {
  const name = fc.oneof(
    fc.string({ maxLength: 12 }),
    fc.constantFrom(
      'No',
      'Name',
      'EK',
      'VK',
      'Datum',
      'Status',
      'Model',
      'Typ',
      'OVP',
      'Qty',
      '__proto__',
      'constructor',
    ),
  );
  const cell = fc.oneof(
    fc.string({ maxLength: 20 }),
    fc.constantFrom(
      '1.200,50 €',
      '12/13/2024',
      'sold',
      'ja',
      '-5',
      '2031',
      '31.02.2024',
      '1e9',
      '5 kr',
      '..',
      '9'.repeat(40),
    ),
  );
  const file = fc.record({
    header: fc.uniqueArray(name, { minLength: 1, maxLength: 8 }),
    rows: fc.array(fc.array(cell, { minLength: 8, maxLength: 8 }), { maxLength: 6 }),
  });
  fc.assert(
    fc.property(file, ({ header, rows }) => {
      const guessed = {
        ...guessStockMapping(header, rows),
        fixed: { construction: 'fixed', currency: 'EUR' },
      };
      const cells = rows.map((row) => Object.fromEntries(header.map((column, i) => [column, row[i] ?? ''])));
      const mapping = takeGuesses(guessed, {
        names: namesSaid(guessed, cells, namesKnown),
        words: stockWordsSaid(guessed, cells),
      });
      for (const { row, errors } of cells.map(stockRowReader(mapping, known))) {
        expect(row === undefined).toBe(errors.length > 0);
        expect(row?.cost?.amount ?? '0').toMatch(/^\d+(\.\d+)?$/);
      }
    }),
    { numRuns: 300 },
  );
});
