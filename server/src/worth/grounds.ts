/** What stands beside a grid: paired sales behind its lines, and near sales that are in no line of it, with why. */
import { money, type Money } from '@jutbank/core/money';
import { PAIRS_SHOWN, pairsBehind } from '@jutbank/core/worth';
import type { Comparable } from '@jutbank/core/market';
import type { EstimateQuestion } from '@jutbank/contract/market';
import type { Grounds, NearSale, PairedSale } from '@jutbank/contract/worth';
import type { Queries } from '../db/index.ts';
import { isoDay, type MarketOnDay } from '../market/index.ts';
import { namesOfVariants, rejectedOf, venuesOf } from './queries.ts';

const MOST_NEAR = 30;

export async function groundsOf(
  db: Queries,
  on: MarketOnDay,
  { subject, currency }: EstimateQuestion,
): Promise<Grounds> {
  const { pattern } = subject;
  const sales = (await on.salesOfPatterns([pattern])).get(pattern) ?? [];
  const asked = new Set(subject.variants.map((v) => v.variant));
  const rate = on.rates(currency, on.day) ?? NaN;
  const lines = pairsBehind(on.market, sales).map((line) => ({
    ...line,
    count: line.pairs.length,
    pairs: line.pairs.slice(0, PAIRS_SHOWN),
  }));
  const others = sales
    .filter((s) => s.variant === undefined || !asked.has(s.variant))
    .sort((a, b) => b.day - a.day)
    .slice(0, MOST_NEAR);
  const [venues, names, rejected] = await Promise.all([
    venuesOf(db, [
      ...others.map((s) => s.id),
      ...lines.flatMap((line) => line.pairs.flatMap((p) => [p.more.id, p.less.id])),
    ]),
    namesOfVariants(db, pattern),
    rejectedOf(db, pattern, on.asOf, MOST_NEAR),
  ]);
  const told = (sale: Comparable) => ({
    id: sale.id,
    saleDate: isoDay(sale.day),
    venue: venues.get(sale.id) ?? sale.venueKind,
    price: money(sale.price.amount, sale.price.currency),
  });
  const paired = (sale: Comparable, paid: number): PairedSale => ({
    ...told(sale),
    paid: inCurrency(paid * rate, currency),
  });
  return {
    pairs: lines.map((line) => ({
      ...line,
      pairs: line.pairs.map(({ more, less, paidMore, paidLess, ...rest }) => ({
        ...rest,
        more: paired(more, paidMore),
        less: paired(less, paidLess),
      })),
    })),
    near: [
      ...rejected,
      ...others.map((sale): NearSale => {
        const name = names.get(sale.variant ?? '') ?? null;
        return {
          ...told(sale),
          variant: name,
          why:
            name === null
              ? 'which form it was is not told: it speaks through the pattern'
              : 'another form: it speaks through the pattern',
        };
      }),
    ],
  };
}

const inCurrency = (amount: number, currency: string): Money => money(amount.toFixed(6), currency);
