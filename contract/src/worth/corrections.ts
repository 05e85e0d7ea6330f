/** What a piece would bring, and where a person corrected a line of it. */
import { estimateAnswer } from '../market/index.ts';
import { moneyShape, ulid } from '../http/index.ts';
import { z } from 'zod';

export const overrideBody = z.object({
  comparable: ulid,
  /** a line of the grid by its name, or one of the shop's own */
  line: z.string().trim().min(1, 'which line?').max(40),
  /** null: the sale does not belong here at all */
  percent: z.number().gt(-100, 'a price stays above 0').max(1000).nullable(),
  reason: z.string().trim().min(3, 'say why; the reason is kept').max(500),
});
export type OverrideBody = z.infer<typeof overrideBody>;
export const overrideRecord = overrideBody
  .extend({
    id: z.string(),
    person: z.string(),
    at: z.string(),
    endedAt: z.string().nullable(),
  })
  .meta({ id: 'OverrideRecord' });
export type OverrideRecord = z.infer<typeof overrideRecord>;
export const worthOfPiece = z
  .object({
    worth: estimateAnswer.nullable(),
    pattern: z.string().nullable(),
    why: z.string().nullable(),
    overrides: z.array(overrideRecord),
    /** the grid's figure with the corrections in force; null where there is none */
    corrected: moneyShape.nullable(),
  })
  .meta({ id: 'WorthOfPiece' });
export type WorthOfPiece = z.infer<typeof worthOfPiece>;
