/**
 * Worth of asking: the expected gain of the best decision after a check minus before it, over what the check may show
 * (engines.md, Money). The decision is what to ask, and for somebody who can still walk away, whether to buy at all.
 */
import { type Hazard, valueOfAsking } from './patience.ts';

/** One thing the piece might be. */
export interface Hypothesis {
  readonly probability: number;
  /** what such a one would bring, base currency */
  readonly estimate: number;
}

export interface DecisionContext {
  readonly hazard: Hazard;
  /** what is left of a price */
  readonly net: (price: number) => number;
  /** a week of keeping it */
  readonly holding: number;
  /** what it costs, where it can still be left; undefined once it is the shop's own */
  readonly cost: number | undefined;
}

/** Asks that are tried, in even steps of their logarithm around what the piece might bring. */
const ASKS_TRIED = 48;
const BELOW = 0.7;
const ABOVE = 1.5;

/** The best decision's gain for any mixture of the same parts. */
export function decisionOver(
  parts: readonly Pick<Hypothesis, 'estimate'>[],
  stake: DecisionContext,
): (weights: ArrayLike<number>) => number {
  const estimates = parts.map((p) => p.estimate);
  const low = Math.log(Math.min(...estimates) * BELOW);
  const high = Math.log(Math.max(...estimates) * ABOVE);
  const table = Array.from({ length: ASKS_TRIED }, (_, i) => {
    const ask = Math.exp(low + ((high - low) * i) / (ASKS_TRIED - 1));
    const left = stake.net(ask);
    return estimates.map((estimate) => valueOfAsking(ask / estimate, left, stake.hazard, stake.holding));
  });
  return (weights) => {
    let best = stake.cost === undefined ? -Infinity : 0;
    for (const row of table) {
      let value = -(stake.cost ?? 0);
      for (let v = 0; v < row.length; v++) value += (weights[v] ?? 0) * (row[v] ?? 0);
      if (value > best) best = value;
    }
    return best;
  };
}

/**
 * @param table for each part the chance of each outcome of the check, rows in the order of `parts`
 * @returns in the currency of the estimates; never below zero, for one may always decide as before
 */
export function valueOfSampleInformation(
  parts: readonly Hypothesis[],
  table: readonly ArrayLike<number>[],
  decide: (weights: ArrayLike<number>) => number,
): number {
  const total = parts.reduce((sum, p) => sum + p.probability, 0);
  if (parts.length === 0 || !(total > 0)) return 0;
  const prior = parts.map((p) => p.probability / total);
  const outcomes = table[0]?.length ?? 0;
  let after = 0;
  const posterior = new Float64Array(parts.length);
  for (let x = 0; x < outcomes; x++) {
    let chance = 0;
    for (let v = 0; v < parts.length; v++) {
      posterior[v] = (prior[v] ?? 0) * (table[v]?.[x] ?? 0);
      chance += posterior[v] ?? 0;
    }
    if (!(chance > 0)) continue;
    for (let v = 0; v < parts.length; v++) posterior[v] = (posterior[v] ?? 0) / chance;
    after += chance * decide(posterior);
  }
  return Math.max(0, after - decide(prior));
}

/** What knowing for certain would be worth: a check that tells each part apart. */
export const valueOfPerfectInformation = (
  parts: readonly Hypothesis[],
  decide: (weights: ArrayLike<number>) => number,
): number =>
  valueOfSampleInformation(
    parts,
    parts.map((_, i) => parts.map((_other, x) => (x === i ? 1 : 0))),
    decide,
  );
