/** What a phone carries to a fair, packed from the shop as it stands. */
import { BAG_VERSION, packEncounters, packRates, type FairBag } from '@jutbank/core/fair';
import { marketForMakers, packMarket } from '@jutbank/core/market';
import { invalid } from '../http/index.ts';
import { numbersOfShop, type Readers } from '../pieces/index.ts';
import { availabilityNotes, loadEncounters } from '../reference/index.ts';
import { pricingSettingsOf, tradeTermsOf } from '../shop/index.ts';
import { todayIso } from '../clock/index.ts';

/** What a phone can be asked to carry: sales, coefficients of the market, numbers to hold serials against. */
const MOST_SALES = 40_000;
const MOST_COLUMNS = 1200;
const MOST_NUMBERS = 5000;

/**
 * @param wanted ids of makers whose market is taken along, comma separated; all where none is named
 * @throws 422 for makers that are unknown, or together more than a phone can carry
 */
export async function packBag(readers: Readers, wanted: string | undefined): Promise<FairBag> {
  const { database, library, markets, rules } = readers;
  const day = todayIso();
  const [index, met, on, inUse, { settings }] = await Promise.all([
    library.index(),
    loadEncounters(database),
    markets.on(day),
    rules.inUse(),
    pricingSettingsOf(database),
  ]);
  const named = (wanted ?? '').split(',').filter((id) => id !== '');
  const strange = named.find((id) => !index.makers.has(id));
  if (strange !== undefined)
    throw invalid([{ pointer: '/makers', message: `there is no maker “${strange}”` }]);
  const makers = new Set(named.length > 0 ? named : index.makers.keys());
  const { market } = on;
  const fitted = marketForMakers(market.fitted, market.reference, makers);
  const patterns = index.contents.patterns.filter((p) => makers.has(p.maker)).map((p) => p.id);
  const sales = [...(await on.salesOfPatterns(patterns)).values()].flat();
  if (sales.length > MOST_SALES || fitted.plan.columns.length > MOST_COLUMNS)
    throw invalid([
      {
        pointer: '/makers',
        message: 'The market of these makers is too large for a phone. Choose the few you look for.',
      },
    ]);
  const serials = index.contents.codes.flatMap((code) => (code.kind === 'serial' ? [code.id] : []));
  const numbers = await numbersOfShop(database, serials, MOST_NUMBERS);
  return {
    version: BAG_VERSION,
    packedAt: new Date().toISOString(),
    day,
    base: on.base,
    makers: [...makers],
    revision: index.revision,
    reference: index.contents,
    encounters: packEncounters(met),
    rules: inUse,
    market: packMarket(fitted),
    settings: market.settings,
    sales,
    rates: packRates(market.rateOn, on.base, sales, on.day, on.table.byCurrency.keys()),
    terms: tradeTermsOf(settings),
    care: settings.care,
    availability: await availabilityNotes(database),
    numbers: numbers.map(({ code, text, told, watched }) => ({ code, text, told, watched })),
  };
}
