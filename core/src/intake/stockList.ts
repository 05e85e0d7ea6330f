/** A shop's stock as its own spreadsheet keeps it: which column says what, how amounts and dates are written. */
import {
  type Cells,
  cellsReadAs,
  countWords,
  guessColumns,
  guessCurrency,
  type KnownBy,
  type ListMapping,
  type Notation,
  notationOf,
  ownCurrency,
  unitBeside,
  WORDS_AGREE,
  type WordSaid,
} from '../lists/index.ts';
import { STOCK_AMOUNTS, STOCK_WORDS, type StockColumn, type StockWordColumn } from './stockWords.ts';

const KNOWN_BY: KnownBy<StockColumn> = [
  [
    'stock_number',
    /(stock|inv|inventory|item|our|shop|inventar|lager|artikel|inventarie|lagernummer|article)\s?(no|nr|number|num|id|code)\b|^(no|nr|number|id|sku|ref|reference|code|artnr|nummer|numero|item|artikel|kennnummer)$|(inventar|lager|artikel|inventarie)(nr|nummer)|numero d (inventaire|article)/,
  ],
  [
    'state',
    /^(state|status|sold|gone|in stock|available|verkauft|vorhanden|etat du stock|statut|vendu|disponible|sald|lagerstatus|sold on|verkauft am|vendu le|sald den)$/,
  ],
  ['floor', /floor|minimum|\bmin\b|least|lowest|untergrenze|mindest|plancher|\bmini\b|lagsta|golv/],
  [
    'cost',
    /cost|paid|purchase price|buying price|bought for|buy price|\bek\b|einkauf|einstand|kaufpreis|ankaufs?preis|bezahlt|prix d achat|cout|paye|inkop\w*pris|inpris|kostnad|betalt/,
  ],
  [
    'ask',
    /\bask|list price|sales? price|retail price|selling|price tag|^price$|\bvk\b|verkaufspreis|angebotspreis|preis$|prix de vente|prix affiche|prix demande|^prix|utpris|forsaljningspris|utrop|begart|^pris$/,
  ],
  [
    'acquired',
    /acquired|bought on|^bought$|purchase date|date|gekauft|kaufdatum|einkaufsdatum|datum|achete|date d achat|kopt|inkopsdatum|inkopt/,
  ],
  [
    'source_kind',
    /(kind|type|sort) of (source|seller)|(source|seller) (kind|type)|bezugsart|herkunftsart|type de (source|vendeur)|typ av kalla|channel|kanal/,
  ],
  [
    'place',
    /location|shelf|drawer|cabinet|storage|kept|where is|lagerort|fach|schublade|regal|standort|emplacement|tiroir|etagere|rangement|hylla|lada|forvaring|lagerplats|^place$|^plats$/,
  ],
  [
    'source_place',
    /(place|town|city) (of purchase|bought)|where bought|bought (at|in)|kaufort|^ort$|lieu d achat|^lieu$|^ville$|inkopsort|^town$|^city$/,
  ],
  [
    'source_name',
    /source|bought from|from whom|^from$|supplier|seller|vendor|lieferant|verkaufer|von wem|gekauft bei|herkunft|fournisseur|vendeur|achete a|leverantor|saljare|kopt av/,
  ],
  ['seller_statement', /seller said|statement|as told|story|angabe|aussage|dires|uppgift/],
  ['came_with', /came with|with it|accessor|zubehor|beigaben|accessoires|tillbehor|medfoljer/],
  ['box', /\bbox\b|karton|schachtel|\bovp\b|boite|ecrin|\bask\b|kartong/],
  ['papers', /paper|certificat|papier|zertifikat|papper|intyg/],
  ['sheath', /sheath|scabbard|scheide|fourreau|\betui|gaine|slida|balja/],
  ['maker', /maker|manufacturer|brand|hersteller|marke|fabricant|marque|fabrikant|tillverkare|marke/],
  ['pattern', /pattern|model|muster|modell|modele/],
  ['variant', /variant|version|ausfuhrung|utforande|^form$/],
  [
    'construction',
    /construction|\btype\b|\btyp\b|\bart\b|kind|bauart|category|kategorie|categorie|kategori|konstruktion/,
  ],
  ['currency', /curr|^cur$|ccy|wahrung|devise|monnaie|valuta/],
  ['quantity', /qty|quantity|how many|count|anzahl|stuck|menge|quantite|nombre|antal/],
  ['pictures', /picture|photo|image|bild|foto/],
  [
    'title',
    /title|name|description|item|bezeichnung|beschreibung|titel|artikel|designation|libelle|titre|objet|benamning|beskrivning|knife|messer|couteau|kniv|what/,
  ],
  ['note', /note|remark|comment|bemerkung|anmerkung|remarque|anmarkning|notiz|kommentar/],
];

const LONGEST_NUMBER = 24;
const AMOUNT = /^[^\d]{0,6}\d[\d .,':’]*[^\d]{0,8}$/u;

/** Do cells look like what their column's name promises? Columns of free text always do. */
function agrees(column: StockColumn, cells: readonly string[]): boolean {
  if (cells.length === 0) return true;
  const share = (fits: (cell: string) => boolean) => cells.filter(fits).length / cells.length;
  switch (column) {
    case 'stock_number':
      return (
        share((cell) => /\d/.test(cell) && cell.length <= LONGEST_NUMBER) >= WORDS_AGREE &&
        new Set(cells).size / cells.length >= WORDS_AGREE
      );
    case 'cost':
    case 'ask':
    case 'floor':
      return share((cell) => AMOUNT.test(cell)) >= WORDS_AGREE;
    case 'acquired':
      return share((cell) => /\d/.test(cell)) >= WORDS_AGREE;
    case 'quantity':
      return share((cell) => /^\d{1,3}$/.test(cell)) >= WORDS_AGREE;
    case 'construction':
    case 'source_kind':
    case 'state':
    case 'currency':
    case 'box':
    case 'papers':
    case 'sheath':
      return (
        share(
          (cell) =>
            STOCK_WORDS.ownWord(column, cell) !== undefined || STOCK_WORDS.guessWord(column, cell) !== null,
        ) >= WORDS_AGREE
      );
    case 'title':
    case 'maker':
    case 'pattern':
    case 'variant':
    case 'source_name':
    case 'source_place':
    case 'place':
    case 'seller_statement':
    case 'came_with':
    case 'pictures':
    case 'note':
      return true;
  }
}

/** @param rows the first of the file, in the order of the header */
export function guessStockMapping(header: readonly string[], rows: Cells['rows']): ListMapping {
  const columns = guessColumns({ header, rows }, KNOWN_BY, agrees);
  return { columns, ...stockNotation({ header, rows, columns }), fixed: {} };
}

/** How dates, decimals and currencies are written, by the columns that a mapping says they stand in. */
export const stockNotation = (file: Cells & Pick<ListMapping, 'columns'>): Notation => ({
  ...notationOf(file, { dates: ['acquired'], prices: STOCK_AMOUNTS }),
  // a currency beside one of the amounts is enough: each is read with its own
  currencyInPrice:
    !Object.values(file.columns).includes('currency') &&
    STOCK_AMOUNTS.some((column) =>
      cellsReadAs(file, column).some((cell) => currencyBeside(cell) !== undefined),
    ),
});

function currencyBeside(cell: string): string | undefined {
  const unit = unitBeside(cell);
  return unit === '' ? undefined : (ownCurrency(unit) ?? guessCurrency(unit) ?? undefined);
}

/**
 * Words in columns of words that are none of ours, those in most rows first.
 * @param rows cells by their own column's name
 */
export function stockWordsSaid(
  mapping: ListMapping,
  rows: readonly Readonly<Record<string, string>>[],
): WordSaid<StockWordColumn>[] {
  const columns = Object.entries(mapping.columns);
  return countWords(STOCK_WORDS, rows, (row) =>
    columns.flatMap(([name, column]): { column: StockWordColumn; said: string }[] => {
      const cell = row[name] ?? '';
      if (STOCK_WORDS.isWordColumn(column))
        return STOCK_WORDS.wordsIn(column, cell).map((said) => ({ column, said }));
      const unit =
        mapping.currencyInPrice && STOCK_AMOUNTS.some((amount) => amount === column) ? unitBeside(cell) : '';
      return unit === '' ? [] : [{ column: 'currency', said: unit }];
    }),
  );
}
