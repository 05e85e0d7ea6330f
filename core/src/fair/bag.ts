/**
 * What a phone carries to a fair: the reference, the market of some makers, the shop's terms and rules, as plain JSON;
 * and the table at which all of it answers, with the same engines as the server.
 */
import {
  compileReference,
  seenBefore,
  numbersRead,
  withEncounters,
  type Encounters,
  type KnownNumber,
  type Observation,
  type ReferenceIndex,
} from '../bench/index.ts';
import { gradeCondition, type GradeQuestion, type RuleSet } from '../condition/index.ts';
import { dayOf, type Day } from '../dates/index.ts';
import { recipeIn, type DrawingRecipe, type DrawnAs } from '../drawing/index.ts';
import {
  amountInBase,
  estimateWorth,
  evidenceIn,
  Market,
  marketReferenceOf,
  unpackMarket,
  VENUE_OF_SHOP,
  type Comparable,
  type PackedMarket,
  type RateOn,
  type ValueSettings,
} from '../market/index.ts';
import { availabilityOn, type AvailabilityNote, type PackContents } from '../reference/index.ts';
import { fail, succeed, type InputProblem, type Result } from '../result/index.ts';
import type { Care, TradeTerms } from '../worth/index.ts';
import {
  checkFairQuestion,
  fairSubject,
  judgeAsked,
  type FairJudgement,
  type FairQuestion,
} from './judge.ts';
import {
  checkLook,
  goneAlerts,
  lookAt,
  searchFair,
  type FairHit,
  type FairSight,
  type LookQuestion,
} from './look.ts';

type Counts = Readonly<Record<string, number>>;
/** How often things were met, as JSON. */
export type PackedEncounters = Readonly<Record<Exclude<keyof Encounters, 'unlisted'>, Counts>> & {
  readonly unlisted: number;
};

/** Raised whenever what is in a bag changes: an older one on a phone is packed again. */
export const BAG_VERSION = 2;

export interface FairBag {
  readonly version: number;
  /** ISO instant */
  readonly packedAt: string;
  /** ISO date of the market */
  readonly day: string;
  readonly base: string;
  /** makers whose market is in it */
  readonly makers: string[];
  readonly revision: string;
  readonly reference: PackContents;
  readonly encounters: PackedEncounters;
  readonly rules: RuleSet;
  readonly market: PackedMarket;
  readonly settings: ValueSettings;
  /** what was paid for pieces of these makers, and asked */
  readonly sales: readonly Comparable[];
  /** units of a currency for one of the base, by `currency day`; days since 1970 */
  readonly rates: Counts;
  readonly terms: TradeTerms;
  readonly care: Care;
  /** running numbers the shop knows or watches for */
  readonly numbers: readonly KnownNumber[];
  /** whether forms can be bought new, by variant */
  readonly availability: Readonly<Record<string, readonly AvailabilityNote[]>>;
}

/** Whether a document is a bag that this program can open. */
export const isBag = (document: object): document is FairBag =>
  'version' in document && document.version === BAG_VERSION && 'market' in document;

export const packEncounters = (met: Encounters): PackedEncounters => ({
  sold: Object.fromEntries(met.sold),
  soldOfPattern: Object.fromEntries(met.soldOfPattern),
  own: Object.fromEntries(met.own),
  ownOfPattern: Object.fromEntries(met.ownOfPattern),
  unlisted: met.unlisted,
});
const unpackEncounters = (met: PackedEncounters): Encounters => ({
  sold: new Map(Object.entries(met.sold)),
  soldOfPattern: new Map(Object.entries(met.soldOfPattern)),
  own: new Map(Object.entries(met.own)),
  ownOfPattern: new Map(Object.entries(met.ownOfPattern)),
  unlisted: met.unlisted,
});

const rateKey = (currency: string, day: number): string => `${currency} ${day}`;

/** The rates that these sales are brought to the base by, and those of the day itself. */
export function packRates(
  rateOn: RateOn,
  base: string,
  sales: readonly Comparable[],
  today: number,
  currencies: Iterable<string>,
): Record<string, number> {
  const rates: Record<string, number> = {};
  const keep = (currency: string, day: number) => {
    if (currency === base) return;
    const rate = rateOn(currency, day);
    if (rate !== undefined) rates[rateKey(currency, day)] = rate;
  };
  for (const sale of sales) keep(sale.price.currency, sale.day);
  for (const currency of currencies) keep(currency, today);
  return rates;
}

/** A bag unpacked: it answers what the server answers, from what was known when it was packed. */
export class FairTable {
  readonly index: ReferenceIndex;
  readonly #bag: FairBag;
  readonly #market: Market;
  readonly #day: Day;

  constructor(bag: FairBag) {
    this.#bag = bag;
    const [year = 0, month = 1, day = 1] = bag.day.split('-').map(Number);
    this.#day = dayOf(year, month, day);
    this.index = withEncounters(
      compileReference(bag.reference, bag.revision, this.#day),
      unpackEncounters(bag.encounters),
    );
    const { patterns, variants, features } = bag.reference;
    this.#market = new Market(
      unpackMarket(bag.market),
      marketReferenceOf(patterns, variants, features),
      (currency, on) => this.#rate(currency, on),
      bag.settings,
    );
  }

  search(words: string): FairHit[] {
    return searchFair(this.index, words);
  }

  look(question: LookQuestion): Result<FairSight, InputProblem[]> {
    const problems = checkLook(this.index, question);
    if (problems.length > 0) return fail(problems);
    const sight = lookAt(this.index, question);
    return succeed({
      ...sight,
      alerts: [
        ...sight.alerts,
        ...this.#seen(question.observations),
        ...goneAlerts(sight, (variant) =>
          availabilityOn(this.#bag.availability[variant] ?? [], this.#bag.day),
        ),
      ],
    });
  }

  conditionIndex(question: GradeQuestion): number {
    return gradeCondition(question, this.#bag.rules).conditionIndex;
  }

  judge(question: FairQuestion): Result<FairJudgement, InputProblem[]> {
    const { base, terms, care } = this.#bag;
    const problems = checkFairQuestion(this.index, question);
    if (problems.length > 0) return fail(problems);
    const maker = this.index.patterns.get(question.pattern)?.maker ?? '';
    if (!this.#bag.makers.includes(maker))
      return fail([
        {
          pointer: '/pattern',
          message: `The market of ${this.index.makers.get(maker)?.name ?? 'this maker'} is not in the bag: without a connection there is no ceiling for it.`,
        },
      ]);
    const asked = amountInBase((currency, day) => this.#rate(currency, day), base, this.#day, question.asked);
    if (question.asked && asked === undefined)
      return fail([
        { pointer: '/asked/currency', message: `no exchange rate for ${question.asked.currency} is known` },
      ]);
    const subject = fairSubject(this.index, question);
    const evidence = evidenceIn(this.#bag.sales, this.#market, subject);
    const estimate = estimateWorth(this.#market, evidence, subject, VENUE_OF_SHOP, this.#day);
    return succeed(judgeAsked(base, terms, estimate, question.care ?? care, asked));
  }

  recipe(as: DrawnAs): DrawingRecipe {
    return recipeIn(this.index, as);
  }

  #seen(observations: readonly Observation[]): string[] {
    return seenBefore(numbersRead(this.index, observations), this.#bag.numbers).map((alert) => alert.detail);
  }

  #rate(currency: string, day: number): number | undefined {
    return currency === this.#bag.base ? 1 : this.#bag.rates[rateKey(currency, day)];
  }
}
