/** Words of somebody's list that have a meaning of ours: found, counted, guessed, and put right by a person. */
import { isCurrency } from '../money/index.ts';
import { foldedText } from './fold.ts';

/** Means none of ours: the row stays out where the column is required, else the cell is not told. */
export const NO_MEANING = '';

/** What a mapping keeps: by column and word (`wordKey`) one of the column's meanings, or `NO_MEANING`. */
export type WordsMeant = Readonly<Record<string, Readonly<Record<string, string>>>>;

export interface WordSaid<C extends string = string> {
  readonly column: C;
  /** as written, the first time it comes up */
  readonly said: string;
  readonly rows: number;
  /** the key under which a mapping keeps what it means */
  readonly key: string;
  readonly guess: string | null;
}

/** How a mapping keeps a word: as written, but for case and spaces (`+` and `-` tell grades apart). */
export const wordKey = (said: string): string => said.trim().toLowerCase().replace(/\s+/g, ' ');

/** Meanings by the words that say them, folded; read from above: the first that fits is meant. */
export type Vocabulary = readonly (readonly [meaning: string, words: RegExp])[];

/** More is a sentence, which no list of words understands. */
const LONGEST_WORD = 60;

/** What a word most likely means; null where nothing fits. */
export function meaningIn(vocabulary: Vocabulary, said: string): string | null {
  if (said.length > LONGEST_WORD) return null;
  const text = foldedText(said);
  return vocabulary.find(([, words]) => words.test(text))?.[0] ?? null;
}

/** How the words of one kind of list are read. */
export interface WordBook<C extends string> {
  readonly isWordColumn: (column: string) => column is C;
  /** the words of one cell */
  readonly wordsIn: (column: C, cell: string) => string[];
  /** a word that needs no meaning, for it is one of ours; on the scale that its row names, where it is of one */
  readonly ownWord: (column: C, word: string, scale?: string) => string | undefined;
  readonly guessWord: (column: C, word: string) => string | null;
}

/**
 * Words in columns of words that are none of ours, those in most rows first.
 * @param wordsOf the words of a row by their columns, with the scale they are on
 */
export function countWords<C extends string, R>(
  book: WordBook<C>,
  rows: readonly R[],
  wordsOf: (row: R) => readonly { readonly column: C; readonly said: string; readonly scale?: string }[],
): WordSaid<C>[] {
  const found = new Map<string, { -readonly [K in keyof WordSaid<C>]: WordSaid<C>[K] }>();
  for (const row of rows)
    for (const { column, said, scale } of wordsOf(row)) {
      if (book.ownWord(column, said, scale) !== undefined) continue;
      const key = wordKey(said);
      const before = found.get(`${column} ${key}`);
      if (before) before.rows++;
      else found.set(`${column} ${key}`, { column, said, rows: 1, key, guess: book.guessWord(column, said) });
    }
  return [...found.values()].sort((a, b) => b.rows - a.rows);
}

export const NO =
  /^(no|n|none|false|0|without|ohne|nein|kein\w*|non|sans|aucun\w*|nej|utan|ing(en|et|a)|faux|falsch|falskt)$/;
export const YES =
  /^(yes|y|true|1|x|ja|j|oui|o|with|mit|avec|med|present|vorhanden|wahr|vrai|sant|finns|original\w*)$/;

/** States of what comes with a piece. */
const ITEM: Vocabulary = [
  ['not-applicable', /\b(n a|not applicable|entfallt|sans objet|ej (aktuell|tillamplig)\w*)\b/],
  ['none', NO],
  ['none', /\b(without|missing|lacking|ohne|fehlt|fehlend|sans|manqu\w*|utan|saknas)\b/],
  [
    'later',
    /\b(later|replace\w*|repro\w*|copy|ersatz\w*|nachbau|spater\w*|kopie|remplac\w*|posterieur\w*|copie|ersatt\w*|senare|kopia)\b/,
  ],
  [
    'original',
    /\b(orig\w*|d origine|complete|complet|ovp|komplett|contemporary|zeitgenossisch\w*|d epoque|matching)\b/,
  ],
  ['original', YES],
  ['original', /^(with|mit|avec|med)\b/],
];
const ITEM_SIGNS: ReadonlyMap<string, string> = new Map([
  ['-', 'none'],
  ['–', 'none'],
  ['✓', 'original'],
  ['+', 'original'],
]);
/** What a word says of an item that comes with a piece: original, later, none, not-applicable. */
export const guessItemState = (said: string): string | null =>
  ITEM_SIGNS.get(wordKey(said)) ?? meaningIn(ITEM, said);

/** Where knives change hands: online, auction, fair, retail, private. */
export const VENUE_WORDS: Vocabulary = [
  [
    'online',
    /\b(online\w*|on line|internet\w*|web\w*|forum|platform|plattform\w*|kleinanzeig\w*|en ligne|site|natet|nat(auktion|handel)\w*|portal\w*|app|classifieds?|annonces?)\b/,
  ],
  [
    'auction',
    /\b(auction\w*|salerooms?|auktion\w*|versteiger\w*|encheres?|vente aux encheres|hotel des ventes|hammer)\b/,
  ],
  [
    'fair',
    /\b(fairs?|show|market|messe\w*|borse\w*|sammlerborse|\w*markt|foires?|salon|bourse|brocante|massa\w*|\w*massa|marknad\w*|loppis)\b/,
  ],
  [
    'retail',
    /\b(retail\w*|dealers?|shop\w*|store|trade|handler\w*|\w*handler|laden\w*|geschaft\w*|\w*geschaft|\w*handel|marchand\w*|magasin|boutique|negociant|antiquaire|handlare|\w*handlare|butik\w*|affar\w*)\b/,
  ],
  [
    'private',
    /\b(privat\w*|private|collector\w*|estate|sammler\w*|particulier\w*|collectionneur\w*|samlare)\b/,
  ],
];

const CURRENCIES = Intl.supportedValuesOf('currency');
/** Every currency there is, by its code. */
export const currencyMeanings = (): readonly string[] => CURRENCIES;
/** Signs of one currency only. Crowns and dollars are several countries'. */
const OWN_SIGNS: ReadonlyMap<string, string> = new Map([
  ['€', 'EUR'],
  ['£', 'GBP'],
]);
const SIGNS: ReadonlyMap<string, string> = new Map([
  ['$', 'USD'],
  ['us$', 'USD'],
  ['kr.', 'SEK'],
]);
const CURRENCY_WORDS: Vocabulary = [
  ['EUR', /^(euros?|eur o)$/],
  ['GBP', /^(pounds?( sterling)?|sterling|pfund|livres?( sterling)?|pund)$/],
  ['SEK', /^(kr|kronor|krona|swedish (crowns?|kron\w+)|schwedische kronen|couronnes?( suedoises?)?)$/],
  ['USD', /^(us|dollars?|us dollars?|dollar us|dollars? americains?)$/],
];
/** A code, or a sign that only one currency has. */
export function ownCurrency(word: string): string | undefined {
  const own = word.trim().toLowerCase();
  return OWN_SIGNS.get(own) ?? (isCurrency(own.toUpperCase()) ? own.toUpperCase() : undefined);
}
export const guessCurrency = (said: string): string | null =>
  SIGNS.get(wordKey(said)) ?? meaningIn(CURRENCY_WORDS, said);
