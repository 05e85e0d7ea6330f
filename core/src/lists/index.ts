export { DATE_ORDERS, type DateOrder, dateIn, indexIn, numberIn, unitBeside } from './cells.ts';
export { type Cells, cellsReadAs, guessColumns, type KnownBy } from './columns.ts';
export { foldedText } from './fold.ts';
export { type ListMapping, type Notation, notationOf, takeGuesses, WORDS_AGREE } from './mapping.ts';
export { nameKey, type NameSaid, type NamesKnown, type NamesMeant, namesSaid } from './naming.ts';
export {
  countWords,
  currencyMeanings,
  guessCurrency,
  guessItemState,
  meaningIn,
  NO,
  NO_MEANING,
  ownCurrency,
  VENUE_WORDS,
  type Vocabulary,
  type WordBook,
  wordKey,
  type WordSaid,
  type WordsMeant,
  YES,
} from './words.ts';
