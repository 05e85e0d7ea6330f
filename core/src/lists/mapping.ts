/**
 * How a file that others keep is read: which of their columns says what, how they write dates and decimals, what their
 * names and words mean. A guess, which a person corrects.
 */
import { commaIsDecimal, orderOf, unitBeside, type DateOrder } from './cells.ts';
import { cellsReadAs, type Cells } from './columns.ts';
import type { NameSaid, NamesMeant } from './naming.ts';
import { guessCurrency, ownCurrency, type WordSaid, type WordsMeant } from './words.ts';

export interface ListMapping {
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
export type Notation = Required<Pick<ListMapping, 'dateOrder' | 'decimalComma' | 'currencyInPrice'>>;

/** So many of a column's words must have a meaning for its name to be believed. */
export const WORDS_AGREE = 0.5;

/**
 * How dates, decimals and currencies are written, by the columns that a mapping says they stand in.
 * @param where our columns that hold dates, and those that hold prices
 */
export function notationOf(
  file: Cells & Pick<ListMapping, 'columns'>,
  where: { readonly dates: readonly string[]; readonly prices: readonly string[] },
): Notation {
  const of = (columns: readonly string[]) => columns.flatMap((column) => cellsReadAs(file, column));
  const prices = of(where.prices);
  const beside = prices.filter((cell) => {
    const unit = unitBeside(cell);
    return unit !== '' && (ownCurrency(unit) ?? guessCurrency(unit)) !== null;
  });
  return {
    dateOrder: orderOf(of(where.dates)),
    decimalComma: commaIsDecimal(prices),
    currencyInPrice:
      prices.length > 0 &&
      !Object.values(file.columns).includes('currency') &&
      beside.length / prices.length >= WORDS_AGREE,
  };
}

/** What is guessed of names and words is taken for a beginning; what a person said before stays. */
export function takeGuesses<M extends ListMapping>(
  mapping: M,
  { names, words }: { readonly names: readonly NameSaid[]; readonly words: readonly WordSaid[] },
): M & { readonly names: Required<NamesMeant>; readonly words: WordsMeant } {
  const meant = {
    maker: new Map(Object.entries(mapping.names?.maker ?? {})),
    pattern: new Map(Object.entries(mapping.names?.pattern ?? {})),
    variant: new Map(Object.entries(mapping.names?.variant ?? {})),
  };
  for (const { column, key, guess } of names)
    // a form nobody knows is taken as not told; a pattern nobody knows stays open until a person says
    if (!meant[column].has(key) && (guess !== null || column === 'variant'))
      meant[column].set(key, guess ?? '');
  const said = new Map(
    Object.entries(mapping.words ?? {}).map(([column, own]) => [column, new Map(Object.entries(own))]),
  );
  for (const { column, key, guess } of words) {
    const own = said.get(column) ?? new Map<string, string>();
    said.set(column, own);
    if (!own.has(key) && guess !== null) own.set(key, guess);
  }
  return {
    ...mapping,
    names: {
      maker: Object.fromEntries(meant.maker),
      pattern: Object.fromEntries(meant.pattern),
      variant: Object.fromEntries(meant.variant),
    },
    words: Object.fromEntries([...said].map(([column, own]) => [column, Object.fromEntries(own)])),
  };
}
