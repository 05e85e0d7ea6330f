/** What a piece would bring, and where a person corrected a line of it. */
import { z } from 'zod';
import type { Money } from '@jutbank/core/money';
import { ulid } from '../http/index.ts';
import type { EstimateAnswer } from '../market/index.ts';

export const overrideBody = z.object({
  comparable: ulid,
  /** a line of the grid by its name, or one of the shop's own */
  line: z.string().trim().min(1, 'which line?').max(40),
  /** null: the sale does not belong here at all */
  percent: z.number().gt(-100, 'a price stays above 0').max(1000).nullable(),
  reason: z.string().trim().min(3, 'say why; the reason is kept').max(500),
});
export type OverrideBody = z.infer<typeof overrideBody>;
export interface OverrideRecord extends OverrideBody {
  id: string;
  person: string;
  at: string;
  endedAt: string | null;
}
export interface WorthOfPiece {
  worth: EstimateAnswer | null;
  pattern: string | null;
  why: string | null;
  overrides: OverrideRecord[];
  /** the grid's figure with the corrections in force; null where there is none */
  corrected: Money | null;
}
