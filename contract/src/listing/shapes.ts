/** The engine's answers as they are sent. */
import type { WordingProblem } from '@jutbank/core/listing';
import { z } from 'zod';

export const wordingProblemShape: z.ZodType<WordingProblem> = z
  .object({
    kind: z.enum(['disclosure-dropped', 'claim-too-strong', 'refuted-story']),
    detail: z.string(),
  })
  .meta({ id: 'WordingProblem' });
