import { describe, expect, test } from '@jest/globals';
import { takeGuesses } from '../../lists/index.ts';
import { guessMapping, rowReader, wordsSaid } from './mapping.ts';
import { guessWord, type WordColumn } from './words.ts';

const header = ['Sold on', 'Hammer', 'Cur', 'House', 'Pattern', 'Shelf mark', 'Buyer premium %'];
const rows = [
  ['30.10.2026', '1.182,50', '€', 'Tollgate Rooms', 'jack', 'A3', '22'],
  ['3.11.2026', '90,00', '£', 'Tollgate Rooms', 'jack', '', ''],
];

describe('lists of prices that others keep', () => {
  test('columns, order of dates and decimal comma are recognised, and what a hammer price lets expect', () => {
    expect(guessMapping(header, rows)).toEqual({
      columns: {
        'Sold on': 'sale_date',
        Hammer: 'price',
        Cur: 'currency',
        House: 'venue',
        Pattern: 'pattern',
        'Buyer premium %': 'buyer_premium_pct',
      },
      dateOrder: 'dmy',
      decimalComma: true,
      currencyInPrice: false,
      fixed: { price_kind: 'sold', venue_kind: 'auction' },
    });
  });
  test('own names come before likenesses, and no column is given twice', () => {
    const { columns } = guessMapping(['price', 'reserve price', 'venue', 'sale_date', 'date listed'], []);
    expect(columns).toEqual({ price: 'price', venue: 'venue', sale_date: 'sale_date' });
  });
  test('a name whose cells say otherwise is not believed', () => {
    const { columns } = guessMapping(
      ['Date', 'Ask', 'Type', 'Postage', 'Condition'],
      [
        [
          '2026-10-30',
          '120',
          'Harbour jack',
          '6.90',
          'light wear to both scales, crisp tang, tip a little bent',
        ],
        ['2026-10-31', '90', 'Petrel', '0.00', 'blade full, old clean, the catch a little weak but it holds'],
      ],
    );
    expect(columns).toEqual({ Date: 'sale_date' });
  });
  test('a condition told in points is an index, one told in words a grade', () => {
    const of = (...cells: string[]) =>
      guessMapping(
        ['Zustand'],
        cells.map((cell) => [cell]),
      ).columns.Zustand;
    expect(of('85', '8/10', '60 %')).toBe('condition_index');
    expect(of('sehr gut', 'gut', 'neuwertig')).toBe('grade');
  });
  test('a month above twelve in second place tells that the month comes first', () => {
    expect(guessMapping(['date'], [['10/30/2026'], ['3/4/2026']]).dateOrder).toBe('mdy');
    expect(guessMapping(['date'], [['2026-10-30']]).dateOrder).toBe('ymd');
  });
  test('a row comes out in Jutbank’s columns; what no column takes stays under its own name', () => {
    const cells = Object.fromEntries(header.map((name, i) => [name, rows[0]?.[i] ?? '']));
    expect(rowReader(guessMapping(header, rows))(cells)).toEqual({
      price_kind: 'sold',
      venue_kind: 'auction',
      sale_date: '2026-10-30',
      price: '1182.50',
      currency: 'EUR',
      venue: 'Tollgate Rooms',
      pattern: 'jack',
      'Shelf mark': 'A3',
      buyer_premium_pct: '22',
    });
  });
  test('columns called like things that every object has are notes like any other', () => {
    const cells = Object.fromEntries([
      ['constructor', 'a'],
      ['__proto__', 'b'],
      ['toString', 'c'],
    ]);
    const row = rowReader(guessMapping(Object.keys(cells), []))(cells);
    expect(Object.entries(row).sort()).toEqual(Object.entries(cells).sort());
  });
});

describe('words', () => {
  test.each<[WordColumn, string, string | null]>([
    ['price_kind', 'Hammer price', 'sold'],
    ['price_kind', 'verkauft', 'sold'],
    ['price_kind', 'adjugé', 'sold'],
    ['price_kind', 'såld', 'sold'],
    ['price_kind', 'Unverkauft', ''],
    ['price_kind', 'Invendu', ''],
    ['price_kind', 'osåld', ''],
    ['price_kind', 'unsold', ''],
    ['price_kind', 'Preisvorstellung', 'asking'],
    ['price_kind', 'à vendre', 'asking'],
    ['price_kind', 'till salu', 'asking'],
    ['price_kind', 'Gebot', 'offer'],
    ['price_kind', 'bud', 'offer'],
    ['venue_kind', 'Auktionshaus', 'auction'],
    ['venue_kind', 'vente aux enchères', 'auction'],
    ['venue_kind', 'Sammlerbörse', 'fair'],
    ['venue_kind', 'marknad', 'fair'],
    ['venue_kind', 'Händler', 'retail'],
    ['venue_kind', 'antiquaire', 'retail'],
    ['venue_kind', 'samlare', 'private'],
    ['venue_kind', 'Kleinanzeige', 'online'],
    ['shipping_included', 'zzgl. Versand', 'no'],
    ['shipping_included', 'port compris', 'yes'],
    ['shipping_included', 'frakt ingår', 'yes'],
    ['shipping_included', 'not included', 'no'],
    ['box', 'OVP', 'original'],
    ['box', 'ohne', 'none'],
    ['box', 'boîte d’origine', 'original'],
    ['sheath', 'Ersatzscheide', 'later'],
    ['sheath', 'saknas', 'none'],
    ['papers', 'entfällt', 'not-applicable'],
    ['alterations', 'nachgeschliffen', 'reground'],
    ['alterations', 'polerad', 'polished'],
    ['alterations', 'gravure', 'engraved'],
    ['alterations', 'keine', ''],
    ['grade', 'sehr gut', 'collector/very-good'],
    ['grade', 'gut', 'collector/good'],
    ['grade', 'très bon état', 'collector/very-good'],
    ['grade', 'comme neuf', 'collector/near-mint'],
    ['grade', 'nyskick', 'collector/mint'],
    ['grade', 'mycket gott skick', 'collector/very-good'],
    ['grade', 'somewhat crisp', null],
    ['currency', 'kronor', 'SEK'],
    ['currency', 'US$', 'USD'],
  ])('in the column %s, “%s” means %s', (column, said, meaning) =>
    expect(guessWord(column, said)).toBe(meaning),
  );
  test('a sentence is no word', () => {
    expect(guessWord('grade', `good ${'and good '.repeat(20)}`)).toBeNull();
  });

  const mapping = {
    columns: { Art: 'price_kind', Zustand: 'grade', OVP: 'box', Eingriffe: 'alterations' },
    dateOrder: 'dmy' as const,
    decimalComma: true,
    fixed: {},
  };
  const list = [
    { Art: 'Zuschlag', Zustand: 'sehr gut', OVP: 'ja', Eingriffe: 'poliert, Gravur' },
    { Art: 'unverkauft', Zustand: 'II+', OVP: 'original', Eingriffe: 'keine' },
    { Art: 'sold', Zustand: 'Sehr  gut', OVP: '', Eingriffe: '' },
  ];
  test('that are none of ours are told with what they likely mean, the most frequent first', () => {
    const said = wordsSaid(mapping, list);
    expect(said[0]).toEqual({
      column: 'grade',
      said: 'sehr gut',
      rows: 2,
      key: 'sehr gut',
      guess: 'collector/very-good',
    });
    expect(said.map((w) => w.said).sort()).toEqual(
      ['Gravur', 'II+', 'Zuschlag', 'ja', 'keine', 'poliert', 'sehr gut', 'unverkauft'].sort(),
    );
    expect(said.find((w) => w.said === 'II+')?.guess).toBeNull();
  });
  test('come out as meant; what stood there is kept', () => {
    const by = takeGuesses(mapping, { names: [], words: wordsSaid(mapping, list) });
    const read = rowReader({
      ...by,
      words: { ...by.words, grade: { ...by.words.grade, 'ii+': 'finish/good' } },
    });
    expect(list.map(read)).toEqual([
      {
        price_kind: 'sold',
        grade_scale: 'collector',
        grade: 'very-good',
        'grade as listed': 'sehr gut',
        box: 'original',
        'box as listed': 'ja',
        alterations: 'polished|engraved',
        'alterations as listed': 'poliert, Gravur',
      },
      {
        // nobody paid: the check names the row and leaves it out
        price_kind: 'unverkauft',
        grade_scale: 'finish',
        grade: 'good',
        'grade as listed': 'II+',
        box: 'original',
        'alterations as listed': 'keine',
      },
      { price_kind: 'sold', grade_scale: 'collector', grade: 'very-good', 'grade as listed': 'Sehr  gut' },
    ]);
  });
  test('of a scale that the row names need no meaning', () => {
    const graded = { ...mapping, columns: { Scale: 'grade_scale', Grade: 'grade' } };
    const row = { Scale: 'user', Grade: 'like-new' };
    expect(wordsSaid(graded, [row])).toEqual([]);
    expect(rowReader(graded)(row)).toEqual({ grade_scale: 'user', grade: 'like-new' });
  });
  test('a currency beside the price is read from there', () => {
    const beside = guessMapping(['Pris'], [['1 200 kr'], ['90 €']]);
    expect(beside.currencyInPrice).toBe(true);
    const by = takeGuesses(beside, { names: [], words: wordsSaid(beside, [{ Pris: '1 200 kr' }]) });
    expect(rowReader(by)({ Pris: '1 200 kr' })).toEqual({ price: '1200', currency: 'SEK' });
    expect(rowReader(by)({ Pris: '90 €' })).toEqual({ price: '90', currency: 'EUR' });
  });
});
