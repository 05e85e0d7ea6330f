/** The engine's answers as they are sent. */
import { WORD_COLUMNS, type NameSaid, type WordSaid, type Trend } from '@jutbank/core/market';
import { z } from 'zod';

export const nameSaidShape: z.ZodType<NameSaid> = z
  .object({
    column: z.enum(['pattern', 'variant']),
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

export const wordSaidShape: z.ZodType<WordSaid> = z
  .object({
    column: z.enum(WORD_COLUMNS),
    /** as written, the first time it comes up */
    said: z.string(),
    rows: z.number(),
    /** the key under which a mapping keeps what it means */
    key: z.string(),
    guess: z.string().nullable(),
  })
  .meta({ id: 'WordSaid' });

export const trendShape: z.ZodType<Trend> = z
  .object({
    of: z.enum(['market', 'maker', 'pattern']),
    /** null for the market as a whole */
    id: z.string().nullable(),
    /** percent a year, with the ends of its 80 % range */
    percent: z.number(),
    low: z.number(),
    high: z.number(),
    /** sold prices of the last year and of the one before */
    sales: z.tuple([z.number(), z.number()]),
  })
  .meta({ id: 'Trend' });
