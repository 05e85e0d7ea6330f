/** The engine's answers as they are sent. */
import type { Allocation } from '@jutbank/core/intake';
import { z } from 'zod';

export const allocationShape: z.ZodType<Allocation> = z
  .object({
    currency: z.string(),
    total: z.string(),
    shares: z.array(z.string()),
  })
  .meta({ id: 'Allocation' });
