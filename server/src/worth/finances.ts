/** Money at both ends of a piece: bases of value, most to pay, the ask, the two markets, the checks that pay. */
import { checksOf } from '@jutbank/core/bench';
import { money, type Money } from '@jutbank/core/money';
import {
  breakEven,
  leftOf,
  netOf,
  basesOfValue,
  decisionOver,
  valueOfSampleInformation,
  valueOfPerfectInformation,
  ceiling,
} from '@jutbank/core/worth';
import { inTwoMarkets } from '@jutbank/core/market';
import { offerRoutes, type PieceFinances } from '@jutbank/contract/worth';
import { answer, type Mount } from '../http/index.ts';
import {
  identifyQuestion,
  pieceRecord,
  withPostage,
  type PieceRecord,
  type Readers,
  whyNoEstimate,
} from '../pieces/index.ts';
import { tradeTermsOf, usualChannel } from '../shop/index.ts';
import { type Markets, inBase } from '../market/index.ts';
import { offersOf } from './offers.ts';
import { otherVenues, piecePrices, shopPrices, type PiecePrices } from './prices.ts';

const MOST_CHECKS = 5;

export function mountFinances(mount: Mount, readers: Readers, markets: Markets): void {
  const { database } = mount;

  mount.handle(offerRoutes.money, async ({ params }) => {
    const record = await pieceRecord(database, params.id);
    const prices = await piecePrices(await shopPrices(database, markets), readers, record);
    if (!prices) return answer({ money: null, why: whyNoEstimate(record) });
    const { on, settings, retail, cost, best, points, hazard, subject } = prices;
    const { base } = on;
    const amount = (x: number): Money => money(x, base);
    const channel = withPostage(usualChannel(settings), record, base);
    const { market, trade } = await otherVenues(prices);
    const ask = inBase(on, record.pricing.ask);
    const sold = { tax: settings.tax, paid: cost ?? '0' };
    const enough = cost === undefined ? undefined : breakEven(base, channel.channel, cost, null, sold);
    const inMarkets = inTwoMarkets(
      on.market,
      (await on.salesOfPatterns([subject.pattern])).get(subject.pattern) ?? [],
      retail.byVariant,
      subject.conditionIndex,
    );
    const ends: PieceFinances = {
      channel: channel.name,
      bases: basesOfValue(market, retail, trade, best.ratio).map((b) => ({
        ...b,
        amount: amount(b.amount),
        assumptions: [...b.assumptions],
      })),
      most: ceiling(base, tradeTermsOf(settings), retail, settings.care).most,
      care: settings.care,
      asOf: on.asOf,
      net:
        ask === undefined
          ? null
          : {
              currency: base,
              ...netOf(base, channel.channel, ask),
              ...leftOf(base, channel.channel, ask, settings.tax, sold.paid),
            },
      tax: settings.tax,
      breakEven: enough
        ? { ask: { amount: enough.ask, currency: base }, net: { amount: enough.net, currency: base } }
        : null,
      patience: { hazard, points: [...points], best, currency: base },
      markets: inMarkets.map((m) => ({
        ...m,
        estimate: amount(m.estimate),
        low: amount(m.low),
        high: amount(m.high),
      })),
      knowing: await knowing(readers, record, prices),
      offers: await offersOf(database, record.id),
    };
    return answer({ money: ends, why: null });
  });
}

/**
 * What settling the question is worth, and each check that helps. Variants that are priced are the parts; of a check's
 * outcomes each has its chance under every part. Until money was paid one may still walk away at what is asked for it.
 */
async function knowing(
  readers: Readers,
  record: PieceRecord,
  { on, retail, hazard, holding, net, cost }: PiecePrices,
): Promise<PieceFinances['knowing']> {
  const parts = retail.byVariant;
  if (parts.length < 2) return null;
  const mayLeave = record.intake.acquired === null && cost !== undefined;
  const decide = decisionOver(parts, {
    hazard,
    net,
    holding,
    cost: mayLeave ? Number(cost) : undefined,
  });
  const index = await readers.library.index();
  const checks = checksOf(index, identifyQuestion(record)).map(({ check, of, table }) => {
    const rowOf = new Map(of.map((o, i) => [o.variant, table[i]]));
    const unlisted = rowOf.get(null);
    const rows = parts.map((part) => rowOf.get(part.variant) ?? unlisted ?? []);
    return { check, worth: valueOfSampleInformation(parts, rows, decide) };
  });
  const amount = (x: number) => money(x, on.base);
  return {
    worth: amount(valueOfPerfectInformation(parts, decide)),
    mayLeave,
    checks: checks
      .filter((c) => Number(amount(c.worth).amount) > 0)
      .sort((a, b) => b.worth - a.worth)
      .slice(0, MOST_CHECKS)
      .map(({ check, worth }) => ({
        ask: check.ask,
        effort: check.effort,
        worth: amount(worth),
        bits: check.bits,
      })),
  };
}
