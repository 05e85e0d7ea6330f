/** Files of rows that others keep: how they are read, and what is told of their rows. */
import { DATE_ORDERS, type NameSaid } from '@jutbank/core/lists';
import { z } from 'zod';
import { slug } from '../http/index.ts';

export const nameSaidShape: z.ZodType<NameSaid> = z
  .object({
    column: z.enum(['maker', 'pattern', 'variant']),
    /** as written, the first time it comes up */
    said: z.string(),
    /** for a variant: the pattern it is said of */
    pattern: z.string().nullable(),
    rows: z.number(),
    /** the key under which a mapping keeps what it means */
    key: z.string(),
    /** what it most likely means; null where nothing fits, or more than one thing */
    guess: z.string().nullable(),
  })
  .meta({ id: 'NameSaid' });

const meant = (longest: number) => z.record(z.string().max(longest), z.union([slug, z.literal('')]));

/**
 * How a file is read, corrected by whoever knows it.
 * @param columns ours, which a column of the file may say
 * @param wordColumns those of ours whose cells are words with a meaning
 */
export const listMapping = <const C extends readonly string[], const W extends readonly string[]>(
  columns: C,
  wordColumns: W,
) =>
  z.object({
    columns: z.record(z.string().max(120), z.enum(columns)),
    dateOrder: z.enum(DATE_ORDERS),
    decimalComma: z.boolean(),
    /** no column says the currency: it is the sign beside the price */
    currencyInPrice: z.boolean().default(false),
    fixed: z.partialRecord(z.enum(columns), z.string().max(200)),
    /** what their names mean: ids by folded name, '' for none of ours */
    names: z
      .object({ maker: meant(400).default({}), pattern: meant(400), variant: meant(500) })
      .default({ maker: {}, pattern: {}, variant: {} }),
    /** what their words mean: by column one of ours by the word in small letters, '' for none of ours */
    words: z
      .partialRecord(z.enum(wordColumns), z.record(z.string().max(400), z.string().max(60)))
      .default({}),
  });

/** What a file looks to say, before anything is done with it. */
export const listLook = <M extends ReturnType<typeof listMapping>, W extends z.ZodType>(
  mapping: M,
  word: W,
) =>
  z.object({
    encoding: z.string(),
    separator: z.string(),
    header: z.array(z.string()),
    /** first rows, cell by cell */
    sample: z.array(z.array(z.string())),
    rows: z.number(),
    mapping,
    /** the mapping is the one with which such a file went in before */
    remembered: z.boolean(),
    /** names that are not of the reference as they stand, the most frequent first */
    names: z.array(nameSaidShape),
    /** words with a meaning that are none of ours as they stand, the most frequent first */
    words: z.array(word),
    /** how dates, decimals and currencies look to be written, by the columns as they are named now */
    notation: z.object({
      dateOrder: z.enum(DATE_ORDERS),
      decimalComma: z.boolean(),
      currencyInPrice: z.boolean().default(false),
    }),
  });

/** What is wrong or odd in a row, at its line and column. */
export const rowError = z
  .object({
    line: z.number(),
    column: z.string().nullable(),
    columnNumber: z.number().nullable(),
    value: z.string(),
    message: z.string(),
  })
  .meta({ id: 'RowError' });
export type RowError = z.infer<typeof rowError>;
