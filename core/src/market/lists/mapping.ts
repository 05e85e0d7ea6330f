/**
 * Other people's lists of prices: which of their columns says what, how they write dates and decimals, what their words
 * mean. A guess from the header and the first rows, which a person corrects; then each row in Jutbank's own columns.
 */
import { commaIsDecimal, dateIn, indexIn, numberIn, orderOf, unitBeside, type DateOrder } from './cells.ts';
import { GRADE_WORDS } from '../comparable.ts';
import { foldedText } from './fold.ts';
import { nameKey, type NameSaid, type NamesMeant } from './naming.ts';
import {
  guessWord,
  isWordColumn,
  NO_MEANING,
  ownWord,
  wordKey,
  wordsIn,
  type WordColumn,
  type WordSaid,
  type WordsMeant,
} from './words.ts';

export interface ColumnMapping {
  /** their column to ours; what is not named is kept as a note under its own name */
  readonly columns: Readonly<Record<string, string>>;
  readonly dateOrder: DateOrder;
  readonly decimalComma: boolean;
  /** no column of its own: the currency is the sign beside the price */
  readonly currencyInPrice?: boolean;
  /** what stands in every row that does not say it itself */
  readonly fixed: Readonly<Record<string, string>>;
  readonly names?: NamesMeant;
  readonly words?: WordsMeant;
}
/** A file by columns: its header, and rows of cells in the same order. */
export interface Cells {
  readonly header: readonly string[];
  readonly rows: readonly (readonly string[])[];
}

/** Words by which a column is known, folded; of those that fit, the first whose cells agree is taken. */
const KNOWN_BY: readonly (readonly [column: string, words: RegExp])[] = [
  ['shipping_included', /postage|shipping|carriage|versand|porto|\bport\b|livraison|frakt/],
  ['buyer_premium_pct', /premium|aufgeld|\bfrais|commission|kopararvode|slagavgift|provision/],
  ['condition_index', /condition.?index|^index$|condition|zustand|erhaltung|\betat|skick|kondition/],
  ['grade_scale', /scale$|skala$/],
  ['grade', /grade|condition|zustand|erhaltung|\betat|skick|kondition|conservation/],
  [
    'venue_kind',
    /venue.?kind|kind.?of.?venue|channel|kanal|canal|vertriebsweg|venue|where|wo$|type de vente|\bart\b/,
  ],
  [
    'price_kind',
    /price.?kind|^kind$|type.?of.?price|asked.?or.?sold|status|statut|preisart|\bart\b|result|ergebnis|type de prix|^typ/,
  ],
  ['currency', /curr|^cur$|ccy|wahrung|devise|monnaie|valuta/],
  ['sale_date', /date|\bday\b|sold.?on|when|datum|\btag\b|verkauft am|\bjour\b|vendu le|\bdag\b/],
  [
    'price',
    /price|hammer|amount|paid|\bsum\b|preis|zuschlag|betrag|prix|montant|adjudi|\bpris\b|slutpris|belopp|klubb/,
  ],
  [
    'venue',
    /venue|house|saleroom|shop|seller|where|haus\b|verkaufer|handler|\bort\b|\blieu\b|maison|vendeur|auktion|saljare|\bplats\b/,
  ],
  ['pattern', /pattern|model|muster|modell|modele/],
  ['variant', /variant|form$|version|ausfuhrung|utforande/],
  ['box', /\bbox|karton|schachtel|\bovp\b|boite|ecrin|\bask\b/],
  ['papers', /paper|certificat|papier|zertifikat|papper|intyg/],
  ['sheath', /sheath|scabbard|scheide|fourreau|\betui|gaine|slida|balja/],
  ['alterations', /alter|change|repair|anderung|umbau|modif|retouche|andring/],
  ['source', /source|\blink\b|catalogue|quelle|katalog|\blien\b|kalla|\burl\b/],
  [
    'note',
    /note|remark|comment|description|\blot\b|bemerkung|anmerkung|beschreibung|remarque|anmarkning|beskrivning/,
  ],
];

/** So many of a column's words must have a meaning for its name to be believed. */
const WORDS_AGREE = 0.5;
const NUMBER_SHOWN = /^\d{1,3}(?:[.,]\d+)?(?:\s*%|\s*\/\s*\d{1,3})?$/;

/** Do cells look like what their column's name promises? Columns of free text always do. */
function agrees(column: string, cells: readonly string[]): boolean {
  if (cells.length === 0) return true;
  const share = (fits: (cell: string) => boolean) => cells.filter(fits).length / cells.length;
  if (column === 'condition_index' || column === 'buyer_premium_pct')
    return share((cell) => NUMBER_SHOWN.test(cell)) >= WORDS_AGREE;
  if (column === 'price' || column === 'sale_date') return share((cell) => /\d/.test(cell)) >= WORDS_AGREE;
  if (!isWordColumn(column)) return true;
  // a column of amounts says what the postage was, not whether it was inside
  if (column === 'shipping_included' && share((cell) => /\d[.,]\d/.test(cell)) > 0) return false;
  return share((cell) => known(column, cell)) >= WORDS_AGREE;
}

const OWN_SCALES = Object.keys(GRADE_WORDS);
const known = (column: WordColumn, cell: string): boolean =>
  wordsIn(column, cell).some(
    (word) =>
      guessWord(column, word) !== null ||
      (column === 'grade' ? OWN_SCALES : ['']).some((scale) => ownWord(column, word, scale) !== undefined),
  );

/** @param rows the first of the file, in the order of the header */
export function guessMapping(header: readonly string[], rows: Cells['rows']): ColumnMapping {
  const cells = columnsOf({ header, rows });
  const columns = new Map<string, string>();
  const give = (name: string, column: string | undefined) => {
    if (column !== undefined && ![...columns.values()].includes(column)) columns.set(name, column);
  };
  const plain = (name: string) => name.trim().toLowerCase();
  for (const name of header) give(name, KNOWN_BY.find(([column]) => column === plain(name))?.[0]);
  for (const [column, words] of KNOWN_BY)
    give(
      header.find(
        (name) => !columns.has(name) && words.test(foldedText(name)) && agrees(column, cells.get(name) ?? []),
      ) ?? '',
      column,
    );
  columns.delete('');
  const named = { header, rows, columns: Object.fromEntries(columns) };
  return { columns: named.columns, ...guessNotation(named), fixed: guessFixed(named) };
}

/** Cells that are not empty, by the name of their column. */
function columnsOf({ header, rows }: Cells): Map<string, string[]> {
  return new Map(header.map((name, at) => [name, rows.map((row) => (row[at] ?? '').trim()).filter(Boolean)]));
}

/** How dates, decimals and currencies are written, by the columns that a mapping says they stand in. */
export function guessNotation({
  columns,
  ...file
}: Cells & Pick<ColumnMapping, 'columns'>): Pick<
  ColumnMapping,
  'dateOrder' | 'decimalComma' | 'currencyInPrice'
> {
  const cells = columnsOf(file);
  const of = (column: string) =>
    Object.entries(columns).flatMap(([name, ours]) => (ours === column ? (cells.get(name) ?? []) : []));
  const prices = of('price');
  const beside = prices.filter((cell) => known('currency', unitBeside(cell)));
  return {
    dateOrder: orderOf(of('sale_date')),
    decimalComma: commaIsDecimal(prices),
    currencyInPrice:
      prices.length > 0 &&
      !Object.values(columns).includes('currency') &&
      beside.length / prices.length >= WORDS_AGREE,
  };
}

const SOLD_BY_NAME = /hammer|sold|zuschlag|verkauft|adjudi|vendu|slutpris|klubb|paid|realis/;
const ASKED_BY_NAME = /ask|list price|angebot|demande|utrop|begar/;
const AUCTION_BY_NAME = /hammer|saleroom|auction|zuschlag|auktion|adjudi|encheres|klubb/;

/** What the names of the columns let expect of every row. */
function guessFixed({ columns, header }: Cells & Pick<ColumnMapping, 'columns'>): Record<string, string> {
  const has = new Set(Object.values(columns));
  const named = header.filter((name) => ['price', 'venue', 'sale_date'].includes(columns[name] ?? ''));
  const says = (words: RegExp) => named.some((name) => words.test(foldedText(name)));
  return {
    ...(has.has('price_kind')
      ? {}
      : says(SOLD_BY_NAME)
        ? { price_kind: 'sold' }
        : says(ASKED_BY_NAME)
          ? { price_kind: 'asking' }
          : {}),
    ...(!has.has('venue_kind') && says(AUCTION_BY_NAME) ? { venue_kind: 'auction' } : {}),
  };
}

const NUMBERS: ReadonlySet<string> = new Set(['price', 'buyer_premium_pct']);
/** Of these, more is lost in translation than the word: what stood there is kept as a note. */
const KEPT_AS_LISTED: ReadonlySet<string> = new Set(['grade', 'box', 'papers', 'sheath', 'alterations']);

/** How rows of a file come out in Jutbank's own columns; cells that no column takes are kept under their own name. */
export function rowReader(
  mapping: ColumnMapping,
): (cells: Readonly<Record<string, string>>) => Record<string, string> {
  const columns = new Map(Object.entries(mapping.columns));
  const words = new Map(
    Object.entries(mapping.words ?? {}).map(([column, meant]) => [column, new Map(Object.entries(meant))]),
  );
  const names = mapping.names && {
    pattern: new Map(Object.entries(mapping.names.pattern)),
    variant: new Map(Object.entries(mapping.names.variant)),
  };
  const scaleOf = scaleReader(mapping);

  const meantBy = (column: WordColumn, word: string, scale: string | undefined): string =>
    ownWord(column, word, scale) ?? words.get(column)?.get(wordKey(word)) ?? word;

  return (cells) => {
    const row = new Map(Object.entries(mapping.fixed));
    const scale = scaleOf(cells);
    for (const [name, value] of Object.entries(cells)) {
      if (value.trim() === '') continue;
      const column = columns.get(name);
      if (column === undefined) row.set(name, value);
      else if (column === 'sale_date') row.set(column, dateIn(mapping.dateOrder, value));
      else if (column === 'condition_index') row.set(column, indexIn(mapping.decimalComma, value));
      else if (NUMBERS.has(column)) row.set(column, numberIn(mapping.decimalComma, value));
      else if (isWordColumn(column)) {
        const said = wordsIn(column, value);
        const told = said.map((word) => meantBy(column, word, scale)).filter((word) => word !== NO_MEANING);
        const changed = told.join('|') !== value.trim().toLowerCase();
        if (changed && KEPT_AS_LISTED.has(column)) row.set(`${column} as listed`, value.trim());
        // a word that means none of ours leaves what must be told untold: the check then names it
        if (told.length === 0 && (column === 'price_kind' || column === 'venue_kind')) row.set(column, value);
        else if (told.length > 0) setTold(row, column, told);
      } else row.set(column, value);
      if (column === 'price' && mapping.currencyInPrice && unitBeside(value) !== '')
        row.set('currency', meantBy('currency', unitBeside(value), undefined));
    }
    if (names) nameIds(row, names);
    return Object.fromEntries(row);
  };
}

function setTold(row: Map<string, string>, column: WordColumn, told: readonly string[]): void {
  const [scale, grade] = column === 'grade' ? (told[0] ?? '').split('/') : [];
  if (scale !== undefined && grade !== undefined) row.set('grade_scale', scale).set('grade', grade);
  else row.set(column, told.join('|'));
}

/** The scale on which a row's grade is told: its own, or that of every row. */
function scaleReader(
  mapping: ColumnMapping,
): (cells: Readonly<Record<string, string>>) => string | undefined {
  const column = Object.keys(mapping.columns).find((name) => mapping.columns[name] === 'grade_scale');
  return (cells) => (column === undefined ? undefined : cells[column]) ?? mapping.fixed.grade_scale;
}

/** Their names as ids; what they called it is kept as a note. A variant that means none of ours is left open. */
function nameIds(
  row: Map<string, string>,
  names: { readonly pattern: ReadonlyMap<string, string>; readonly variant: ReadonlyMap<string, string> },
): void {
  const [pattern, variant] = [row.get('pattern'), row.get('variant')];
  const id = pattern === undefined ? undefined : (names.pattern.get(nameKey(pattern.trim())) ?? '');
  const own = id === undefined || id === '' ? pattern : id;
  if (own !== pattern && own !== undefined && pattern !== undefined)
    row.set('pattern', own).set('pattern as listed', pattern);
  const form = variant === undefined ? undefined : names.variant.get(nameKey(variant.trim(), own ?? ''));
  if (variant === undefined || form === undefined) return;
  row.set('variant as listed', variant);
  if (form === '') row.delete('variant');
  else row.set('variant', form);
}

/**
 * Words in columns of words that are none of ours, those in most rows first.
 * @param rows cells by their own column's name
 */
export function wordsSaid(
  mapping: ColumnMapping,
  rows: readonly Readonly<Record<string, string>>[],
): WordSaid[] {
  const found = new Map<string, { -readonly [K in keyof WordSaid]: WordSaid[K] }>();
  const count = (column: WordColumn, said: string, scale: string | undefined) => {
    if (ownWord(column, said, scale) !== undefined) return;
    const key = wordKey(said);
    const before = found.get(`${column} ${key}`);
    if (before) before.rows++;
    else found.set(`${column} ${key}`, { column, said, rows: 1, key, guess: guessWord(column, said) });
  };
  const scaleOf = scaleReader(mapping);
  const columns = Object.entries(mapping.columns);
  for (const row of rows)
    for (const [name, column] of columns) {
      const cell = row[name] ?? '';
      if (isWordColumn(column)) for (const word of wordsIn(column, cell)) count(column, word, scaleOf(row));
      if (column === 'price' && mapping.currencyInPrice && unitBeside(cell) !== '')
        count('currency', unitBeside(cell), undefined);
    }
  return [...found.values()].sort((a, b) => b.rows - a.rows);
}

/** What is guessed of names and words is taken for a beginning; what a person said before stays. */
export function takeGuesses<M extends ColumnMapping>(
  mapping: M,
  { names, words }: { readonly names: readonly NameSaid[]; readonly words: readonly WordSaid[] },
): M & Required<Pick<ColumnMapping, 'names' | 'words'>> {
  const pattern = new Map(Object.entries(mapping.names?.pattern ?? {}));
  const variant = new Map(Object.entries(mapping.names?.variant ?? {}));
  for (const { column, key, guess } of names) {
    const meant = column === 'pattern' ? pattern : variant;
    // a form nobody knows is taken as not told; a pattern nobody knows stays open until a person says
    if (!meant.has(key) && (guess !== null || column === 'variant')) meant.set(key, guess ?? '');
  }
  const said = new Map(
    Object.entries(mapping.words ?? {}).map(([column, meant]) => [column, new Map(Object.entries(meant))]),
  );
  for (const { column, key, guess } of words) {
    const meant = said.get(column) ?? new Map<string, string>();
    said.set(column, meant);
    if (!meant.has(key) && guess !== null) meant.set(key, guess);
  }
  return {
    ...mapping,
    names: { pattern: Object.fromEntries(pattern), variant: Object.fromEntries(variant) },
    words: Object.fromEntries([...said].map(([column, meant]) => [column, Object.fromEntries(meant)])),
  };
}
