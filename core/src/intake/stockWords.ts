/** What the columns of somebody's stock may say, and what the words in them mean. */
import {
  currencyMeanings,
  guessCurrency,
  guessItemState,
  meaningIn,
  ownCurrency,
  VENUE_WORDS,
  type Vocabulary,
  type WordBook,
} from '../lists/index.ts';
import { SOURCE_OF_PIECE } from '../pieces/index.ts';
import { CONSTRUCTIONS } from '../reference/index.ts';

/** What a column of somebody's stock may say, in the order in which it is offered. */
export const STOCK_COLUMNS = [
  'stock_number',
  'title',
  'maker',
  'pattern',
  'variant',
  'construction',
  'acquired',
  'source_kind',
  'source_name',
  'source_place',
  'cost',
  'ask',
  'floor',
  'currency',
  'place',
  'seller_statement',
  'came_with',
  'box',
  'papers',
  'sheath',
  'state',
  'quantity',
  'pictures',
  'note',
] as const;
export type StockColumn = (typeof STOCK_COLUMNS)[number];

/** Columns whose cells are words with a meaning. */
export const STOCK_WORD_COLUMNS = [
  'construction',
  'source_kind',
  'state',
  'currency',
  'box',
  'papers',
  'sheath',
] as const;
export type StockWordColumn = (typeof STOCK_WORD_COLUMNS)[number];

/** Whether the shop has the piece; what belongs to somebody else comes in with its agreement, not by a list. */
export const STOCK_STATES = ['here', 'gone', 'not-own'] as const;
const ITEM_STATES_OF_LIST = ['original', 'later', 'none', 'not-applicable'] as const;

export function stockMeaningsOf(column: StockWordColumn): readonly string[] {
  if (column === 'construction') return CONSTRUCTIONS;
  if (column === 'source_kind') return SOURCE_OF_PIECE;
  if (column === 'state') return STOCK_STATES;
  if (column === 'currency') return currencyMeanings();
  return ITEM_STATES_OF_LIST;
}

const CONSTRUCTION_WORDS: Vocabulary = [
  ['bayonet', /bayonet|bajonett|baionnette/],
  ['balisong', /balisong|butterfly|schmetterling|papillon|fjaril/],
  ['automatic', /\bauto\w*|switchblade|spring ?messer|springkniv|push ?button/],
  ['multi-tool', /multi ?(tool|werkzeug|fonction\w*|funktion\w*|verktyg|outil\w*)/],
  [
    'fixed',
    /\bfixed|sheath knife|feststehend|starr|lame fixe|\bfixe\b|fast(bladig| blad)|slidkniv|\bdagger|dolch|dague|dolk/,
  ],
  [
    'locking-folder',
    /(^|[^n] )lock|\w+lock\b|\block(ing|back)?\b|feststell|arretier|verrou\w*|cran d arret|einhand|lasbar|\blas\b/,
  ],
  [
    'slipjoint',
    /slip ?joint|non locking|pocket|\bpen ?knife|\bjack\b|folder|folding|federmesser|taschenmesser|klappmesser|canif|couteau de poche|pliant|fickkniv|fallkniv|penn?kniv/,
  ],
];
const SOURCE_WORDS: Vocabulary = [
  [
    'estate',
    /\b(estate|house clearance|nachlass\w*|erb(e|schaft)\w*|haushaltsauflosung|succession|heritage|dodsbo\w*|arv)\b/,
  ],
  ...VENUE_WORDS.map(
    ([meaning, words]) => [meaning === 'retail' ? 'specialist-dealer' : meaning, words] as const,
  ),
];
const STATE_WORDS: Vocabulary = [
  ['here', /\b(unsold|not sold|unverkauft|nicht verkauft|invendu\w*|non vendu\w*|osald\w*|ej sald\w*)\b/],
  ['not-own', /\b(consign\w*|kommission\w*|depot vente|en depot|commission|fremdware|not ours)\b/],
  [
    'gone',
    /\b(sold|gone|returned|given back|lost|stolen|swapped|verkauft|weg|zuruck\w*|verloren|gestohlen|getauscht|vendu\w*|rendu\w*|perdu\w*|vole\w*|sald\w*|aterlamn\w*|forlorad|stulen)\b/,
  ],
  [
    'here',
    /\b(in stock|stock|here|available|for sale|listed|reserved|on hand|unlisted|lager|auf lager|vorhanden|verfugbar|da|reserviert|en stock|disponible|a vendre|reserve|i lager|till salu|finns|yes|ja|oui)\b/,
  ],
];
/** A day in a column that says whether a piece is sold says when it was. */
const LOOKS_LIKE_A_DAY = /\d{1,4}[./-]\d{1,2}([./-]\d{1,4})?|^\d{4}$/;

function ownWord(column: StockWordColumn, word: string): string | undefined {
  if (column === 'currency') return ownCurrency(word);
  if (column === 'state' && LOOKS_LIKE_A_DAY.test(word.trim())) return 'gone';
  const own = word.trim().toLowerCase().replaceAll(' ', '-');
  return stockMeaningsOf(column).find((meaning) => meaning === own);
}
function guessWord(column: StockWordColumn, word: string): string | null {
  if (column === 'currency') return guessCurrency(word);
  if (column === 'construction') return meaningIn(CONSTRUCTION_WORDS, word);
  if (column === 'source_kind') return meaningIn(SOURCE_WORDS, word);
  if (column === 'state') return meaningIn(STATE_WORDS, word);
  return guessItemState(word);
}
const WORDS: ReadonlySet<string> = new Set(STOCK_WORD_COLUMNS);
export const STOCK_WORDS: WordBook<StockWordColumn> = {
  isWordColumn: (column): column is StockWordColumn => WORDS.has(column),
  wordsIn: (_, cell) => (cell.trim() === '' ? [] : [cell.trim()]),
  ownWord,
  guessWord,
};

/** Columns that hold amounts of money. */
export const STOCK_AMOUNTS = ['cost', 'ask', 'floor'] as const;
export type StockAmount = (typeof STOCK_AMOUNTS)[number];
