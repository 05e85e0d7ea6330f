/**
 * What the words of somebody's list mean: kind of price, venue, yes and no, what came with the piece, what was done to
 * it, its grade, its currency. A guess in the languages of the usual currencies, which a person looks over.
 */
import {
  currencyMeanings,
  guessCurrency,
  guessItemState,
  meaningIn,
  NO,
  NO_MEANING,
  ownCurrency,
  VENUE_WORDS,
  YES,
  type Vocabulary,
  type WordBook,
} from '../../lists/index.ts';
import { ALTERATIONS, GRADE_WORDS, ITEM_STATES, PRICE_KINDS, VENUE_KINDS } from '../comparable.ts';

/** Columns whose cells are words with a meaning. */
export const WORD_COLUMNS = [
  'price_kind',
  'venue_kind',
  'currency',
  'shipping_included',
  'box',
  'papers',
  'sheath',
  'alterations',
  'grade',
] as const;
export type WordColumn = (typeof WORD_COLUMNS)[number];
const WORDS: ReadonlySet<string> = new Set(WORD_COLUMNS);
export const isWordColumn = (column: string): column is WordColumn => WORDS.has(column);

/** A grade is kept with the scale it is of: `collector/very-good`. */
const GRADES = Object.entries(GRADE_WORDS).flatMap(([scale, words]) =>
  words.map((word) => `${scale}/${word}`),
);

export function meaningsOf(column: WordColumn): readonly string[] {
  if (column === 'price_kind') return PRICE_KINDS;
  if (column === 'venue_kind') return VENUE_KINDS;
  if (column === 'shipping_included') return ['yes', 'no'];
  if (column === 'alterations') return ALTERATIONS;
  if (column === 'grade') return GRADES;
  if (column === 'currency') return currencyMeanings();
  return ITEM_STATES;
}

/** The words of one cell: several things may have been done to a piece, everything else is told by one. */
export const wordsIn = (column: WordColumn, cell: string): string[] =>
  column === 'alterations'
    ? cell
        .split(/[|,;/+&]/)
        .map((word) => word.trim())
        .filter(Boolean)
    : cell.trim() === ''
      ? []
      : [cell.trim()];

/** A word that needs no meaning, for it is one of ours. A grade's is on the scale that the row names. */
export function ownWord(column: WordColumn, word: string, scale?: string): string | undefined {
  const own = word.trim().toLowerCase();
  if (column === 'currency') return ownCurrency(word);
  if (column === 'grade')
    return (GRADE_WORDS[(scale ?? '').trim().toLowerCase() as keyof typeof GRADE_WORDS] ?? []).find(
      (grade) => grade === own,
    );
  return meaningsOf(column).find((one) => one === own);
}

/** Columns whose words are only read here; those of items and currencies are those of every list. */
type OwnWords = Exclude<WordColumn, 'currency' | 'box' | 'papers' | 'sheath'>;

/** Read from above: the first that fits is meant. */
const VOCABULARY: Readonly<Record<OwnWords, Vocabulary>> = {
  price_kind: [
    [
      NO_MEANING,
      /\b(unsold|not sold|passed|withdrawn|bought in|unverkauft|nicht verkauft|ruckgang|zuruckgezogen|invendu\w*|non vendu\w*|retire\w*|osald\w*|ej sald\w*|aterrop\w*|estimat\w*|schatz\w*|vardering\w*|starting|startpreis|aufruf\w*|mise a prix)\b/,
    ],
    [
      'asking',
      /\b(ask\w*|for sale|list(ed)?( price)?|available|angebot\w*|angebots\w*|preisvorstellung|festpreis|vb|vhb|zu verkaufen|verfugbar|a vendre|demande\w*|en vente|prix (affiche|demande)|disponible|till salu|utrop\w*|begar\w*|annons\w*)\b/,
    ],
    ['offer', /\b(offer\w*|bids?|bidding|gebot\w*|kaufgebot|offres?|enchere\w*|bud|offert\w*)\b/],
    [
      'sold',
      /\b(sold|sale|hammer( price)?|reali[sz]ed|paid|verkauft|verkauf|zuschlag\w*|zugeschlagen|erlos\w*|bezahlt|vendu\w*|vente|adjug\w*|adjudication|realise\w*|paye|sald\w*|slutpris|klubb\w*|avslut\w*|betalt)\b/,
    ],
  ],
  venue_kind: VENUE_WORDS,
  shipping_included: [
    ['no', NO],
    [
      'no',
      /\b(exc\w*|exkl\w*|plus|zzgl|zuzuglich|extra|en sus|non compris\w*|nicht (inkl|enthalten)\w*|tillkommer|ej ink\w*|not inc\w*)\b/,
    ],
    ['yes', YES],
    ['yes', /\b(inc\w*|ink\w*|enthalten|frei haus|compris\w*|franco|free|gratis|ingar|fritt)\b/],
  ],
  alterations: [
    [NO_MEANING, NO],
    [
      'reground',
      /\b(reground|re ground|nachgeschliffen\w*|umgeschliffen\w*|umschliff|reaffut\w*|omslip\w*)\b/,
    ],
    ['polished', /\b(polish\w*|poliert\w*|aufpoliert\w*|poli|polie|polissage|poler\w*)\b/],
    [
      'refinished',
      /\b(refinish\w*|reblu\w*|neu (bruniert|beschichtet)\w*|nachbruniert\w*|uberarbeitet\w*|refini\w*|rebronz\w*|ombehandl\w*|ombrun\w*|restaur\w*)\b/,
    ],
    ['replaced', /\b(replac\w*|ersetzt\w*|ausgetauscht\w*|erneuert\w*|remplac\w*|utbytt\w*|bytt\w*)\b/],
    [
      'repaired',
      /\b(repair\w*|mended|repariert\w*|reparatur\w*|repare\w*|reparation\w*|lagad\w*|reparerad\w*)\b/,
    ],
    ['named', /\b(named|name|initials|namen\w*|monogramm\w*|initialen|nom|initiales|namn\w*|initialer)\b/],
    ['engraved', /\b(engrav\w*|gravier\w*|gravur\w*|grave\w*|gravure\w*|graver\w*)\b/],
  ],
  grade: [
    [
      'collector/near-mint',
      /\b(near mint|nm|as new|like new|neuwertig\w*|wie neu|fast neu|comme neuf|quasi neuf|etat neuf|(nastan|som) ny(tt)?)\b/,
    ],
    [
      'collector/mint',
      /\b(mint|unused|stempelglanz|fabrikneu|ungebraucht|neu|neuf|neuve|nyskick|ny|oanvan\w*)\b/,
    ],
    ['collector/mint', /^(m|new)$/],
    [
      'collector/very-good',
      /\b(very good|vg|sehr gut\w*|tres (bon|bonne|bel|beau)\w*|mycket (bra|gott|god)\w*)\b/,
    ],
    [
      'collector/excellent',
      /\b(exc\w*|ausgezeichnet\w*|hervorragend\w*|vorzuglich\w*|superbe?|utmarkt\w*|perfekt\w*|parfait\w*)\b/,
    ],
    ['collector/excellent', /^(ex|e)$/],
    [
      'collector/poor',
      /\b(poor|relic|schlecht\w*|mangelhaft\w*|defekt\w*|ungenugend|mauvais\w*|mediocre|epave|dalig\w*|defekt|project)\b/,
    ],
    ['collector/poor', /^p$/],
    [
      'collector/fair',
      /\b(fair|average|worn|befriedigend\w*|ausreichend\w*|massig\w*|gebraucht\w*|moyen\w*|correct\w*|passable|use|usage|hygglig\w*|slit\w*|godtagbar\w*|normalskick)\b/,
    ],
    ['collector/fair', /^f$/],
    ['collector/good', /\b(good|gut\w*|bon|bonne|bel|bra|god|gott)\b/],
    ['collector/good', /^g$/],
  ],
};

/** What a word most likely means; null where nothing fits. */
export function guessWord(column: WordColumn, said: string): string | null {
  if (column === 'currency') return guessCurrency(said);
  if (column === 'box' || column === 'papers' || column === 'sheath') return guessItemState(said);
  return meaningIn(VOCABULARY[column], said);
}

/** How the words of lists of prices are read. */
export const PRICE_WORDS: WordBook<WordColumn> = { isWordColumn, wordsIn, ownWord, guessWord };
