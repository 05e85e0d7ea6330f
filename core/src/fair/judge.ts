/** What to pay at most for what lies on the table, and how a price that is asked stands to it. */
import { Decimal } from 'decimal.js';
import { checkQuestion, identify, type Observation, type ReferenceIndex } from '../bench/index.ts';
import type { Alteration, Estimate, EstimateSubject, ItemState } from '../market/index.ts';
import { minorDigits, money, type Money } from '../money/index.ts';
import type { InputProblem } from '../result/index.ts';
import { ceiling, costOf, leftOf, type Care, type MostToPay, type TradeTerms } from '../worth/index.ts';

type Maybe<T> = T | null | undefined;

export interface FairQuestion {
  readonly pattern: string;
  /** the form, where a person says which */
  readonly variant?: Maybe<string>;
  /** what was seen: without a form named, how likely each form of the pattern is */
  readonly observations?: Maybe<readonly Observation[]>;
  readonly conditionIndex?: Maybe<number>;
  readonly box?: Maybe<ItemState>;
  readonly papers?: Maybe<ItemState>;
  readonly sheath?: Maybe<ItemState>;
  readonly alterations: readonly Alteration[];
  readonly asked?: Maybe<Money>;
  readonly care?: Maybe<Care>;
}

export interface FairJudgement {
  readonly estimate: Money;
  readonly low: Money;
  readonly high: Money;
  readonly thin: boolean;
  /** false: no sale near it; the figures are a guess by kind */
  readonly supported: boolean;
  readonly notes: string[];
  readonly care: Care;
  /** what is counted on: the chosen point of what it might bring */
  readonly price: Money;
  readonly most: MostToPay;
  /** bought at what is asked and sold at what is counted on */
  readonly atAsked: { readonly cost: Money; readonly left: Money; readonly marginPct: number | null } | null;
  readonly verdict: 'pay' | 'haggle' | 'leave' | 'no-price';
}

/** What is wrong with a question, if anything is: what it names must be in the reference. */
export function checkFairQuestion(index: ReferenceIndex, question: FairQuestion): InputProblem[] {
  const { pattern, variant, observations } = question;
  if (!index.patterns.has(pattern))
    return [{ pointer: '/pattern', message: `there is no pattern “${pattern}”` }];
  if (variant != null && index.variants.get(variant)?.pattern.id !== pattern)
    return [{ pointer: '/variant', message: `“${variant}” is no variant of this pattern` }];
  return checkQuestion(index, { observations: observations ?? [] });
}

/** Forms less likely than this change no price. */
const PRICED_FROM = 0.005;
const MOST_FORMS = 60;

/** What is priced: the form that was named, else those that what was seen leaves, else any honest one of the pattern. */
export function fairSubject(index: ReferenceIndex, question: FairQuestion): EstimateSubject {
  return {
    pattern: question.pattern,
    variants: formsOf(index, question),
    conditionIndex: question.conditionIndex ?? undefined,
    box: question.box ?? undefined,
    papers: question.papers ?? undefined,
    sheath: question.sheath ?? undefined,
    alterations: question.alterations,
  };
}

function formsOf(
  index: ReferenceIndex,
  { pattern, variant, observations }: FairQuestion,
): EstimateSubject['variants'] {
  if (variant != null) return [{ variant, probability: 1 }];
  if (observations != null && observations.length > 0) {
    const answer = identify(index, {
      observations,
      within: { patterns: [pattern] },
      found: 'fair',
      limit: MOST_FORMS,
    });
    const likely = answer.candidates.filter((c) => c.probability > PRICED_FROM);
    if (likely.length > 0) return likely.map((c) => ({ variant: c.variant, probability: c.probability }));
  }
  const honest = index.rows.filter((row) => row.pattern.id === pattern && !row.imitation);
  return honest.map((row) => ({ variant: row.variant.id, probability: 1 / honest.length }));
}

/**
 * @param base currency of the estimate and of all amounts that are answered
 * @param asked in the base, undefined where nothing is asked yet
 */
export function judgeAsked(
  base: string,
  terms: TradeTerms,
  estimate: Estimate,
  care: Care,
  asked: string | undefined,
): FairJudgement {
  const { price, most } = ceiling(base, terms, estimate, care);
  const amount = (x: number) => money(x, base);
  return {
    estimate: amount(estimate.estimate),
    low: amount(estimate.low),
    high: amount(estimate.high),
    thin: estimate.thin,
    supported: estimate.supported,
    notes: [...estimate.notes],
    care,
    price: money(price, base),
    most,
    atAsked: asked === undefined ? null : boughtAt(base, terms, price, new Decimal(asked)),
    verdict: asked === undefined ? 'no-price' : verdictOn(new Decimal(asked), most.bid),
  };
}

/** What is left where it is bought at a price and sold at the one that is counted on. */
function boughtAt(base: string, terms: TradeTerms, price: string, bid: Decimal): FairJudgement['atAsked'] {
  const { premium, cost } = costOf(base, terms.buying, bid);
  const paid = bid.plus(premium).toFixed(minorDigits(base));
  const net = new Decimal(leftOf(base, terms.channel, price, terms.tax, paid).left);
  const left = net.minus(cost);
  return {
    cost: money(cost, base),
    left: money(left, base),
    marginPct: net.gt(0) ? left.div(net).times(100).toNumber() : null,
  };
}

/** A price so far above the ceiling may still be talked down. */
const HAGGLE_UP_TO = 1.35;
function verdictOn(asked: Decimal, most: string | null): FairJudgement['verdict'] {
  if (most === null) return 'leave';
  if (asked.lte(most)) return 'pay';
  return asked.lte(new Decimal(most).times(HAGGLE_UP_TO)) ? 'haggle' : 'leave';
}
