/** The outside source of exchange rates. */
import { z } from 'zod';
import type { ExchangeRate } from '@jutbank/core/money';
import { caller, Unanswered } from './caller.ts';

/** The outside source as the shop sees it; the real one would stand behind the same interface. */
export interface RateSource {
  /** Rates for one of the base, day by day, both ends included; days without a rate are left out. */
  between(base: string, from: string, to: string): Promise<{ source: string; rates: ExchangeRate[] }>;
}

export const day = z.iso.date();
const answered = z.object({
  source: z.string().min(1).max(120),
  base: z.string(),
  rates: z.array(
    z.object({
      date: day,
      currency: z.string().regex(/^[A-Z]{3}$/),
      rate: z.string().regex(/^\d{1,12}(\.\d{1,12})?$/),
    }),
  ),
});

const NAME = 'The source of rates';

export function httpRates(url: string): RateSource {
  const call = caller(NAME, url);
  return {
    async between(base, from, to) {
      const query = new URLSearchParams({ base, from, to });
      const told = answered.safeParse(await call(`/rates?${query.toString()}`));
      if (!told.success || told.data.base !== base)
        throw new Unanswered(NAME, false, 'answered what nobody understands');
      return told.data;
    },
  };
}
