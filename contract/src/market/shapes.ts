/** The engine's answers as they are sent. */
import type { WordSaid } from '@jutbank/core/lists';
import { WORD_COLUMNS, type Trend, type WordColumn } from '@jutbank/core/market';
import { z } from 'zod';

export const wordSaidShape: z.ZodType<WordSaid<WordColumn>> = z
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
