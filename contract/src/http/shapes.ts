/** The engine's answers as they are sent. */
import { TAX_BASES, type SaleTax } from '@jutbank/core/money';
import { z } from 'zod';

export const saleTaxShape: z.ZodType<SaleTax> = z
  .object({
    on: z.enum(TAX_BASES),
    /** percent of the price (or margin) without tax */
    pct: z.number(),
  })
  .meta({ id: 'SaleTax' });
