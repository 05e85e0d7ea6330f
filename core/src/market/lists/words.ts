/**
 * What the words of somebody's list mean: kind of price, venue, yes and no, what came with the piece, what was done to
 * it, its grade, its currency. A guess in the languages of the usual currencies, which a person looks over.
 */
import { isCurrency } from '../../money/index.ts';
import { ALTERATIONS, GRADE_WORDS, ITEM_STATES, PRICE_KINDS, VENUE_KINDS } from '../comparable.ts';
import { foldedText } from './fold.ts';

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

/** Means none of ours: the row stays out where the column is required, else the cell is not told. */
export const NO_MEANING = '';

/** What a mapping keeps: by column and word (`wordKey`) one of `meaningsOf`, or `NO_MEANING`. */
export type WordsMeant = Readonly<Partial<Record<WordColumn, Readonly<Record<string, string>>>>>;

/** A grade is kept with the scale it is of: `collector/very-good`. */
const GRADES = Object.entries(GRADE_WORDS).flatMap(([scale, words]) =>
  words.map((word) => `${scale}/${word}`),
);
const CURRENCIES = Intl.supportedValuesOf('currency');

export function meaningsOf(column: WordColumn): readonly string[] {
  if (column === 'price_kind') return PRICE_KINDS;
  if (column === 'venue_kind') return VENUE_KINDS;
  if (column === 'shipping_included') return ['yes', 'no'];
  if (column === 'alterations') return ALTERATIONS;
  if (column === 'grade') return GRADES;
  if (column === 'currency') return CURRENCIES;
  return ITEM_STATES;
}

/** How a mapping keeps a word: as written, but for case and spaces (`+` and `-` tell grades apart). */
export const wordKey = (said: string): string => said.trim().toLowerCase().replace(/\s+/g, ' ');

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
export function ownWord(column: WordColumn, word: string, scale: string | undefined): string | undefined {
  const own = word.trim().toLowerCase();
  if (column === 'currency')
    return OWN_SIGNS.get(own) ?? (isCurrency(own.toUpperCase()) ? own.toUpperCase() : undefined);
  if (column === 'grade')
    return (GRADE_WORDS[(scale ?? '').trim().toLowerCase() as keyof typeof GRADE_WORDS] ?? []).find(
      (grade) => grade === own,
    );
  return meaningsOf(column).find((one) => one === own);
}

/** Signs of one currency only. Crowns and dollars are several countries'. */
const OWN_SIGNS: ReadonlyMap<string, string> = new Map([
  ['€', 'EUR'],
  ['£', 'GBP'],
]);

type Vocabulary = readonly (readonly [meaning: string, words: RegExp])[];

const NO =
  /^(no|n|none|false|0|without|ohne|nein|kein\w*|non|sans|aucun\w*|nej|utan|ing(en|et|a)|faux|falsch|falskt)$/;
const YES =
  /^(yes|y|true|1|x|ja|j|oui|o|with|mit|avec|med|present|vorhanden|wahr|vrai|sant|finns|original\w*)$/;

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

/** Read from above: the first that fits is meant. */
const VOCABULARY: Readonly<Record<WordColumn, Vocabulary>> = {
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
  venue_kind: [
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
  ],
  currency: [
    ['EUR', /^(euros?|eur o)$/],
    ['GBP', /^(pounds?( sterling)?|sterling|pfund|livres?( sterling)?|pund)$/],
    ['SEK', /^(kr|kronor|krona|swedish (crowns?|kron\w+)|schwedische kronen|couronnes?( suedoises?)?)$/],
    ['USD', /^(us|dollars?|us dollars?|dollar us|dollars? americains?)$/],
  ],
  shipping_included: [
    ['no', NO],
    [
      'no',
      /\b(exc\w*|exkl\w*|plus|zzgl|zuzuglich|extra|en sus|non compris\w*|nicht (inkl|enthalten)\w*|tillkommer|ej ink\w*|not inc\w*)\b/,
    ],
    ['yes', YES],
    ['yes', /\b(inc\w*|ink\w*|enthalten|frei haus|compris\w*|franco|free|gratis|ingar|fritt)\b/],
  ],
  box: ITEM,
  papers: ITEM,
  sheath: ITEM,
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

const SIGNS: ReadonlyMap<string, string> = new Map([
  ['$', 'USD'],
  ['us$', 'USD'],
  ['kr.', 'SEK'],
]);
const ITEM_SIGNS: ReadonlyMap<string, string> = new Map([
  ['-', 'none'],
  ['–', 'none'],
  ['✓', 'original'],
  ['+', 'original'],
]);

/** More is a sentence, which no list of words understands. */
const LONGEST_WORD = 60;

/** What a word most likely means; null where nothing fits. */
export function guessWord(column: WordColumn, said: string): string | null {
  const key = wordKey(said);
  if (column === 'currency') {
    const sign = SIGNS.get(key);
    if (sign !== undefined) return sign;
  }
  if (column === 'box' || column === 'papers' || column === 'sheath') {
    const sign = ITEM_SIGNS.get(key);
    if (sign !== undefined) return sign;
  }
  if (said.length > LONGEST_WORD) return null;
  const text = foldedText(said);
  return VOCABULARY[column].find(([, words]) => words.test(text))?.[0] ?? null;
}

export interface WordSaid {
  readonly column: WordColumn;
  /** as written, the first time it comes up */
  readonly said: string;
  readonly rows: number;
  /** the key under which a mapping keeps what it means */
  readonly key: string;
  readonly guess: string | null;
}
