/** Fits the market in a thread of its own: reads the prices itself, so that the server's thread stays free. */
import { fitMarket, type ValueSettings } from '@jutbank/core/market';
import { revisions } from '../db/index.ts';
import { RuleLibrary } from '../rules/index.ts';
import { shopOf } from '../shop/index.ts';
import { answering, databaseOfThread } from '../threads/index.ts';
import { keptReference, type Knowledge } from './knowledge.ts';
import { loadRates, rateOn } from './queries.ts';
import { marketReference } from './reference.ts';
import { middlesOf, salesKnown, salesUpTo } from './sales.ts';
import { storedFits, storeFit, type MarketFit } from './storedFit.ts';

export interface FitRequest {
  readonly asOf: string;
  /** fits from what was known then, from the beginning, and keeps nothing */
  readonly known?: Knowledge | undefined;
  readonly settings?: ValueSettings | undefined;
}

const database = databaseOfThread();

/** A market that has grown by more than this since it was learned whole is learned whole again. */
const ANEW_AFTER = 1.3;

async function fitKnown({ asOf, settings }: FitRequest, known: Knowledge): Promise<MarketFit> {
  const { rates, reference, now, sales, grades } = await database.transaction(async (tx) => ({
    rates: rateOn(await loadRates(tx, known.rates), (await shopOf(tx)).baseCurrency),
    reference:
      known.reference === undefined ? await marketReference(tx) : await keptReference(tx, known.reference),
    now: await revisions(tx),
    ...(await salesKnown(
      tx,
      { asOf, comparables: known.comparables },
      known.middles ?? middlesOf(await new RuleLibrary(tx).inUse()),
    )),
  }));
  return {
    asOf,
    reference: now.reference,
    comparables: known.comparables,
    rates: known.rates,
    rules: now.rules,
    grades,
    fitted: fitMarket(sales, reference, rates, settings ? { settings } : {}),
  };
}

async function fit(request: FitRequest): Promise<MarketFit> {
  if (request.known) return fitKnown(request, request.known);
  const { asOf } = request;
  // one snapshot: a price that comes in meanwhile is neither among the sales nor in the revision
  const { now, rates, reference, sales, grades } = await database.transaction(async (tx) => {
    const now = await revisions(tx);
    const shop = await shopOf(tx);
    const rates = rateOn(await loadRates(tx), shop.baseCurrency);
    return {
      now,
      rates,
      reference: await marketReference(tx),
      ...(await salesUpTo(tx, asOf, middlesOf(await new RuleLibrary(tx).inUse()))),
    };
  });
  const last = (await storedFits(database))[0]?.fitted;
  const start = last && sales.length <= ANEW_AFTER * last.learnedFrom ? last : undefined;
  const made: MarketFit = {
    asOf,
    reference: now.reference,
    comparables: now.comparables,
    rates: now.rates,
    rules: now.rules,
    grades,
    fitted: fitMarket(sales, reference, rates, { start }),
  };
  await storeFit(database, made);
  return made;
}

// one after the other: the next begins from what the last one learned
const work = { fit };
export type FitWork = typeof work;
answering(work);
