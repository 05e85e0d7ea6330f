/**
 * Other people's lists of prices: which of their columns says what, how they write dates and decimals, what their words
 * mean. A guess from the header and the first rows, which a person corrects; then each row in Jutbank's own columns.
 */
import {
  type Cells,
  countWords,
  dateIn,
  foldedText,
  guessColumns,
  indexIn,
  type KnownBy,
  type ListMapping,
  nameKey,
  NO_MEANING,
  type Notation,
  notationOf,
  numberIn,
  unitBeside,
  wordKey,
  WORDS_AGREE,
  type WordSaid,
} from '../../lists/index.ts';
import { GRADE_WORDS } from '../comparable.ts';
import { guessWord, isWordColumn, ownWord, PRICE_WORDS, wordsIn, type WordColumn } from './words.ts';

const KNOWN_BY: KnownBy<string> = [
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
export function guessMapping(header: readonly string[], rows: Cells['rows']): ListMapping {
  const columns = guessColumns({ header, rows }, KNOWN_BY, agrees);
  const named = { header, rows, columns };
  return { columns, ...guessNotation(named), fixed: guessFixed(named) };
}

/** How dates, decimals and currencies are written, by the columns that a mapping says they stand in. */
export const guessNotation = (file: Cells & Pick<ListMapping, 'columns'>): Notation =>
  notationOf(file, { dates: ['sale_date'], prices: ['price'] });

const SOLD_BY_NAME = /hammer|sold|zuschlag|verkauft|adjudi|vendu|slutpris|klubb|paid|realis/;
const ASKED_BY_NAME = /ask|list price|angebot|demande|utrop|begar/;
const AUCTION_BY_NAME = /hammer|saleroom|auction|zuschlag|auktion|adjudi|encheres|klubb/;

/** What the names of the columns let expect of every row. */
function guessFixed({ columns, header }: Cells & Pick<ListMapping, 'columns'>): Record<string, string> {
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
  mapping: ListMapping,
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
function scaleReader(mapping: ListMapping): (cells: Readonly<Record<string, string>>) => string | undefined {
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
  mapping: ListMapping,
  rows: readonly Readonly<Record<string, string>>[],
): WordSaid<WordColumn>[] {
  const scaleOf = scaleReader(mapping);
  const columns = Object.entries(mapping.columns);
  return countWords(PRICE_WORDS, rows, (row) => {
    const scale = scaleOf(row);
    const on = scale === undefined ? {} : { scale };
    return columns.flatMap(([name, column]) => {
      const cell = row[name] ?? '';
      if (isWordColumn(column)) return wordsIn(column, cell).map((said) => ({ column, said, ...on }));
      const unit = column === 'price' && mapping.currencyInPrice ? unitBeside(cell) : '';
      return unit === '' ? [] : [{ column: 'currency' as const, said: unit }];
    });
  });
}
