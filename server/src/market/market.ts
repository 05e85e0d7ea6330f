/**
 * The fitted market of a day, never older than an import that was answered: the newest fit is brought up to date for
 * the few prices that came since, and a whole new one is made in the background.
 */
import {
  amendMarket,
  gatherPrices,
  Market,
  marketReferenceOf,
  MOST_AMENDED,
  mostAmended,
  NOTHING_GATHERED,
  type Comparable,
  type EstimateSubject,
  type Evidence,
  type FittedMarket,
  type GatheredPrices,
  type MarketReference,
  type RateOn,
  type ValueSettings,
} from '@jutbank/core/market';
import { revisions, type Database, type RevisionName } from '../db/index.ts';
import type { Library } from '../reference/index.ts';
import { shopOf } from '../shop/index.ts';
import { Thread } from '../threads/index.ts';
import type { FitWork } from './fitWorker.ts';
import { settingsInUse } from './houseRecord.ts';
import { keptReference, knownOnDay, type Knowledge } from './knowledge.ts';
import { loadRates, rateOn, type RateTable } from './queries.ts';
import {
  changeBetween,
  numberDay,
  salesByIds,
  salesOf,
  type SalesSnapshot,
  type SalesChange,
} from './sales.ts';
import { storedFits, type MarketFit } from './storedFit.ts';

/** Fits and prepared markets that are kept in hand. */
const MOST_FITS = 6;
const MOST_MARKETS = 12;
const MOST_TRIES = 6;
const MOST_KNOWN = 6;
/** A fit in the background begins after so long without another change, but no later than that. */
const QUIET_MS = 1500;
const LONGEST_WAIT_MS = 15_000;

type Revisions = Record<RevisionName, number>;
interface Basis {
  readonly table: RateTable;
  readonly rates: RateOn;
  readonly base: string;
  readonly reference: MarketReference;
  readonly settings: ValueSettings;
}

/** A market ready to be asked on one day. */
export class MarketOnDay {
  readonly #changed: Gathered = new Map();

  constructor(
    readonly database: Database,
    readonly market: Market,
    readonly table: RateTable,
    readonly base: string,
    readonly asOf: string,
    /** what the fit behind it rests on; prices gathered for that are shared by all that rest on it */
    readonly behind: {
      readonly fit: MarketFit;
      readonly gathered: Gathered;
      readonly change: SalesChange;
      /** sales as they stand, or as they counted in the fit's revision */
      readonly known?: 'since' | 'then';
    },
  ) {}

  get rates(): RateOn {
    return this.market.rateOn;
  }

  get day(): number {
    return numberDay(this.asOf);
  }

  async evidence(subject: EstimateSubject): Promise<Evidence> {
    const gathered = await Promise.all(
      subject.variants.map(
        async ({ variant }) =>
          [variant, await this.#gathered({ variant }, (s) => s.variant === variant)] as const,
      ),
    );
    const reasons = new Map(
      this.market.fitted.excluded.flatMap((e) => (e.pattern === subject.pattern ? [[e.id, e.reason]] : [])),
    );
    const excluded = await salesByIds(
      this.database,
      [...reasons.keys()].slice(0, MOST_EXCLUDED),
      this.behind.fit.grades,
    );
    // the whole pattern is looked through only where the variants have no sale to show
    const ownSold = gathered.some(([, prices]) => prices.sold.length > 0);
    const { pattern } = subject;
    return {
      own: new Map(gathered),
      pattern: ownSold ? NOTHING_GATHERED : await this.#gathered({ pattern }, (s) => s.pattern === pattern),
      excluded: excluded.flatMap((sale) => {
        const reason = reasons.get(sale.id);
        return reason === undefined ? [] : [{ sale, reason }];
      }),
    };
  }

  /** All sales of some patterns up to the day, by pattern, as they stand now. */
  async salesOfPatterns(patterns: readonly string[]): Promise<Map<string, Comparable[]>> {
    const { fit, change } = this.behind;
    const extent = { asOf: this.asOf, comparables: fit.comparables };
    const gone = new Set(change.removed.map((s) => s.id));
    const found = new Map(patterns.map((pattern): [string, Comparable[]] => [pattern, []]));
    const known = await salesOf(this.database, { patterns }, extent, fit.grades, this.behind.known);
    for (const sale of [...change.added, ...known.filter((s) => !gone.has(s.id))])
      found.get(sale.pattern)?.push(sale);
    return found;
  }

  /** Those the fit knew, gathered once; with them what came since. What went since has them gathered anew. */
  #gathered(
    of: { variant: string } | { pattern: string },
    belongs: (sale: Comparable) => boolean,
  ): Promise<GatheredPrices> {
    const { fit, gathered, change } = this.behind;
    const key = JSON.stringify(of);
    const extent = { asOf: this.asOf, comparables: fit.comparables };
    const read = () => salesOf(this.database, of, extent, fit.grades, this.behind.known);
    const added = change.added.filter(belongs);
    if (change.removed.some(belongs))
      return once(this.#changed, key, async () =>
        gatherPrices(this.market, added, gatherPrices(this.market, await read())),
      );
    const known = once(gathered, key, async () => gatherPrices(this.market, await read()));
    return added.length === 0
      ? known
      : once(this.#changed, key, async () => gatherPrices(this.market, added, await known));
  }
}

type Gathered = Map<string, Promise<GatheredPrices>>;
function once(kept: Gathered, key: string, make: () => Promise<GatheredPrices>): Promise<GatheredPrices> {
  let found = kept.get(key);
  if (!found) {
    kept.set(key, (found = make()));
    found.catch(() => kept.delete(key));
  }
  return found;
}

const MOST_EXCLUDED = 200;

/** A fit brought up to date, step by step. */
interface Amended extends SalesSnapshot {
  readonly origin: MarketFit;
  readonly reference: number;
  readonly fitted: FittedMarket;
  /** all that came and went since the fit was made */
  readonly since: SalesChange;
}
const size = (change: SalesChange) => change.added.length + change.removed.length;
/** One change after another: what came and went again is neither. */
function composeChanges(first: SalesChange, then: SalesChange): SalesChange {
  const gone = new Set(then.removed.map((s) => s.id));
  const back = new Set(then.added.map((s) => s.id));
  const came = new Set(first.added.map((s) => s.id));
  const left = new Set(first.removed.map((s) => s.id));
  return {
    added: [...first.added.filter((s) => !gone.has(s.id)), ...then.added.filter((s) => !left.has(s.id))],
    removed: [
      ...first.removed.filter((s) => !back.has(s.id)),
      ...then.removed.filter((s) => !came.has(s.id)),
    ],
  };
}

/** The rates of a day: units of a currency for one of the base. */
export interface DayRates {
  readonly base: string;
  readonly rateOf: (currency: string) => string | undefined;
}

export class Markets {
  readonly #ready = new Map<string, Promise<MarketOnDay>>();
  readonly #gathered = new WeakMap<MarketFit, Map<string, Gathered>>();
  #fits: MarketFit[] | undefined;
  #fitting: Promise<MarketFit> | undefined;
  #lastAsked: string | undefined;
  #amended: Amended | undefined;
  #basis: { key: string; basis: Promise<Basis> } | undefined;
  #refit: { timer: NodeJS.Timeout; since: number } | undefined;
  readonly #fitter: Thread<FitWork>;

  /** @param url of the database, for the fitting thread; @param onError hears of fits that failed in the background */
  constructor(
    readonly database: Database,
    readonly library: Library,
    url: string,
    readonly onError: (error: unknown) => void,
  ) {
    this.#fitter = new Thread(new URL('./fitWorker.ts', import.meta.url), url);
  }

  /** Nobody's first question waits for a thread to start. */
  warm(): void {
    this.#fitter.warm();
  }

  close(): Promise<void> {
    clearTimeout(this.#refit?.timer);
    return this.#fitter.close();
  }

  on(asOf: string): Promise<MarketOnDay> {
    this.#lastAsked = asOf;
    return this.#on(asOf);
  }

  /** The market of a day from what had been entered by the end of another; today's is the market as it stands. */
  async asKnownOn(asOf: string, day: string): Promise<MarketOnDay> {
    const [then, now] = await Promise.all([knownOnDay(this.database, day), revisions(this.database)]);
    if (then.comparables === now.comparables && then.rates === now.rates) return this.on(asOf);
    return this.asKnown(asOf, then);
  }

  /** Fitted from the beginning, so that the same knowledge always gives the same answer. */
  async asKnown(asOf: string, known: Knowledge, settings?: ValueSettings): Promise<MarketOnDay> {
    const { reference, rules, record } = await revisions(this.database);
    const key = JSON.stringify([asOf, known, settings, reference, rules, record]);
    const found = this.#known.get(key);
    if (found) return found;
    const preparing = this.#prepareKnown(asOf, known, settings);
    this.#known.set(key, preparing);
    preparing.catch(() => this.#known.delete(key));
    for (const old of this.#known.keys()) {
      if (this.#known.size <= MOST_KNOWN) break;
      this.#known.delete(old);
    }
    return preparing;
  }
  readonly #known = new Map<string, Promise<MarketOnDay>>();

  async #prepareKnown(asOf: string, known: Knowledge, settings?: ValueSettings): Promise<MarketOnDay> {
    const basis = await this.#basisOf(await revisions(this.database));
    const [fit, table, shop] = await Promise.all([
      this.#fitter.ask('fit', { asOf, known, settings }),
      loadRates(this.database, known.rates),
      shopOf(this.database),
    ]);
    const reference =
      known.reference === undefined ? basis.reference : await keptReference(this.database, known.reference);
    const market = new Market(
      fit.fitted,
      reference,
      rateOn(table, shop.baseCurrency),
      settings ?? basis.settings,
    );
    return new MarketOnDay(this.database, market, table, shop.baseCurrency, asOf, {
      fit,
      gathered: new Map(),
      change: { added: [], removed: [] },
      known: 'then',
    });
  }

  /** The exchange rates of a day alone: no market need be fitted for them. */
  async ratesOn(asOf: string): Promise<DayRates> {
    const { rates, base } = await this.#basisOf(await revisions(this.database));
    return { base, rateOf: (currency) => rates(currency, numberDay(asOf))?.toString() };
  }

  /** Prices came in: the market is made ready before somebody asks. */
  prefetch(today: string): void {
    this.#on(this.#lastAsked ?? today).catch(this.onError);
  }

  async #on(asOf: string): Promise<MarketOnDay> {
    const now = await revisions(this.database);
    const key = [now.reference, now.comparables, now.rates, now.rules, now.record, asOf].join(' ');
    const known = this.#ready.get(key);
    if (known) return known;
    const preparing = this.#prepare(now, asOf, key);
    this.#ready.set(key, preparing);
    preparing.catch(() => this.#ready.delete(key));
    for (const old of this.#ready.keys()) {
      if (this.#ready.size <= MOST_MARKETS) break;
      this.#ready.delete(old);
    }
    return preparing;
  }

  async #prepare(first: Revisions, asOf: string, key: string): Promise<MarketOnDay> {
    this.#fits ??= await storedFits(this.database);
    for (let now = first, tries = 0; tries < MOST_TRIES; tries++) {
      const { table, rates, base, reference, settings } = await this.#basisOf(now);
      for (const fit of this.#fits) {
        if (fit.rates !== now.rates || fit.rules !== now.rules) continue;
        const from = this.#lastAmended(fit, asOf, now);
        const change = await changeBetween(
          this.database,
          from,
          { comparables: now.comparables, asOf },
          fit.grades,
          // one after another they are taken in until the fit that follows them is made
          Math.max(
            0,
            Math.min(
              tries === 0 ? mostAmended(fit.fitted.prices) : MOST_AMENDED,
              MOST_AMENDED - size(from.since),
            ),
          ),
        );
        if (!change) continue;
        const changed = change.added.length + change.removed.length > 0;
        const fitted = changed
          ? amendMarket(from.fitted, change.added, change.removed, reference, rates)
          : from.fitted;
        const since = composeChanges(from.since, change);
        if (fit.reference !== now.reference || (size(since) > 0 && fit.comparables !== now.comparables))
          this.#fitSoon(asOf, key);
        this.#amended = {
          origin: fit,
          reference: now.reference,
          comparables: now.comparables,
          asOf,
          fitted,
          since,
        };
        return new MarketOnDay(
          this.database,
          new Market(fitted, reference, rates, settings),
          table,
          base,
          asOf,
          {
            fit,
            gathered: this.#gatheredFor(fit, `${asOf} ${now.reference}`),
            change: since,
          },
        );
      }
      // a fit that is under way may do
      await (this.#fitting ?? this.#fit(asOf));
      now = await revisions(this.database);
    }
    throw new Error('the market moves faster than it can be fitted');
  }

  /** The fit as it was last brought up to date for that day, or as it was made. */
  #lastAmended(
    fit: MarketFit,
    asOf: string,
    now: Revisions,
  ): Pick<Amended, 'comparables' | 'asOf' | 'fitted' | 'since'> {
    const last = this.#amended;
    return last?.origin === fit &&
      last.asOf === asOf &&
      last.reference === now.reference &&
      last.comparables <= now.comparables
      ? last
      : { ...fit, since: { added: [], removed: [] } };
  }

  /** Rates, reference and the house's record as they are in a revision, read once. */
  async #basisOf(now: Revisions): Promise<Basis> {
    const key = [now.reference, now.rates, now.record].join(' ');
    if (this.#basis?.key === key) return this.#basis.basis;
    const basis = (async (): Promise<Basis> => {
      const [table, shop, index, settings] = await Promise.all([
        loadRates(this.database),
        shopOf(this.database),
        this.library.index(),
        settingsInUse(this.database),
      ]);
      return {
        table,
        rates: rateOn(table, shop.baseCurrency),
        base: shop.baseCurrency,
        settings,
        reference: marketReferenceOf(
          index.patterns.values(),
          index.rows.map((row) => row.variant),
          index.features.values(),
        ),
      };
    })();
    this.#basis = { key, basis };
    basis.catch(() => (this.#basis = undefined));
    return basis;
  }

  #gatheredFor(fit: MarketFit, day: string): Gathered {
    let days = this.#gathered.get(fit);
    if (!days) this.#gathered.set(fit, (days = new Map()));
    let gathered = days.get(day);
    if (!gathered) days.set(day, (gathered = new Map()));
    return gathered;
  }

  #fit(asOf: string): Promise<MarketFit> {
    const fitting = this.#fitter.ask('fit', { asOf }).then((fit) => {
      this.#fits = [fit, ...(this.#fits ?? [])].slice(0, MOST_FITS);
      return fit;
    });
    this.#fitting = fitting;
    const done = () => {
      if (this.#fitting === fitting) this.#fitting = undefined;
    };
    fitting.then(done, done);
    return fitting;
  }

  /** A whole fit in the background, once it is quiet for a moment; whatever is prepared after it rests on it. */
  #fitSoon(asOf: string, key: string): void {
    if (this.#fitting) return;
    const since = this.#refit?.since ?? Date.now();
    clearTimeout(this.#refit?.timer);
    const wait = Math.max(0, Math.min(QUIET_MS, since + LONGEST_WAIT_MS - Date.now()));
    const timer = setTimeout(() => {
      this.#refit = undefined;
      this.#fit(asOf).then(() => this.#ready.delete(key), this.onError);
    }, wait);
    timer.unref();
    this.#refit = { timer, since };
  }
}
