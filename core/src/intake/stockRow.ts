/**
 * A row of somebody's stock as a piece that can be taken in. What no column of ours takes, and what is not understood
 * for certain, is kept as a note of the piece under its own name.
 */
import { COMPLETENESS, ITEMS_OF } from '../condition/index.ts';
import { parseSpokenDate } from '../dates/index.ts';
import {
  dateIn,
  type ListMapping,
  nameKey,
  NO_MEANING,
  numberIn,
  unitBeside,
  wordKey,
} from '../lists/index.ts';
import { isCurrency, parseAmount, type Money } from '../money/index.ts';
import type { SourceOfPiece } from '../pieces/index.ts';
import { CONSTRUCTIONS, type Construction } from '../reference/index.ts';
import { STOCK_WORDS, type StockAmount, type StockColumn, type StockWordColumn } from './stockWords.ts';

/** Ids are the reference's. */
export interface StockRow {
  readonly stockNumber: string | null;
  readonly title: string;
  readonly maker: string | null;
  readonly pattern: string | null;
  readonly construction: Construction;
  /** EDTF */
  readonly acquired: string | null;
  readonly sourceKind: SourceOfPiece | null;
  readonly sourceName: string;
  readonly sourcePlace: string;
  readonly cost: Money | null;
  readonly ask: Money | null;
  readonly floor: Money | null;
  readonly place: string;
  readonly sellerStatement: string;
  readonly cameWith: string;
  /** what came with it, by item */
  readonly completeness: Readonly<Record<string, string>>;
  /** names of its pictures' files, without folders */
  readonly pictures: readonly string[];
  readonly note: string;
}
export interface RowProblem {
  readonly column: StockColumn;
  readonly value: string;
  readonly message: string;
}
export interface ReadRow {
  /** absent where the row cannot come in, or is not to */
  readonly row?: StockRow;
  readonly errors: readonly RowProblem[];
  readonly warnings: readonly RowProblem[];
}

/** What rows are read against. */
export interface StockKnown {
  readonly makers: { readonly has: (id: string) => boolean };
  /** by id */
  readonly patterns: ReadonlyMap<string, KnownPattern>;
  /** ISO day */
  readonly today: string;
}
interface KnownPattern {
  readonly name: string;
  readonly maker: string;
  readonly construction: Construction;
}

const MOST_PICTURES = 60;
/** `C:\\knives\\a.jpg; b.jpg` as the names of its files. */
export const pictureNames = (cell: string): string[] =>
  cell
    .split(/[;|\n]|(?<=\.\w{3,4})\s*,/)
    .map((name) => name.trim().replace(/^.*[\\/]/, ''))
    .filter(Boolean)
    .slice(0, MOST_PICTURES);

const STATE_SAYS: Readonly<Record<string, string>> = {
  gone: 'it is no longer here; what it brought can come in with a list of prices',
  'not-own': 'it belongs to somebody else: take it in by itself, with what was agreed',
};

type Cells = Readonly<Record<string, string>>;
type NamedColumn = 'maker' | 'pattern';

/** A mapping made ready for many rows. */
class Reading {
  readonly #nameOf: ReadonlyMap<string, string>;
  readonly #words: ReadonlyMap<string, ReadonlyMap<string, string>>;
  readonly #names: Readonly<Record<NamedColumn, ReadonlyMap<string, string>>>;
  constructor(
    readonly mapping: ListMapping,
    readonly known: StockKnown,
  ) {
    this.#nameOf = new Map(Object.entries(mapping.columns).map(([name, column]) => [column, name]));
    this.#words = new Map(
      Object.entries(mapping.words ?? {}).map(([column, meant]) => [column, new Map(Object.entries(meant))]),
    );
    this.#names = {
      maker: new Map(Object.entries(mapping.names?.maker ?? {})),
      pattern: new Map(Object.entries(mapping.names?.pattern ?? {})),
    };
  }
  /** how the file calls one of our columns; undefined where it has none */
  nameOf(column: StockColumn): string | undefined {
    return this.#nameOf.get(column);
  }
  /** what a word means; undefined where nobody said */
  meaning(column: StockWordColumn, word: string): string | undefined {
    return STOCK_WORDS.ownWord(column, word) ?? this.#words.get(column)?.get(wordKey(word));
  }
  idOf(column: NamedColumn, said: string): string | undefined {
    const ids = column === 'maker' ? this.known.makers : this.known.patterns;
    const id = ids.has(said) ? said : (this.#names[column].get(nameKey(said)) ?? '');
    return ids.has(id) ? id : undefined;
  }
}

/** One row while it is read: what is wrong and odd about it, and what goes into its note. */
class RowReading {
  readonly errors: RowProblem[] = [];
  readonly warnings: RowProblem[] = [];
  readonly notes: string[] = [];
  constructor(
    readonly by: Reading,
    readonly cells: Cells,
  ) {}

  text(column: StockColumn): string {
    const name = this.by.nameOf(column);
    const said = name === undefined ? '' : (this.cells[name] ?? '').trim();
    return said === '' ? (this.by.mapping.fixed[column] ?? '').trim() : said;
  }
  error(column: StockColumn, message: string, value = this.text(column)): void {
    this.errors.push({ column, value, message });
  }
  warn(column: StockColumn, message: string): void {
    this.warnings.push({ column, value: this.text(column), message });
  }
  keepAsNote(column: StockColumn): void {
    const said = this.text(column);
    if (said !== '') this.notes.push(`${this.by.nameOf(column) ?? column}: ${said}`);
  }
  #meaning(column: StockWordColumn, said: string): string | undefined {
    const meant = this.by.meaning(column, said);
    if (meant === undefined) this.error(column, 'nobody has said what this word means', said);
    return meant === NO_MEANING ? undefined : meant;
  }
  word(column: StockWordColumn): string | undefined {
    const said = this.text(column);
    if (said === '') return undefined;
    const meant = this.#meaning(column, said);
    if (meant === undefined) this.keepAsNote(column);
    return meant;
  }
  id(column: NamedColumn): string | null {
    const said = this.text(column);
    const id = said === '' ? undefined : this.by.idOf(column, said);
    if (id === undefined) this.keepAsNote(column);
    return id ?? null;
  }
  amount(column: StockAmount, rowCurrency: string | undefined): Money | null {
    const said = this.text(column);
    if (said === '' || /^[-–—]+$/.test(said)) return null;
    const unit = unitBeside(said);
    const beside = unit === '' ? undefined : this.by.meaning('currency', unit);
    const currency = this.by.mapping.currencyInPrice
      ? ((unit === '' ? undefined : this.#meaning('currency', unit)) ?? rowCurrency)
      : rowCurrency;
    if (beside !== undefined && beside !== NO_MEANING && currency !== undefined && beside !== currency) {
      this.error(column, `beside it stands ${beside}, its row is in ${currency}`);
      return null;
    }
    if (currency === undefined || !isCurrency(currency)) {
      this.error(column, 'nothing says in which currency');
      return null;
    }
    const read = parseAmount(numberIn(this.by.mapping.decimalComma, said), currency, '');
    if (!read.ok) this.error(column, read.error.message);
    else if (read.value.amount.startsWith('-')) this.error(column, 'this is below 0');
    else return read.value;
    return null;
  }
  /** EDTF; a date that is not understood stays as a note, one that lies ahead is told */
  acquired(): string | null {
    const said = this.text('acquired');
    if (said === '') return null;
    const { dateOrder } = this.by.mapping;
    const { today } = this.by.known;
    const date = parseSpokenDate(dateIn(dateOrder, said), { today, dayFirst: dateOrder !== 'mdy' });
    if (!date.ok) {
      this.keepAsNote('acquired');
      this.warn('acquired', 'this is not read as a date; it stays as a note');
      return null;
    }
    if (/^\d{4}/.test(date.value.edtf) && date.value.edtf > today.slice(0, date.value.edtf.length))
      this.error('acquired', 'this lies in the future');
    return date.value.edtf;
  }
  construction(ofPattern: KnownPattern | undefined): Construction | undefined {
    const told = this.by.nameOf('construction') === undefined ? undefined : this.word('construction');
    if (told !== undefined && ofPattern && told !== ofPattern.construction)
      this.warn('construction', `${ofPattern.name} is built otherwise by the reference`);
    const any = told ?? ofPattern?.construction ?? this.by.mapping.fixed.construction;
    const construction = CONSTRUCTIONS.find((one) => one === any);
    if (construction === undefined)
      this.error('construction', 'say how it is built, or what holds for every row');
    return construction;
  }
  /** What came with it; a state that such an item cannot be in stays as a note. */
  completeness(construction: Construction): Record<string, string> {
    const items = ITEMS_OF[construction];
    const told = (['box', 'papers', 'sheath'] as const).flatMap((column): [string, string][] => {
      const state = this.word(column);
      if (state === undefined) return [];
      // whatever a knife is carried in
      const item = items.find((one) => one === column) ?? items.find((one) => CARRIED.has(one));
      const states: readonly string[] =
        item === undefined || (column !== 'sheath' && item !== column) ? [] : COMPLETENESS[item].states;
      if (item !== undefined && states.includes(state)) return [[item, state]];
      if (state !== 'not-applicable' && state !== 'none') this.keepAsNote(column);
      return [];
    });
    return Object.fromEntries(told);
  }
  title(ofPattern: KnownPattern | undefined): string {
    const title =
      this.text('title') ||
      [this.text('maker'), this.text('pattern') || (ofPattern?.name ?? ''), this.text('variant')]
        .filter(Boolean)
        .join(' ');
    if (title === '') this.error('title', 'a piece needs a name');
    return title;
  }
  /** the shop's own words first, then whatever else stood in the row */
  note(): string {
    const { columns } = this.by.mapping;
    const unread = Object.entries(this.cells).filter(
      ([name, said]) => !Object.hasOwn(columns, name) && said.trim() !== '',
    );
    return [this.text('note'), ...this.notes, ...unread.map(([name, said]) => `${name}: ${said.trim()}`)]
      .filter(Boolean)
      .join('\n');
  }
}
const CARRIED: ReadonlySet<string> = new Set(['sheath', 'scabbard', 'pouch']);

/**
 * Reads the rows of a list one by one.
 * @param mapping with the words and names a person looked over
 * @returns for the cells of a row by their column's name: the piece, or why it cannot come in
 */
export function stockRowReader(mapping: ListMapping, known: StockKnown): (cells: Cells) => ReadRow {
  const by = new Reading(mapping, known);
  return (cells) => {
    const reading = new RowReading(by, cells);
    const { errors, warnings } = reading;
    const state = reading.word('state');
    if (state !== undefined && STATE_SAYS[state] !== undefined) {
      reading.error('state', STATE_SAYS[state]);
      return { errors, warnings };
    }
    if (!/^[01]?$/.test(reading.text('quantity')))
      reading.error('quantity', 'each piece wants a row of its own, with its own number');
    const pattern = reading.id('pattern');
    const ofPattern = pattern === null ? undefined : known.patterns.get(pattern);
    const maker = reading.id('maker');
    if (maker !== null && ofPattern && ofPattern.maker !== maker)
      reading.warn('maker', `${ofPattern.name} is another maker’s by the reference`);
    if (ofPattern && reading.text('pattern').toLowerCase() !== ofPattern.name.toLowerCase())
      reading.keepAsNote('pattern');
    reading.keepAsNote('variant');
    const currency = reading.word('currency');
    const construction = reading.construction(ofPattern);
    const row = {
      stockNumber: reading.text('stock_number') || null,
      title: reading.title(ofPattern),
      maker: maker ?? ofPattern?.maker ?? null,
      pattern,
      acquired: reading.acquired(),
      sourceKind: (reading.word('source_kind') ?? null) as SourceOfPiece | null,
      sourceName: reading.text('source_name'),
      sourcePlace: reading.text('source_place'),
      cost: reading.amount('cost', currency),
      ask: reading.amount('ask', currency),
      floor: reading.amount('floor', currency),
      place: reading.text('place'),
      sellerStatement: reading.text('seller_statement'),
      cameWith: reading.text('came_with'),
      pictures: pictureNames(reading.text('pictures')),
    };
    if (construction === undefined || errors.length > 0) return { errors, warnings };
    const completeness = reading.completeness(construction);
    if (errors.length > 0) return { errors, warnings };
    return { errors, warnings, row: { ...row, construction, completeness, note: reading.note() } };
  };
}
