import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { ratesBetween, startRates } from './index.ts';

describe('simulated exchange rates', () => {
  let source: Awaited<ReturnType<typeof startRates>>;
  beforeAll(async () => {
    source = await startRates();
  });
  afterAll(() => source.close());

  test('the same day has the same rate, whatever is asked around it', () => {
    const of = (from: string, to: string) =>
      ratesBetween('EUR', from, to).filter((r) => r.date === '2026-11-25' && r.currency === 'SEK');
    expect(of('2026-11-25', '2026-11-25')).toEqual(of('2026-11-01', '2026-11-30'));
    expect(of('2026-11-25', '2026-11-25')).toHaveLength(1);
  });
  test('none at weekends, and none of the base itself', () => {
    const rates = ratesBetween('SEK', '2026-11-20', '2026-11-23');
    expect([...new Set(rates.map((r) => r.date))]).toEqual(['2026-11-20', '2026-11-23']);
    expect(rates.some((r) => r.currency === 'SEK')).toBe(false);
  });
  test('from another base it is the quotient', () => {
    const rate = (base: string, currency: string) =>
      Number(ratesBetween(base, '2026-11-25', '2026-11-25').find((r) => r.currency === currency)?.rate);
    expect(rate('GBP', 'SEK')).toBeCloseTo(rate('EUR', 'SEK') / rate('EUR', 'GBP'), 2);
  });
  test('answers over HTTP, and refuses what it cannot read', async () => {
    const get = (query: string) => fetch(`${source.url}/rates?${query}`);
    const answer = (await (await get('base=EUR&from=2026-11-24&to=2026-11-25')).json()) as {
      rates: unknown[];
    };
    expect(answer.rates).toHaveLength(18);
    expect((await get('base=EUR')).status).toBe(400);
  });
});
